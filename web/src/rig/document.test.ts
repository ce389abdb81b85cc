import { describe, expect, it } from "vitest";
import type { Catalogue, Task } from "../api/client";
import { fields } from "../test/fields";
import {
  decode,
  encode,
  firstRig,
  fittingOf,
  jointOf,
  lineOf,
  lineOnly,
  otherOf,
  turnedTo,
  withLine,
  withMaterial,
  withOther,
  withTask,
} from "./document";
import { phrases, plain, sentence } from "./phrases";

const start: Task["start"] = {
  material: "polyester",
  construction: "braid",
  diameter_mm: 12,
  peak_kn: 2.4,
  character: "alternating",
};
const task = (id: string, between: Task["between"], more: Partial<Task> = {}): Task =>
  ({
    id,
    name: `do ${id}`,
    between,
    release: "slack",
    weights: "mooring",
    group: "mooring",
    start,
    ...more,
  }) as Task;

const catalogue = {
  fields,
  task_groups: ["mooring", "fishing"],
  materials: [
    { id: "polyester", name: "polyester", fishing: false, constructions: ["laid", "braid"] },
    { id: "mono", name: "nylon monofilament", fishing: true, constructions: ["solid"] },
  ],
  surfaces: [
    { id: "polished-steel", name: "polished steel" },
    { id: "bare-wood", name: "bare wood" },
  ],
  fittings: [
    { id: "ring", name: "ring", size_is: "thickness", default_mm: 20, surface: "polished-steel" },
    { id: "post", name: "post", size_is: "diameter", default_mm: 150, surface: "bare-wood" },
    { id: "hook-eye", name: "hook eye", size_is: "width", default_mm: 3, surface: "polished-steel" },
  ],
  tasks: [
    task("moor", "fitting", { fittings: ["ring", "post"], fitting: "ring" }),
    task("join", "lines", { start: { ...start, diameter_mm: 6, other_mm: 12 } }),
    task("reef", "lines", { start: { ...start, diameter_mm: 5, other_mm: 5 } }),
    task("fly", "fitting", {
      fittings: ["hook-eye"],
      fitting: "hook-eye",
      release: "cut",
      group: "fishing",
      also: ["streamer"],
      start: {
        material: "mono",
        construction: "solid",
        label_kn: 0.0712,
        peak_kn: 0.02,
        character: "alternating",
      },
    }),
  ],
} as unknown as Catalogue;

const byId = (id: string) => catalogue.tasks.find((t) => t.id === id) as Task;

describe("the rig in the address", () => {
  it("comes back as it went, with any letters in its name", () => {
    const rig = { ...firstRig, name: "Båt ved kaien – 2 × 12 mm ✓" };
    expect(encode(rig)).toMatch(/^[A-Za-z0-9_-]+$/);
    expect(decode(encode(rig))).toEqual(rig);
  });

  it("is refused when it is cut short or is something else", () => {
    const text = encode(firstRig);
    for (const bad of ["", "!!", text.slice(0, 40), btoa("[1,2]"), btoa('{"chain":[]}')]) {
      expect(decode(bad), bad).toBeUndefined();
    }
  });
});

