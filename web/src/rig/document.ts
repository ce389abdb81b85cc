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

/** The places of the joints in the chain. */
export const jointsOf = (rig: Rig): number[] => rig.chain.map((_, i) => i).filter((i) => i % 2 === 1);

/** One joint of a chain as a rig of its own: what it is tied to, the joint, the line that ties. */
export function part(rig: Rig, at: number): Rig {
  const [left, joint, right] = [rig.chain[at - 1], rig.chain[at], rig.chain[at + 1]];
  if (!left || !joint || !right) return rig;
  return { ...rig, chain: turned(rig, at) ? [right, joint, left] : [left, joint, right] };
}

/** What a joint is tied to stands to its right at the far end of the chain, else to its left. */
const turned = (rig: Rig, at: number): boolean =>
  rig.chain[at + 1]?.fitting !== undefined || (at + 2 === rig.chain.length && at > 1);

/** Puts a changed part back into the chain. */
export function merge(rig: Rig, at: number, changed: Rig): Rig {
  const back = turned(rig, at);
  const [end, joint, line] = changed.chain;
  const chain = [...rig.chain];
  if (!end || !joint || !line) return rig;
  chain[at - 1] = back ? line : end;
  chain[at] = joint;
  chain[at + 1] = back ? end : line;
  return { ...changed, chain };
}

/** A joint with more of the chain on both sides: only lines can stand there. */
export const isInner = (rig: Rig, at: number): boolean => at > 1 && at + 2 < rig.chain.length;

/** Puts another line after place i: tied to the line there, or to the fitting, for a task. */
export function addLine(rig: Rig, i: number, task = "extend"): Rig {
  const here = rig.chain[i];
  const like = here?.line ?? rig.chain[i + 2]?.line ?? rig.chain[i - 2]?.line ?? { material: "polyester" };
  const line = { line: { ...like, length_m: undefined, own: undefined } };
  const chain = [...rig.chain];
  const joint = { joint: { task } };
  // After a fitting at the far end there is nothing: the line goes before it.
  if (here?.fitting && i > 0) chain.splice(i - 1, 0, joint, line);
  else if (here?.fitting) chain.splice(i + 2, 0, line, joint);
  else chain.splice(i + 1, 0, joint, line);
  return { ...rig, chain };
}

/** Ends the chain in a fitting, if it ends in a line. */
export function addFitting(rig: Rig): Rig {
  if (rig.chain.at(-1)?.line)
    return {
      ...rig,
      chain: [...rig.chain, { joint: { task: "moor", release: "slack" } }, { fitting: { kind: "cleat" } }],
    };
  if (rig.chain[0]?.line)
    return {
      ...rig,
      chain: [{ fitting: { kind: "ring" } }, { joint: { task: "moor", release: "slack" } }, ...rig.chain],
    };
  return rig;
}

/** Takes an end or a line out, with the joint it hung by; a chain keeps one joint and one line. */
export function remove(rig: Rig, i: number): Rig {
  if (rig.chain.length <= 3 || i % 2 === 1) return rig;
  const chain = [...rig.chain];
  if (i === 0) chain.splice(0, 2);
  else chain.splice(i - 1, 2);
  const both = chain.length === 3 && chain[0]?.fitting && chain[2]?.fitting;
  return both ? rig : { ...rig, chain };
}

/** Exchanges a line with the next one along the chain. */
export function move(rig: Rig, i: number, by: 1 | -1): Rig {
  const other = i + 2 * by;
  const [a, b] = [rig.chain[i], rig.chain[other]];
  if (!a?.line || !b?.line) return rig;
  const chain = [...rig.chain];
  chain[i] = b;
  chain[other] = a;
  return { ...rig, chain };
}

/** The chain seen from its other end. */
export const turnRound = (rig: Rig): Rig => ({ ...rig, chain: [...rig.chain].reverse() });

function element(rig: Rig, i: number, change: Schemas["RigElement"]): Rig {
  return { ...rig, chain: rig.chain.map((e, k) => (k === i ? change : e)) };
}

export const withFitting = (rig: Rig, part: Partial<FittingDoc>): Rig =>
  element(rig, 0, { fitting: { kind: "", ...fittingOf(rig), ...part } });
