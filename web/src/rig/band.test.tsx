import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { Catalogue, Rig, Schemas } from "../api/client";
import { fakeServer, show } from "../test/app";
import { LineBand } from "./band";
import {
  addFitting,
  addLine,
  isInner,
  merge,
  move,
  part,
  remove,
  sound,
  turnRound,
  withLine,
} from "./document";
import { LoadDialog } from "./load";
import { Outcome, WholeRig } from "./whole";

const line = (mm: number) => ({ line: { material: "polyester", diameter_mm: mm } });
const joint = (task: string) => ({ joint: { task } });
const ring = { fitting: { kind: "ring", size_mm: 40 } };
const cleat = { fitting: { kind: "cleat" } };
const rode: Rig = {
  peak_kn: 2,
  chain: [ring, joint("anchor"), line(12), joint("extend"), line(10), joint("moor"), cleat],
};
const sizes = (rig: Rig) => rig.chain.map((e) => e.line?.diameter_mm ?? (e.fitting ? e.fitting.kind : "·"));

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it("takes a joint out of the chain and puts it back, from either end", () => {
  expect(part(rode, 1).chain).toEqual([ring, joint("anchor"), line(12)]);
  expect(part(rode, 5).chain).toEqual([cleat, joint("moor"), line(10)]);
  expect(sizes(merge(rode, 5, withLine(part(rode, 5), { diameter_mm: 14 })))).toEqual([
    "ring",
    "·",
    12,
    "·",
    14,
    "·",
    "cleat",
  ]);
  expect(merge(rode, 3, part(rode, 3))).toEqual(rode);
  expect([1, 3, 5].map((at) => isInner(rode, at))).toEqual([false, true, false]);
});

it("adds, moves, removes and turns round, and stays a chain", () => {
  expect(sizes(addLine(rode, 2))).toEqual(["ring", "·", 12, "·", 12, "·", 10, "·", "cleat"]);
  expect(sizes(addLine(rode, 0))).toEqual(["ring", "·", 12, "·", 12, "·", 10, "·", "cleat"]);
  expect(sizes(addLine(rode, 6))).toEqual(["ring", "·", 12, "·", 10, "·", 10, "·", "cleat"]);
  expect(sizes(move(rode, 2, 1))).toEqual(["ring", "·", 10, "·", 12, "·", "cleat"]);
  expect(move(rode, 2, -1)).toBe(rode);
  expect(sizes(remove(rode, 4))).toEqual(["ring", "·", 12, "·", "cleat"]);
  expect(sizes(remove(rode, 0))).toEqual([12, "·", 10, "·", "cleat"]);
  expect(sizes(turnRound(rode))).toEqual(["cleat", "·", 10, "·", 12, "·", "ring"]);
  const open = remove(rode, 6);
  expect(sizes(addFitting(open))).toEqual(["ring", "·", 12, "·", 10, "·", "cleat"]);
  const short: Rig = { peak_kn: 1, chain: [ring, joint("moor"), line(12)] };
  expect(remove(short, 0)).toBe(short);
  const tied: Rig = { peak_kn: 1, chain: [ring, joint("moor"), line(12), joint("moor"), cleat] };
  expect(remove(tied, 2)).toBe(tied);
  for (const r of [addLine(rode, 2), remove(rode, 4), turnRound(rode), open]) expect(sound(r)).toBe(true);
  expect(sound({ peak_kn: 1, chain: [ring, joint("moor"), cleat] })).toBe(false);
});

const figure = { low: 1, likely: 2, high: 3, tag: "computed", source: "" };
const whole = {
  rig: rode,
  needed_kn: 10,
  margin: 0.2,
  capacity_kn: figure,
  weakest: { at: 4, says: "The 10 mm polyester gives way first." },
  chance: { holds: 0.995, slips: 0.005, breaks: 0, by_class: false, p5_kn: 1, p50_kn: 2, p95_kn: 3 },
  joints: [1, 3, 5].map((at) => ({ at, knot: "", against: at === 3 ? [{ gate: "x", why: "no" }] : [] })),
  lines: [2, 4].map((at) => ({ at, diameter_mm: 10, capacity_kn: figure, name: "polyester" })),
  cast_off: ["First the cleat.", "Then the ring."],
  cut: [{ at: 2, says: "12 mm: cut 31 m." }],
} as unknown as Schemas["RigAnswer"];
const catalogue = {
  materials: [{ id: "polyester", name: "polyester" }],
  fittings: [
    { id: "ring", name: "ring", default_mm: 20 },
    { id: "cleat", name: "cleat", default_mm: 30 },
  ],
} as unknown as Catalogue;