describe("turning to another task", () => {
  it("keeps a line of one's own, and a load within the same kind of work", () => {
    const rig = { ...withLine(firstRig, { diameter_mm: 14 }), peak_kn: 3 };
    const next = withTask(rig, byId("join"), catalogue);
    expect(lineOf(next).diameter_mm).toBe(14);
    expect(next.peak_kn).toBe(3);
    expect(fittingOf(next)).toBeUndefined();
    expect(next.chain[0]?.line?.diameter_mm).toBe(12);
    expect(turnedTo(rig, next)).toBe("Kept: your line, your load. The rest is as usual for this task.");
    expect(turnedTo(rig, rig)).toBe("");
  });

  it("brings its own world otherwise: line, tail, risk", () => {
    const next = withTask(firstRig, byId("join"), catalogue);
    expect(lineOf(next).diameter_mm).toBe(6);
    expect(jointOf(next).tail_m).toBeUndefined();
    expect(next.consequence).toBe("gear");
  });

  it("keeps the other line only where it is one's own", () => {
    const join = withTask(firstRig, byId("join"), catalogue);
    expect(otherOf(withTask(join, byId("reef"), catalogue))?.diameter_mm).toBe(5);
    const own = withOther(join, { diameter_mm: 20 });
    expect(otherOf(withTask(own, byId("reef"), catalogue))?.diameter_mm).toBe(20);
  });

  it("starts from a usual line and load where it is not", () => {
    const next = withTask(firstRig, byId("fly"), catalogue);
    expect(lineOf(next)).toEqual({ material: "mono", construction: "solid", label_kn: 0.0712 });
    expect(next.peak_kn).toBe(0.02);
    expect(jointOf(next).release).toBe("cut");
    expect(fittingOf(next)?.kind).toBe("hook-eye");
  });

  it("keeps the fitting only if the task can use it", () => {
    const back = withTask(withTask(firstRig, byId("join"), catalogue), byId("moor"), catalogue);
    expect(fittingOf(back)).toEqual({ kind: "ring", size_mm: 20, surface: "polished-steel" });
    expect(fittingOf(withTask(firstRig, byId("moor"), catalogue))).toEqual(fittingOf(firstRig));
  });

  it("leaves the rig it was given alone", () => {
    const before = structuredClone(firstRig);
    withTask(firstRig, byId("fly"), catalogue);
    withLine(firstRig, { diameter_mm: 1 });
    expect(firstRig).toEqual(before);
  });
});

describe("the sentence", () => {
  it("says the rig in plain words", () => {
    expect(plain(sentence(firstRig, catalogue))).toBe(
      "A 12 mm polyester braid on a 40 mm ring must do moor. It is wet, takes 2.4 kN that comes and goes, and must come off by hand, once slack; there is 1.2 m to tie with, and time enough. If it fails, the boat is at risk. Otherwise as usual.",
    );
  });

  it("speaks pounds to anglers", () => {
    const fly = withTask(firstRig, byId("fly"), catalogue);
    const p = phrases(fly, catalogue);
    expect(p.line_size?.text).toBe("16 lb");
    expect(p.load?.text).toBe("4.5 lb");
  });

  it("changes what its phrases say", () => {
    const p = phrases(firstRig, catalogue);
    if (!p.task || !("options" in p.task)) throw new Error("task is a choice");
    expect(p.task.options.map((o) => o.group)).toEqual(["mooring", "mooring", "mooring", "fishing"]);
    expect(p.task.options[3]?.also).toBe("streamer");
    if (!p.wet || !("options" in p.wet)) throw new Error("wet is a choice");
    expect(p.wet.choose("dry").dry).toBe(true);
    if (!p.tail || !("quantity" in p.tail)) throw new Error("tail is typed");
    expect(jointOf(p.tail.set(900)).tail_m).toBe(0.9);
    expect(jointOf(p.tail.set(0)).tail_m).toBeUndefined();
    if (!p.line_kind || !("options" in p.line_kind)) throw new Error("kind is a choice");
    expect(lineOf(p.line_kind.choose("mono solid"))).toEqual({
      material: "mono",
      construction: "solid",
      label_kn: 0.0712,
      diameter_mm: undefined,
    });
  });
});

it("takes a measured friction along with its line, and leaves it with another material", () => {
  const own = { material: "polyester", diameter_mm: 10, mu: 0.18, mu_spread: 1.2 } as Parameters<
    typeof lineOnly
  >[0];
  expect(lineOnly(own)).toMatchObject({ mu: 0.18, mu_spread: 1.2 });
  const rig = withLine(firstRig, lineOnly(own));
  expect(lineOf(withMaterial(rig, "line", "hmpe", "twelve"))).toMatchObject({
    material: "hmpe",
    mu: undefined,
  });
});
