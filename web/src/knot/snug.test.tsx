import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { KnotPage } from "../api/client";
import { fakeServer, show } from "../test/app";
import { DrawnUp } from "./drawnup";
import { skinOf } from "./lit";
import { type Built, SnugView } from "./snug";

// One rope over another: a straight one that stays, and one that comes down on it.
const built: Built = {
  id: "cross",
  computed: true,
  seconds: 1,
  ropes: [{ consumed_d: 10.2, knotted_d: 10.2, shortened_d: 10 }],
  bulk_d: { across: 3, along: 4, flat: 2 },
  contact_min_d: 1,
  strands: [
    { d: 1, frames: [[-200, 0, 0, 0, 0, 0, 200, 0, 0]], object: true },
    {
      d: 1,
      frames: [
        [0, -200, 300, 0, 0, 300, 0, 200, 300],
        [0, -200, 100, 0, 0, 100, 0, 200, 100],
      ],
    },
  ],
};
const figure = { bulk_d: built.bulk_d, contact_min_d: 1, ropes: built.ropes };

/** Notes the strokes that are made: from where to where, how wide. */
function pen() {
  const strokes: { width: number; from: number[]; to: number[] }[] = [];
  let rings = 0;
  let from: number[] = [];
  let to: number[] = [];
  const ctx = {
    lineWidth: 0,
    strokeStyle: "",
    lineJoin: "",
    clearRect: () => {
      strokes.length = 0;
      rings = 0;
    },
    beginPath: () => {},
    moveTo: (x: number, y: number) => {
      from = [x, y];
    },
    lineTo: (x: number, y: number) => {
      to = [x, y];
    },
    arc: () => {
      rings++;
    },
    stroke: () => strokes.push({ width: ctx.lineWidth, from, to }),
  };
  // No WebGL here: the drawing stands in.
  vi.spyOn(HTMLCanvasElement.prototype, "getContext").mockImplementation(((kind: string) =>
    kind === "2d" ? ctx : null) as never);
  return { strokes, rings: () => rings };
}

beforeEach(() => {
  fakeServer({
    "GET /api/v1/knots/cross/snug": built,
    "GET /api/v1/knots/cross/snug.svg": "<svg><title>Cross, drawn up</title></svg>",
  });
  vi.stubGlobal("matchMedia", () => ({
    matches: true,
    addEventListener: () => {},
    removeEventListener: () => {},
  }));
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

it("paints what is behind first, and turns it by keys", async () => {
  const { strokes } = pen();
  show(<SnugView id="cross" name="Cross" left={false} look="laid" />, "/");
  const canvas = await screen.findByRole("img");
  await waitFor(() => expect(strokes.length).toBe(6));
  const level = (s: (typeof strokes)[number] | undefined) =>
    Math.abs((s?.from[1] ?? 0) - (s?.to[1] ?? 0)) < 1;
  expect(level(strokes[0])).toBe(true);
  expect(level(strokes[3])).toBe(false);
  // Half round, the rope that came down is behind.
  for (let i = 0; i < 16; i++) fireEvent.keyDown(canvas, { key: "ArrowRight" });
  await waitFor(() => expect(level(strokes[0])).toBe(false));
});

it("is loose, drawn up and cut through by sliders; with reduced motion at once", async () => {
  const { strokes, rings } = pen();
  show(<SnugView id="cross" name="Cross" left={false} look="laid" />, "/");
  await waitFor(() => expect(strokes.length).toBe(6));
  fireEvent.change(screen.getByLabelText("Loose to drawn up"), { target: { value: "0" } });
  await waitFor(() => expect(screen.getByRole("img").getAttribute("aria-label")).toContain("loose"));
  fireEvent.click(screen.getByText("▶ Draw it up"));
  await waitFor(() => expect(screen.getByRole("img").getAttribute("aria-label")).toContain("drawn up"));
  expect(rings()).toBe(0);
  // A quarter turn, so that the rope that came down runs toward the viewer, and is cut.
  for (let i = 0; i < 8; i++) fireEvent.keyDown(screen.getByRole("img"), { key: "ArrowUp" });
  const whole = strokes.length;
  fireEvent.change(screen.getByLabelText("Cut through"), { target: { value: "0.6" } });
  await waitFor(() => expect(strokes.length + rings()).not.toBe(whole));
});

it("has a skin that faces outward all round", () => {
  const { corners, faces } = skinOf(Float64Array.from([0, 0, 0, 1, 0, 0, 2, 0.5, 0, 3, 1, 1]), 2, false);
  const at = (i: number, o: number) => [0, 1, 2].map((a) => corners[8 * i + o + a] ?? 0);
  for (let f = 0; f < faces.length; f += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => faces[f + k] ?? 0) as [number, number, number];
    const [u, v] = [b, c].map((i) => at(i, 0).map((x, k) => x - (at(a, 0)[k] ?? 0)));
    const [u0 = 0, u1 = 0, u2 = 0] = u ?? [];
    const [v0 = 0, v1 = 0, v2 = 0] = v ?? [];
    const face = [u1 * v2 - u2 * v1, u2 * v0 - u0 * v2, u0 * v1 - u1 * v0];
    const out = at(a, 3).reduce((sum, x, k) => sum + x * (face[k] ?? 0), 0);
    expect(out).toBeGreaterThan(0);
  }
  for (let i = 0; i < corners.length / 8; i++) expect(Math.hypot(...at(i, 3))).toBeCloseTo(1, 5);
});

it("shows the figure first, and what is in the hand once it is asked for", async () => {
  pen();
  show(
    <DrawnUp knot={{ id: "cross", name: "Cross", snug: figure } as KnotPage} left={false} look="laid" />,
    "/",
  );
  await waitFor(() =>
    expect(document.querySelector(".knot-drawing title")?.textContent).toBe("Cross, drawn up"),
  );
  expect(screen.queryByTestId("snug")).toBeNull();
  fireEvent.click(screen.getByText("Take it in the hand"));
  await screen.findByTestId("snug");
});

it("says nothing of a knot that is not computed", () => {
  show(<DrawnUp knot={{ id: "cross", name: "Cross" } as KnotPage} left={false} look="laid" />, "/");
  expect(screen.queryByText("So it looks drawn up")).toBeNull();
});