it("draws every part, says what gives first, and changes the chain where it is pressed", async () => {
  const change = vi.fn();
  const look = vi.fn();
  show(
    <LineBand
      rig={rode}
      whole={whole}
      catalogue={catalogue}
      selected={undefined}
      bears={undefined}
      other={undefined}
      fishing={false}
      joint={5}
      look={look}
      change={change}
    />,
  );
  expect(
    new Set([...document.querySelectorAll("[data-piece]")].map((e) => e.getAttribute("data-piece"))).size,
  ).toBe(7);
  expect(document.querySelector('[data-piece="4"]')?.textContent).toContain("gives first");
  expect(document.body.textContent).toContain("ruled out here");
  fireEvent.click(document.querySelector('button[data-piece="1"]') as HTMLElement);
  expect(look).toHaveBeenCalledWith(1);
  const act = async (place: number, words: string) => {
    fireEvent.click(document.querySelector(`[data-acts="${place}"]`) as HTMLElement);
    fireEvent.click(await screen.findByText(words));
    await waitFor(() => expect(screen.queryByText(words)).toBeNull());
    return sizes(change.mock.lastCall?.[0]);
  };
  expect(await act(4, "Move it back")).toEqual(["ring", "·", 10, "·", 12, "·", "cleat"]);
  expect(await act(4, "Remove the line")).toEqual(["ring", "·", 12, "·", "cleat"]);
  expect(await act(2, "Add a line")).toEqual(["ring", "·", 12, "·", 12, "·", 10, "·", "cleat"]);
});

it("says in words what the whole rig bears and how sure that is", async () => {
  show(<WholeRig whole={whole} fishing={false} />);
  const text = screen.getByTestId("whole").textContent;
  expect(text).toContain("The 10 mm polyester gives way first.");
  expect(text).toContain("▲ thin: at its worst less than twice the load, 4 kN");
  fireEvent.click(screen.getByText("Letting go · To cut"));
  await screen.findByText("Then the ring.");
  expect(document.body.textContent).toContain("holds in over 99 of 100, slips in under 1");
  expect(document.body.textContent).toContain("cut 31 m");
  cleanup();
  show(<Outcome chance={{ ...(whole.chance as Schemas["Chance"]), by_class: true }} fishing />);
  expect(screen.getByTestId("outcome").textContent).toContain("held by judgement");
});

it("works out a load, and says what is wrong with what was typed", async () => {
  const change = vi.fn();
  const calls = fakeServer({
    "GET /api/v1/loads/wind": (c: { query: URLSearchParams }) =>
      c.query.get("loa") === "30 ft"
        ? {
            load_kn: { low: 2.2, likely: 3.1, high: 4.05, tag: "memory", source: "table" },
            peak_kn: 4.05,
            says: "3.1 kN of wind.",
            working: ["by the table"],
            character: "alternating",
          }
        : {
            status: 422,
            detail: "No.",
            fields: [{ field: "loa", message: "is outside the table", fix: "give 10 to 60 ft" }],
          },
  });
  show(<LoadDialog open close={() => undefined} rig={rode} change={change} fishing={false} />);
  fireEvent.change(await screen.findByLabelText("Length over all"), { target: { value: "300 ft" } });
  fireEvent.click(screen.getByText("Work it out"));
  await screen.findByText(/is outside the table/);
  fireEvent.change(screen.getByLabelText("Length over all"), { target: { value: "30 ft" } });
  fireEvent.click(screen.getByText("Work it out"));
  await screen.findByText("3.1 kN of wind.");
  fireEvent.click(screen.getByText("Use 4.05 kN in this rig"));
  await waitFor(() => expect(change).toHaveBeenCalled());
  expect(change.mock.lastCall?.[0]).toMatchObject({ peak_kn: 4.05, character: "alternating" });
  expect(calls.length).toBe(2);
});
