import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { KnotPage } from "../api/client";
import { fakeServer, show } from "../test/app";
import { DrawnUp } from "./drawnup";
import { type Built, SnugView } from "./snug";

// One rope over another: a straight one that stays, and one that comes down on it.
const built: Built = {
  id: "cross",
  computed: true,
  seconds: 1,
  ropes: [{ consumed_d: 10.2, shortened_d: 10 }],
  bulk_d: { across: 3, along: 4 },
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
  vi.spyOn(HTMLCanvasElement.prototype, "getContext").mockReturnValue(ctx as never);
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
  show(<SnugView id="cross" name="Cross" left={false} />, "/");
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
  show(<SnugView id="cross" name="Cross" left={false} />, "/");
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

it("shows the figure first, and what is in the hand once it is asked for", async () => {
  pen();
  show(<DrawnUp knot={{ id: "cross", name: "Cross", snug: figure } as KnotPage} left={false} />, "/");
  await waitFor(() =>
    expect(document.querySelector(".knot-drawing title")?.textContent).toBe("Cross, drawn up"),
  );
  expect(screen.queryByTestId("snug")).toBeNull();
  fireEvent.click(screen.getByText("Take it in the hand"));
  await screen.findByTestId("snug");
});

it("says nothing of a knot that is not computed", () => {
  show(<DrawnUp knot={{ id: "cross", name: "Cross" } as KnotPage} left={false} />, "/");
  expect(screen.queryByText("So it looks drawn up")).toBeNull();
});
