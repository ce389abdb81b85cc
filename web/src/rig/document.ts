import type { Catalogue, Rig, Schemas, Task } from "../api/client";

export type LineDoc = Schemas["RigLine"];
export type FittingDoc = Schemas["RigFitting"];
export type JointDoc = Schemas["RigJoint"];

/** What Rig shows when there is neither a link nor a saved rig. */
export const firstRig: Rig = {
  name: "A boat on a ring",
  chain: [
    { fitting: { kind: "ring", size_mm: 40, surface: "polished-steel" } },
    { joint: { task: "moor", release: "slack", tail_m: 1.2 } },
    { line: { material: "polyester", construction: "braid", diameter_mm: 12 } },
  ],
  peak_kn: 2.4,
  character: "alternating",
  consequence: "boat",
};

export const fittingOf = (rig: Rig): FittingDoc | undefined => rig.chain[0]?.fitting;
export const otherOf = (rig: Rig): LineDoc | undefined => rig.chain[0]?.line;
export const jointOf = (rig: Rig): JointDoc => rig.chain[1]?.joint ?? { task: "" };
export const lineOf = (rig: Rig): LineDoc => rig.chain[2]?.line ?? { material: "" };

function element(rig: Rig, i: number, change: Schemas["RigElement"]): Rig {
  return { ...rig, chain: rig.chain.map((e, k) => (k === i ? change : e)) };
}

export const withFitting = (rig: Rig, part: Partial<FittingDoc>): Rig =>
  element(rig, 0, { fitting: { kind: "", ...fittingOf(rig), ...part } });
export const withOther = (rig: Rig, part: Partial<LineDoc>): Rig =>
  element(rig, 0, { line: { material: "", ...otherOf(rig), ...part } });
export const withJoint = (rig: Rig, part: Partial<JointDoc>): Rig =>
  element(rig, 1, { joint: { ...jointOf(rig), ...part } });
export const withLine = (rig: Rig, part: Partial<LineDoc>): Rig =>
  element(rig, 2, { line: { ...lineOf(rig), ...part } });

/** What a rig needs to know of a line of the locker; what it leaves out is cleared. */
export const lineOnly = (l: LineDoc): LineDoc => ({
  material: l.material,
  construction: l.construction,
  diameter_mm: l.diameter_mm || undefined,
  label_kn: l.label_kn || undefined,
  wear: l.wear || undefined,
});

/** A material, with the construction it is usually made in. */
export function withMaterial(rig: Rig, which: "line" | "other", id: string, construction: string): Rig {
  const part = { material: id, construction };
  return which === "line" ? withLine(rig, part) : withOther(rig, part);
}

export function isFishing(rig: Rig, catalogue: Catalogue): boolean {
  return catalogue.materials.find((m) => m.id === lineOf(rig).material)?.fishing ?? false;
}

/** A task for line that is sold by pound test. */
export function fishingTask(task: Task, catalogue: Catalogue): boolean {
  return catalogue.materials.find((m) => m.id === task.start.material)?.fishing ?? false;
}

/** Turns the rig to another task. The line and the load stay, unless the new task is for another kind of line. */
export function withTask(rig: Rig, task: Task, catalogue: Catalogue): Rig {
  const keep = fishingTask(task, catalogue) === isFishing(rig, catalogue);
  const { material, construction, diameter_mm, label_kn, other_mm, peak_kn, character } = task.start;
  const fresh: LineDoc = label_kn
    ? { material, construction, label_kn }
    : { material, construction, diameter_mm };
  const line = keep ? lineOf(rig) : fresh;
  const joint: JointDoc = { task: task.id, release: task.release };
  const tail = jointOf(rig).tail_m;
  if (keep && tail) joint.tail_m = tail;
  let end: Schemas["RigElement"];
  if (task.between === "fitting") {
    const now = fittingOf(rig);
    const kind = now && task.fittings?.includes(now.kind) ? now.kind : (task.fitting ?? "");
    const usual = catalogue.fittings.find((f) => f.id === kind);
    end =
      now?.kind === kind
        ? { fitting: now }
        : { fitting: { kind, size_mm: usual?.default_mm, surface: usual?.surface } };
  } else {
    end = { line: otherOf(rig) ?? { ...fresh, diameter_mm: other_mm ?? diameter_mm } };
  }
  return {
    ...rig,
    chain: [end, { joint }, { line }],
    peak_kn: keep ? rig.peak_kn : peak_kn,
    character: keep ? rig.character : character,
    consequence: keep ? rig.consequence : "gear",
  };
}

/** The rig as text for the address, and back. */
export function encode(rig: Rig): string {
  const bytes = new TextEncoder().encode(JSON.stringify(rig));
  return btoa(String.fromCharCode(...bytes))
    .replace(/\+/g, "-")
    .replace(/\//g, "_")
    .replace(/=+$/, "");
}

export function decode(text: string): Rig | undefined {
  try {
    const raw = atob(text.replace(/-/g, "+").replace(/_/g, "/"));
    const rig = JSON.parse(new TextDecoder().decode(Uint8Array.from(raw, (c) => c.charCodeAt(0)))) as Rig;
    const sound =
      Array.isArray(rig.chain) && rig.chain.length === 3 && rig.chain[1]?.joint && rig.chain[2]?.line;
    return sound ? rig : undefined;
  } catch {
    return undefined;
  }
}
