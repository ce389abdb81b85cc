import { expect, test } from "vitest";
import {
  apart,
  bare,
  exchanged,
  knotted,
  length,
  type Meeting,
  piece,
  ring,
  smooth,
  turned,
  withObject,
  without,
  withRope,
} from "./traced";

const zigzag = [
  [0, 0],
  [100, 0],
  [100, 60],
  [40, -40],
];
const meeting: Meeting = { x: 64, y: 0, a: [0, 0], b: [0, 2] };

test("a drawn line keeps its ends and loses its tremor", () => {
  const drawn = Array.from({ length: 200 }, (_, i) => [i * 3, 40 * Math.sin(i / 20) + (i % 2)]);
  const line = smooth(drawn);
  expect(line[0]).toEqual(drawn[0]);
  expect(apart(line[line.length - 1] as number[], drawn[199] as number[])).toBeLessThan(0.1);
  expect(line.length).toBeLessThan(170);
  expect(length(line)).toBeLessThan(length(drawn));
  expect(smooth([[5, 5]])).toEqual([[5, 5]]);
});

test("the first touch lays the later strand on top, the next the other", () => {
  const drawn = withRope(bare, zigzag);
  const once = turned(drawn, meeting);
  expect(once.over).toEqual([[0, 2, 0, 0]]);
  expect(turned(once, { ...meeting, over: "b" }).over).toEqual([[0, 0, 0, 2]]);
});

test("ends that change places take what was said of the crossings with them", () => {
  const once = turned(withRope(bare, zigzag), meeting);
  const back = exchanged(once);
  expect(back.ropes[0]?.points[0]).toEqual([40, -40]);
  expect(back.over).toEqual([[0, 0, 0, 2]]);
  expect(exchanged(back)).toEqual(once);
});

test("what it is tied round is one thing, and goes with what was said of it", () => {
  let t = withRope(bare, zigzag);
  t = withObject(t, ring([50, 0], 20), true);
  t = { ...t, over: [[1, 3, 0, 0]] };
  t = withRope(t, [
    [0, 9],
    [9, 9],
  ]);
  expect(knotted(t)).toBe(2);
  const bar = withObject(
    t,
    [
      [50, -90],
      [50, 90],
    ],
    false,
  );
  expect(bar.object).toBe(2);
  expect(bar.ropes).toHaveLength(3);
  expect(bar.over).toEqual([]);
  expect(without(bar, 0).object).toBe(1);
});

test("the piece of a rope about a crossing is as long as it should be", () => {
  const cut = piece(zigzag, 0, [90, 0], 30);
  expect(cut[0]).toEqual([60, 0]);
  expect(cut[cut.length - 1]).toEqual([100, 20]);
  expect(length(cut)).toBeCloseTo(60);
  expect(piece(zigzag, 0, [10, 0], 30)[0]).toEqual([0, 0]);
});