export const withOther = (rig: Rig, part: Partial<LineDoc>): Rig =>
  element(rig, 0, { line: changed({ material: "", ...otherOf(rig) }, part) });
export const withJoint = (rig: Rig, part: Partial<JointDoc>): Rig =>
  element(rig, 1, { joint: { ...jointOf(rig), ...part } });
export const withLine = (rig: Rig, part: Partial<LineDoc>): Rig =>
  element(rig, 2, { line: changed(lineOf(rig), part) });

/** A line of the locker that is changed in anything but its length is that one no more. */
const changed = (line: LineDoc, part: Partial<LineDoc>): LineDoc =>
  line.own && Object.keys(part).some((k) => k !== "length_m")
    ? { ...line, own: undefined, ...part }
    : { ...line, ...part };

/** The rig with one of the numbers of a map set, in the unit that the map has it in. */
export function withInput(rig: Rig, input: string, value: number): Rig {
  const v = Number(value.toPrecision(2));
  switch (input) {
    case "load":
      return { ...rig, peak_kn: v };
    case "fitting.size":
      return withFitting(rig, { size_mm: v });
    case "other.diameter":
      return withOther(rig, { diameter_mm: v });
    case "line.diameter":
      return withLine(rig, { diameter_mm: v });
    case "line.label":
      return withLine(rig, { label_kn: v });
    case "line.mu":
      return withLine(rig, { mu: v });
    case "tail":
      return withJoint(rig, { tail_m: v });
    case "wraps":
      return withJoint(rig, { wraps: Math.max(1, Math.round(v)) });
    case "time":
      return withJoint(rig, { seconds: v });
    case "distance":
      return withJoint(rig, { distance_m: v });
  }
  return rig;
}

/** The rig as one of the things that would change the choice has it: just beyond the number, or with the word. */
export function withChange(
  rig: Rig,
  c: Pick<Schemas["Change"], "input" | "from" | "to" | "value">,
  catalogue: Catalogue,
): Rig {
  if (!c.value && c.input !== "wet") return withInput(rig, c.input, c.to * (c.to > c.from ? 1.02 : 0.98));
  switch (c.input) {
    case "wet":
      return { ...rig, dry: !rig.dry };
    case "line.material": {
      const m = catalogue.materials.find((x) => x.id === c.value);
      const now = lineOf(rig).construction;
      const made = (m?.constructions.find((k) => k === now) ??
        m?.constructions[0]) as LineDoc["construction"];
      return withLine(rig, { material: c.value ?? "", construction: made });
    }
    case "release":
    case "stay":
      return withJoint(rig, { [c.input]: c.value });
  }
  return { ...rig, [c.input]: c.value };
}

/** What a rig needs to know of a line of the locker: that it is this one. What it leaves out is cleared. */
export const lineOnly = (l: LineDoc & { code?: string }): LineDoc => ({
  own: l.code,
  material: l.material,
  construction: l.construction,
  diameter_mm: l.diameter_mm || undefined,
  label_kn: l.label_kn || undefined,
  wear: l.wear || undefined,
  // What was measured on this line goes with it.
  mu: l.mu || undefined,
  mu_spread: l.mu_spread || undefined,
});

/** A material, with the construction it is usually made in. */
export function withMaterial(
  rig: Rig,
  which: "line" | "other",
  id: string,
  construction: LineDoc["construction"],
): Rig {
  // Friction was measured on the line before.
  const part = { material: id, construction, mu: undefined, mu_spread: undefined };
  return which === "line" ? withLine(rig, part) : withOther(rig, part);
}

export function isFishing(rig: Rig, catalogue: Catalogue): boolean {
  return catalogue.materials.find((m) => m.id === lineOf(rig).material)?.fishing ?? false;
}

/** A task for line that is sold by pound test. */
export function fishingTask(task: Task, catalogue: Catalogue): boolean {
  return catalogue.materials.find((m) => m.id === task.start.material)?.fishing ?? false;
}

