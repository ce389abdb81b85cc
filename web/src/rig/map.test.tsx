import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { Catalogue, Schemas } from "../api/client";
import { show } from "../test/app";
import { firstRig } from "./document";
import { ChoiceMap, middles, ticks } from "./map";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const inputs = [
  { id: "line.diameter", name: "line diameter", unit: "mm", min: 1, max: 50 },
  { id: "load", name: "load", unit: "kN", min: 0.1, max: 10 },
] as Schemas["InputRange"][];
const catalogue = {
  knots: [
    { id: "bowline", name: "Bowline" },
    { id: "clove-hitch", name: "Clove hitch" },
  ],
} as unknown as Catalogue;
const axis = (input: string, name: string, unit: string) => ({ input, name, unit, from: 1, to: 16, now: 4 });
const frame = {
  x: axis("line.diameter", "line diameter", "mm"),
  y: axis("load", "load", "kN"),
  columns: 8,
  rows: 8,
};
const row = (n: number, knots: string[]) => JSON.stringify({ row: n, knots });

/** Answers in pieces that end in the middle of a line, as a stream does. */
function stream(text: string, size: number) {
  return new Response(
    new ReadableStream({
      start(c) {
        for (let i = 0; i < text.length; i += size)
          c.enqueue(new TextEncoder().encode(text.slice(i, i + size)));
        c.close();
      },
    }),
    { headers: { "Content-Type": "application/x-ndjson" } },
  );
}

const change = vi.fn();
const open = () =>
  show(
    <ChoiceMap
      open
      close={() => undefined}
      rig={firstRig}
      inputs={inputs}
      catalogue={catalogue}
      fishing={false}
      change={change}
    />,
  );

it("reads the rows as they come and names every patch with number and word", async () => {
  const rows = Array.from({ length: 8 }, (_, y) =>
    row(
      y,
      Array.from({ length: 8 }, (_, x) => (x < 2 ? "" : x < 5 ? "bowline" : "clove-hitch")),
    ),
  );
  const asked = vi.fn(async () => stream(`${[JSON.stringify(frame), ...rows].join("\n")}\n`, 37));
  vi.stubGlobal("fetch", asked);
  open();
  await waitFor(() => expect(screen.getByTestId("map").dataset.rows).toBe("8"));
  const text = screen.getByTestId("map").textContent ?? "";
  for (const tick of ["2 mm", "5 mm", "10 mm", "2 kN"]) expect(text).toContain(tick);
  // Pressed in the middle, the rig goes to the middle of both scales: 4 mm and 4 kN.
  const patches = screen.getByTestId("patches");
  patches.getBoundingClientRect = () => ({ left: 0, top: 0, width: 200, height: 100 }) as DOMRect;
  fireEvent.click(patches, { clientX: 100, clientY: 50 });
  const set = change.mock.calls[0]?.[0];
  expect([set.chain[2].line.diameter_mm, set.peak_kn]).toEqual([4, 4]);
  for (const word of ["Bowline", "Clove hitch", "nothing will do", "your rig", "10 kN"])
    expect(text).toContain(word);
  const [request] = asked.mock.calls[0] as unknown as [Request];
  expect(request.url).toContain("x=line.diameter&y=load");
  expect(await request.json()).toEqual(firstRig);
});

it("says so when the map cannot be drawn", async () => {
  vi.stubGlobal("fetch", async () => new Response("{}", { status: 422 }));
  open();
  await screen.findByText(/cannot be drawn/);
});

it("puts the number of a knot where its own patches lie around it", () => {
  // Two bands of one knot on either side of another: the middle of all lies in the other's.
  const rows = new Map(
    Array.from({ length: 30 }, (_, y) => [
      y,
      Array.from({ length: 30 }, (_, x) => (x < 10 || x >= 20 ? "a" : "b")),
    ]),
  );
  const [a, b] = middles(rows, ["a", "b"]);
  for (const [mark, knot] of [
    [a, "a"],
    [b, "b"],
  ] as const)
    for (const d of [-3, 3]) expect(rows.get(mark?.at?.y ?? -1)?.[(mark?.at?.x ?? -9) + d]).toBe(knot);
});

it("marks round values along its scales", () => {
  expect(ticks(1, 16).map((t) => t.value)).toEqual([1, 2, 5, 10]);
  expect(ticks(1, 16)[1]?.at).toBeCloseTo(25);
});
