import { expect, test } from "vitest";
import type { Schemas } from "../api/client";
import { ask, judge } from "./quizzed";

const fault = (code: string, at: number[] = [5, 5, 1]): Schemas["QuizFault"] => ({
  drawing: code,
  right: "",
  knot: "reef-knot",
  of: "Reef knot",
  code,
  name: code.toUpperCase(),
  looks: "",
  leads: "",
  mend: "",
  at,
  frame: [0, 0, 10, 10],
});
const faults = ["granny", "thief", "grief", "cow"].map((c) => fault(c));

test("every fault comes before one comes again, and the same seed asks the same", () => {
  const asked = [0, 1, 2, 3].map((t) => ask(faults, 7, t, true).fault.code);
  expect(new Set(asked).size).toBe(4);
  expect([0, 1, 2, 3].map((t) => ask(faults, 7, t, true).fault.code)).toEqual(asked);
});

test("alone, some are right", () => {
  const wrong = Array.from({ length: 60 }, (_, t) => ask(faults, 3, t, false).wrong);
  expect(wrong).toContain(true);
  expect(wrong).toContain(false);
});

test("a name to choose is always among the three", () => {
  for (let t = 0; t < 20; t++) {
    const a = ask(faults, 1, t, false);
    expect(a.names).toContain(a.fault.name);
    expect(new Set(a.names).size).toBe(3);
  }
});

test("touched at the ring it is found; elsewhere, on the right one, or left alone it is not", () => {
  const pair = { fault: fault("granny"), shown: [false, true], wrong: true, names: [] };
  expect(judge(pair, { place: 1, at: [5.4, 5.2] }).right).toBe(true);
  expect(judge(pair, { place: 1, at: [9, 9] }).right).toBe(false);
  expect(judge(pair, { place: 0, at: [5, 5] }).right).toBe(false);
  expect(judge(pair, { name: "GRANNY" }).right).toBe(true);
  expect(judge(pair, { name: "THIEF" }).right).toBe(false);
  expect(judge(pair, {}).right).toBe(false);
  const alone = { ...pair, shown: [false], wrong: false };
  expect(judge(alone, {}).right).toBe(true);
  expect(judge(alone, { place: 0, at: [5, 5] }).right).toBe(false);
  expect(judge({ ...pair, fault: fault("x", []) }, { place: 1, at: [0, 0] }).right).toBe(true);
});