/** A usual line for a task. */
const usualLine = ({ start }: Task): LineDoc =>
  start.label_kn
    ? { material: start.material, construction: start.construction, label_kn: start.label_kn }
    : { material: start.material, construction: start.construction, diameter_mm: start.diameter_mm };

/** The address of a rig in which a line of the locker is tied for a task. */
export const withOwn = (l: LineDoc & { code?: string }, task: Task, catalogue: Catalogue): string =>
  `/?rig=${encode(withLine(withTask(firstRig, task, catalogue), lineOnly(l)))}`;

/** The line is not the one that its task begins with: somebody chose it. */
function lineIsOwn(rig: Rig, catalogue: Catalogue): boolean {
  const task = catalogue.tasks.find((t) => t.id === jointOf(rig).task);
  const { material, diameter_mm, label_kn, wear } = lineOf(rig);
  const usual = task && usualLine(task);
  return (
    usual?.material !== material ||
    usual?.diameter_mm !== diameter_mm ||
    usual?.label_kn !== label_kn ||
    Boolean(wear)
  );
}

/**
 * Turns the rig to another task, which brings its own world: load, how it acts, what is at risk, and the
 * thing it is tied to. A line of one's own stays where the new task is for that kind of line, a load of
 * one's own within the same kind of work.
 */
export function withTask(rig: Rig, task: Task, catalogue: Catalogue): Rig {
  const before = catalogue.tasks.find((t) => t.id === jointOf(rig).task);
  const alike = fishingTask(task, catalogue) === isFishing(rig, catalogue);
  const line = alike && lineIsOwn(rig, catalogue) ? lineOf(rig) : usualLine(task);
  const ownLoad = before?.group === task.group && before.start.peak_kn !== rig.peak_kn;
  const { other_mm, peak_kn, character, consequence } = task.start;
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
    const other = otherOf(rig);
    const ownOther = alike && other && before?.start.other_mm !== other.diameter_mm;
    end = {
      line: ownOther ? other : { ...usualLine(task), diameter_mm: other_mm ?? task.start.diameter_mm },
    };
  }
  return {
    ...rig,
    chain: [end, { joint: { task: task.id, release: task.release } }, { line }],
    peak_kn: ownLoad ? rig.peak_kn : peak_kn,
    character,
    consequence: (consequence as Rig["consequence"]) || "gear",
  };
}

/** What became of the rig when it was turned to another task, in words; nothing if it was not. */
export function turnedTo(before: Rig, after: Rig): string {
  if (jointOf(before).task === jointOf(after).task || before.chain.length !== after.chain.length) return "";
  const stayed = [
    JSON.stringify(lineOf(before)) === JSON.stringify(lineOf(after)) && "your line",
    before.peak_kn === after.peak_kn && "your load",
    fittingOf(before) &&
      JSON.stringify(fittingOf(before)) === JSON.stringify(fittingOf(after)) &&
      "what it is tied to",
  ].filter(Boolean);
  const kept = stayed.length > 0 ? `Kept: ${stayed.join(", ")}. ` : "";
  return `${kept}The rest is as usual for this task.`;
}

/** The rig as text for the address, and back. */
export function encode(rig: Rig): string {
  const bytes = new TextEncoder().encode(JSON.stringify(rig));
  return btoa(String.fromCharCode(...bytes))
    .replace(/\+/g, "-")
    .replace(/\//g, "_")
    .replace(/=+$/, "");
}

/** A chain of ends and joints by turns; what is in them the server checks. */
export function sound(rig: Rig): boolean {
  const chain = rig?.chain;
  return (
    Array.isArray(chain) &&
    chain.length >= 3 &&
    chain.length % 2 === 1 &&
    chain.every((e, i) => (i % 2 === 1 ? e?.joint : e?.line || e?.fitting)) &&
    chain.some((e) => e.line)
  );
}

export function decode(text: string): Rig | undefined {
  try {
    const raw = atob(text.replace(/-/g, "+").replace(/_/g, "/"));
    const rig = JSON.parse(new TextDecoder().decode(Uint8Array.from(raw, (c) => c.charCodeAt(0)))) as Rig;
    return sound(rig) ? rig : undefined;
  } catch {
    return undefined;
  }
}
