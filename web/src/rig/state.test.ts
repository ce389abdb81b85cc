import { describe, expect, it } from "vitest";
import type { Rig, SavedRig } from "../api/client";
import { firstRig, withLine } from "./document";
import { begin, differences, keep, kept, type RigState, rigReducer, unsaved } from "./state";

const of = (mm: number): Rig => withLine(firstRig, { diameter_mm: mm });
const record = (rig: Rig, revision = 1) =>
  ({ id: 4, revision, rig, changed_at: "2026-06-02T10:00:00Z" }) as SavedRig;
const size = (s: RigState) => s.rig.chain[2]?.line?.diameter_mm;

/** What follows a list of changes, a second apart. */
const changed = (...sizes: number[]) =>
  sizes.reduce((s, mm, i) => rigReducer(s, { do: "change", rig: of(mm), at: 1000 * (i + 1) }), begin(of(10)));

describe("changes of a rig", () => {
  it("are taken back and done again, in order", () => {
    let s = changed(12, 14);
    s = rigReducer(s, { do: "undo" });
    s = rigReducer(s, { do: "undo" });
    expect(size(s)).toBe(10);
    expect(rigReducer(s, { do: "undo" })).toBe(s);
    s = rigReducer(s, { do: "redo" });
    expect(size(s)).toBe(12);
    s = rigReducer(s, { do: "change", rig: of(20), at: 9000 });
    expect(rigReducer(s, { do: "redo" })).toBe(s);
  });

  it("that come at once, as a slider's do, are one", () => {
    let s = begin(of(10));
    for (const [i, mm] of [11, 12, 13].entries())
      s = rigReducer(s, { do: "change", rig: of(mm), at: 1000 + 100 * i });
    expect(size(s)).toBe(13);
    expect(size(rigReducer(s, { do: "undo" }))).toBe(10);
  });

  it("that change nothing are none", () => {
    const s = changed(12);
    expect(rigReducer(s, { do: "change", rig: structuredClone(s.rig), at: 5000 })).toBe(s);
  });

  it("are counted to fifty", () => {
    let s = changed(...Array.from({ length: 60 }, (_, i) => 11 + i));
    for (let i = 0; i < 60; i++) s = rigReducer(s, { do: "undo" });
    expect(size(s)).toBe(20);
  });
});

describe("what is saved", () => {
  it("is the rig it was opened from, until that is changed", () => {
    let s = rigReducer(changed(12), { do: "open", rig: of(16), saved: record(of(16)) });
    expect(unsaved(s)).toBe(false);
    s = rigReducer(s, { do: "change", rig: of(18), at: 9000 });
    expect(unsaved(s)).toBe(true);
    s = rigReducer(s, { do: "saved", saved: record(of(18), 2) });
    expect(unsaved(s)).toBe(false);
    expect(s.saved?.revision).toBe(2);
  });

  it("comes up first with nothing to take back", () => {
    const s = rigReducer(begin(firstRig), { do: "begin", saved: record(of(16)) });
    expect(size(s)).toBe(16);
    expect(rigReducer(s, { do: "undo" })).toBe(s);
  });

  it("stays on the device with what can be taken back, and nothing that is no rig does", () => {
    const s = changed(12, 14);
    keep(s);
    expect(kept(() => true)).toMatchObject({ rig: s.rig, past: s.past });
    expect(kept(() => false)).toBeUndefined();
    localStorage.clear();
    expect(kept(() => true)).toBeUndefined();
  });
});

it("names each place where two rigs differ", () => {
  expect(differences(of(12), { ...of(14), dry: true })).toEqual([
    { path: "chain[2].line.diameter_mm", a: 12, b: 14 },
    { path: "dry", a: undefined, b: true },
  ]);
  expect(differences(of(12), structuredClone(of(12)))).toEqual([]);
});
