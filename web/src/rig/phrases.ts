import type { Catalogue, Rig } from "../api/client";
import { capital, force, length, seconds } from "../ui/format";
import * as doc from "./document";
import { fishingTask } from "./document";

/** One value of the rig that can be changed: from a list, or by typing a quantity. */
export type Phrase = {
  id: string;
  /** What it is, for the editor's heading and the screen reader. */
  label: string;
  text: string;
} & (
  | {
      /** In groups where they have one; also holds other words that they are looked for by. */
      options: { id: string; text: string; note?: string; group?: string; also?: string }[];
      value: string;
      choose: (id: string) => Rig;
    }
  | {
      quantity: "length" | "force";
      bare: "mm" | "m" | "kN" | "lb";
      typed: string;
      /** The value now, in mm or kN; 0 where none is given. */
      now: number;
      /** A value as it would be typed. */
      write: (value: number) => string;
      hint: string;
      quick: string[];
      set: (value: number) => Rig;
    }
);

/** The kinds of work, in the order in which they are listed. */
const groups = (c: Catalogue) => c.task_groups as string[];

/** A row of the table of fields: what it is called, how it is typed, which words it can hold. */
const row = (c: Catalogue, part: string, json: string) =>
  c.fields.find((f) => f.part === part && f.json === json);

/** The words of a field as a list to choose from. */
const words = (c: Catalogue, part: string, json: string) =>
  (row(c, part, json)?.values ?? []).map((v) => ({ id: v.id, text: v.name, note: v.note }));

const pick = (list: { id: string; text: string }[], id: string | undefined) =>
  list.find((x) => x.id === id)?.text ?? String(id ?? "…");

const label = (c: Catalogue, part: string, json: string) => capital(row(c, part, json)?.name ?? json);

/** A phrase that holds one of the words of a field. */
function worded(
  c: Catalogue,
  at: { id: string; part: string; json: string },
  value: string,
  choose: (id: string) => Rig,
  title = label(c, at.part, at.json),
): Phrase {
  const options = words(c, at.part, at.json);
  return { id: at.id, label: title, text: pick(options, value), options, value, choose };
}

/** The sentence of a rig: plain words and phrases that are the controls. */
export function sentence(rig: Rig, c: Catalogue, inner = false): (string | Phrase)[] {
  const p = phrases(rig, c, inner);
  const task = c.tasks.find((t) => t.id === doc.jointOf(rig).task);
  const line = [
    "A ",
    p.line_size,
    " ",
    p.line_kind,
    p.wear && ", ",
    p.wear,
    p.label && ", with ",
    p.label,
    (p.wear || p.label) && ",",
  ];
  const joins =
    task?.between === "fitting"
      ? [...line, " on a ", p.fitting_size, " ", p.fitting_surface, p.fitting_surface && " ", p.fitting_kind]
      : task?.between === "lines"
        ? [...line, " tied to a ", p.other_size, " ", p.other_kind]
        : [...line, " gripping a loaded ", p.other_size, " ", p.other_kind];
  return [
    ...joins,
    p.wear || p.label ? ", must " : " must ",
    p.task,
    ". It is ",
    p.wet,
    p.water && " in ",
    p.water,
    p.ground && ", against ",
    p.ground,
    ", takes ",
    p.load,
    " that ",
    p.character,
    p.pull && ", pulls ",
    p.pull,
    p.stay && ", stays ",
    p.stay,
    ", and must come off ",
    p.release,
    p.distance && " of ",
    p.distance,
    "; there is ",
    p.tail,
    " to tie with",
    p.eye && ", ",
    p.eye,
    p.guide && "; the join ",
    p.guide,
    ", and ",
    p.time,
    ". If it fails, ",
    p.consequence,
    p.factor ? " is at risk; safety " : " is at risk.",
    p.factor,
    p.factor && ".",
    p.otherwise && " ",
    p.otherwise,
    p.otherwise && ".",
  ].filter((part) => part !== undefined);
}

/**
 * What is usual nearly always is left unsaid: how long it stays, the safety, the size of the eye, what it lies
 * against. "Otherwise as usual" is the phrase behind which they are changed; changed, they are said.
 */
function seldom(
  rig: Rig,
  c: Catalogue,
  task: Catalogue["tasks"][number] | undefined,
): Record<string, Phrase> {
  const joint = doc.jointOf(rig);
  const all: Record<string, Phrase> = {};
  const factors = [0, 2, 3, 4, 5, 6, 8, 10, 12].filter((n) => !n || rig.consequence !== "person" || n >= 10);
  all.factor = {
    id: "factor",
    label: "Safety: how many times the load the new, dry line shall bear",
    text: rig.design_factor ? `${rig.design_factor} times` : "as usual",
    options: factors.map((n) => ({ id: String(n), text: n ? `${n} times the load` : "as usual" })),
    value: String(rig.design_factor ?? 0),
    choose: (id) => ({ ...rig, design_factor: Number(id) || undefined }),
  };
  if (!task?.tackle) {
    all.stay = worded(
      c,
      { id: "stay", part: "joint", json: "stay" },
      joint.stay ?? (task?.stay || "night"),
      (id) => doc.withJoint(rig, { stay: id as doc.JointDoc["stay"] }),
    );
  }
  const thing = c.fittings.find((f) => f.id === doc.fittingOf(rig)?.kind);
  if (thing?.long && task) {
    all.pull = worded(
      c,
      { id: "pull", part: "joint", json: "pull" },
      joint.pull ?? (task.pull || "across"),
      (id) => doc.withJoint(rig, { pull: id as doc.JointDoc["pull"] }),
    );
  }
  if (groundGroups.includes(task?.group ?? "") || rig.ground) {
    all.ground = worded(
      c,
      { id: "ground", part: "rig", json: "ground" },
      rig.ground ?? row(c, "rig", "ground")?.default ?? "",
      (id) => ({ ...rig, ground: id as Rig["ground"] }),
    );
  }
  const line = doc.lineOf(rig);
  all.wear = worded(
    c,
    { id: "wear", part: "line", json: "wear" },
    String(line.wear ?? 0),
    (id) => doc.withLine(rig, { wear: Number(id) }),
    "Wear of the line",
  );
  Object.assign(all, labelPhrase(rig, line, doc.isFishing(rig, c), c));
  const fitting = doc.fittingOf(rig);
  const usual = c.fittings.find((f) => f.id === fitting?.kind);
  if (fitting && !usual?.no_surface) all.fitting_surface = surfacePhrase(rig, c);
  const eye = (value: number) => doc.withJoint(rig, { eye_mm: value || undefined });
  if (task?.eye) {
    all.eye = {
      id: "eye",
      label: label(c, "joint", "eye_mm"),
      text: joint.eye_mm ? `an eye of ${length(joint.eye_mm)}` : "an eye as small as it goes",
      quantity: "length",
      bare: "mm",
      typed: joint.eye_mm ? length(joint.eye_mm) : "",
      now: joint.eye_mm ?? 0,
      write: length,
      hint: row(c, "joint", "eye_mm")?.hint ?? "",
      quick: ["0", "100 mm", "300 mm", "1 m"],
      set: eye,
    };
  }
  if (task && task.between !== "fitting") {
    all.guide = {
      id: "guide",
      label: label(c, "joint", "guide_mm"),
      text: joint.guide_mm ? `runs through a guide of ${length(joint.guide_mm)}` : "runs through no guide",
      quantity: "length",
      bare: "mm",
      typed: joint.guide_mm ? length(joint.guide_mm) : "",
      now: joint.guide_mm ?? 0,
      write: length,
      hint: row(c, "joint", "guide_mm")?.hint ?? "",
      quick: ["0", "2 mm", "4 mm", "8 mm"],
      set: (value) => doc.withJoint(rig, { guide_mm: value || undefined }),
    };
  }
  const said = {
    factor: rig.design_factor,
    wear: line.wear,
    label: line.label_kn,
    stay: joint.stay && joint.stay !== (task?.stay || "night"),
    pull: joint.pull && joint.pull !== (task?.pull || "across"),
    ground: rig.ground && rig.ground !== row(c, "rig", "ground")?.default,
    eye: joint.eye_mm,
    guide: joint.guide_mm,
    // It stands before the thing itself.
    fitting_surface: fitting?.surface && fitting.surface !== usual?.surface,
  };
  const out: Record<string, Phrase> = {};
  const options: Extract<Phrase, { options: unknown }>["options"] = [];
  const does: Record<string, () => Rig> = {};
  for (const [id, phrase] of Object.entries(all)) {
    if (said[id as keyof typeof said]) {
      out[id] = phrase;
      continue;
    }
    const group = phrase.label.replace(/:.*/, "");
    const list =
      "options" in phrase
        ? phrase.options
            .filter((o) => o.id !== phrase.value)
            .map((o) => ({ ...o, rig: () => phrase.choose(o.id) }))
        : quantities(phrase);
    for (const o of list) {
      does[`${id} ${o.id}`] = o.rig;
      options.push({
        id: `${id} ${o.id}`,
        text: o.text,
        note: "note" in o ? (o.note as string | undefined) : undefined,
        group,
      });
    }
  }
  if (options.length > 0) {
    out.otherwise = {
      id: "otherwise",
      label: "What else is not as usual",
      text: "Otherwise as usual",
      options,
      value: "",
      choose: (id) => does[id]?.() ?? rig,
    };
  }
  return out;
}

/** A few usual values of a quantity that is not said yet; of a label, one to begin with. */
function quantities(phrase: Extract<Phrase, { quantity: unknown }>) {
  const { values, says } = {
    label: { values: [10, 20, 30, 50], says: (v: string) => `${v} on its label` },
    guide: { values: [2, 4, 8, 20], says: (v: string) => `through a guide of ${v}` },
    eye: { values: [100, 300, 1000], says: (v: string) => `an eye of ${v}` },
  }[phrase.id as "label" | "guide" | "eye"];
  return values.map((v) => ({
    id: String(v),
    text: says(phrase.write(v)),
    rig: () => phrase.set(v),
  }));
}

/** Work in which a line may lie against rock. */
const groundGroups = ["anchoring", "fishing"];

/** inner: the joint lies between two lines of a chain, so that only such tasks will do. */
export function phrases(rig: Rig, c: Catalogue, inner = false): Record<string, Phrase> {
  const line = doc.lineOf(rig);
  const other = doc.otherOf(rig);
  const fitting = doc.fittingOf(rig);
  const joint = doc.jointOf(rig);
  const task = c.tasks.find((t) => t.id === joint.task);
  const fishing = doc.isFishing(rig, c);
  const usual = c.fittings.find((f) => f.id === fitting?.kind);
  const out: Record<string, Phrase> = {
    line_size: sizePhrase("line_size", "Line", line, fishing, c, (part) => doc.withLine(rig, part)),
    line_kind: kindPhrase("line_kind", "line", line, rig, c),
    task: {
      id: "task",
      label: label(c, "joint", "task"),
      text: task?.name ?? joint.task,
      options: c.tasks
        .filter((t) => !inner || t.between !== "fitting")
        .toSorted((a, b) => groups(c).indexOf(a.group) - groups(c).indexOf(b.group))
        .map((t) => ({ id: t.id, text: t.name, group: t.group, also: t.also?.join(" ") })),
      value: joint.task,
      choose: (id) =>
        doc.withTask(rig, c.tasks.find((t) => t.id === id) ?? (task as NonNullable<typeof task>), c),
    },
    wet: {
      id: "wet",
      label: "Wet or dry",
      text: rig.dry ? "dry" : "wet",
      options: [
        { id: "wet", text: "wet" },
        { id: "dry", text: "dry" },
      ],
      value: rig.dry ? "dry" : "wet",
      choose: (id) => ({ ...rig, dry: id === "dry" }),
    },
    load: {
      id: "load",
      label: label(c, "rig", "peak_kn"),
      text: force(rig.peak_kn, fishing),
      quantity: "force",
      bare: fishing ? "lb" : "kN",
      typed: force(rig.peak_kn, fishing),
      now: rig.peak_kn,
      write: (v) => force(v, fishing),
      hint: fishing
        ? "The drag setting plus the shock, as in 5 lb or 20 N."
        : (row(c, "rig", "peak_kn")?.hint ?? ""),
      quick: fishing ? ["2 lb", "5 lb", "10 lb"] : ["0.5 kN", "1 kN", "2.4 kN", "5 kN"],
      set: (value) => ({ ...rig, peak_kn: value }),
    },
    character: worded(
      c,
      { id: "character", part: "rig", json: "character" },
      rig.character ?? row(c, "rig", "character")?.default ?? "",
      (id) => ({ ...rig, character: id as Rig["character"] }),
    ),
    release: worded(
      c,
      { id: "release", part: "joint", json: "release" },
      joint.release ?? task?.release ?? "",
      (id) => doc.withJoint(rig, { release: id as doc.JointDoc["release"] }),
    ),
    tail: {
      id: "tail",
      label: label(c, "joint", "tail_m"),
      text: joint.tail_m ? length(joint.tail_m * 1000) : "enough line",
      quantity: "length",
      bare: "m",
      typed: joint.tail_m ? length(joint.tail_m * 1000) : "",
      now: (joint.tail_m ?? 0) * 1000,
      write: length,
      hint: row(c, "joint", "tail_m")?.hint ?? "",
      quick: ["0", "0.5 m", "0.9 m", "1.5 m"],
      set: (value) => doc.withJoint(rig, { tail_m: value === 0 ? undefined : value / 1000 }),
    },
    time: {
      id: "time",
      label: label(c, "joint", "seconds"),
      text: joint.seconds ? `${seconds(joint.seconds)} to tie it` : "time enough",
      options: [0, 10, 20, 30, 60, 120, 180, 400].map((s) => ({
        id: String(s),
        text: s === 0 ? "time enough" : `${seconds(s)} to tie it`,
      })),
      value: String(joint.seconds ?? 0),
      choose: (id) => doc.withJoint(rig, { seconds: Number(id) || undefined }),
    },
    consequence: worded(
      c,
      { id: "consequence", part: "rig", json: "consequence" },
      rig.consequence ?? row(c, "rig", "consequence")?.default ?? "",
      (id) => ({ ...rig, consequence: id as Rig["consequence"] }),
    ),
  };
  Object.assign(out, seldom(rig, c, task));
  if (task?.tackle) {
    out.water = worded(
      c,
      { id: "water", part: "rig", json: "water" },
      rig.water ?? row(c, "rig", "water")?.default ?? "",
      (id) => ({ ...rig, water: id as Rig["water"] }),
    );
  }
  if (joint.release === "distance") {
    out.distance = {
      id: "distance",
      label: label(c, "joint", "distance_m"),
      text: joint.distance_m ? length(joint.distance_m * 1000) : "3 m",
      quantity: "length",
      bare: "m",
      typed: joint.distance_m ? length(joint.distance_m * 1000) : "3 m",
      now: (joint.distance_m ?? 3) * 1000,
      write: length,
      hint: row(c, "joint", "distance_m")?.hint ?? "",
      quick: ["2 m", "4 m", "8 m"],
      set: (value) => doc.withJoint(rig, { distance_m: value / 1000 }),
    };
  }
  if (fitting) {
    out.fitting_size = {
      id: "fitting_size",
      label: `${usual?.name ?? "Fitting"}: ${usual?.size_is ?? "size"}`,
      text: length(fitting.size_mm ?? usual?.default_mm ?? 0),
      quantity: "length",
      bare: "mm",
      typed: length(fitting.size_mm ?? usual?.default_mm ?? 0),
      now: fitting.size_mm ?? usual?.default_mm ?? 0,
      write: length,
      hint: `The ${usual?.size_is ?? "size"}, as in 40 mm or 1 1/2 in.`,
      quick: quickSizes(usual?.default_mm ?? 40),
      set: (value) => doc.withFitting(rig, { size_mm: value }),
    };
    if (!usual?.no_surface && fitting.surface && fitting.surface !== usual?.surface) {
      out.fitting_surface = surfacePhrase(rig, c);
    }
    out.fitting_kind = {
      id: "fitting_kind",
      label: label(c, "fitting", "kind"),
      text: usual?.name ?? fitting.kind,
      options: c.fittings
        .filter((f) => task?.fittings?.includes(f.id))
        .map((f) => ({ id: f.id, text: f.name })),
      value: fitting.kind,
      choose: (id) => {
        const f = c.fittings.find((x) => x.id === id);
        return doc.withFitting(rig, { kind: id, size_mm: f?.default_mm, surface: f?.surface });
      },
    };
  }
  if (other) {
    out.other_size = sizePhrase("other_size", "Other line", other, fishing, c, (part) =>
      doc.withOther(rig, part),
    );
    out.other_kind = kindPhrase("other_kind", "other", other, rig, c);
  }
  return out;
}

/** The surface of what it is tied to, said only where it is not the usual one. */
function surfacePhrase(rig: Rig, c: Catalogue): Phrase {
  const fitting = doc.fittingOf(rig);
  const usual = c.fittings.find((f) => f.id === fitting?.kind);
  const now = fitting?.surface ?? usual?.surface ?? "";
  return {
    id: "fitting_surface",
    label: label(c, "fitting", "surface"),
    text: c.surfaces.find((s) => s.id === now)?.name ?? "…",
    options: c.surfaces.filter((s) => s.id !== "rope").map((s) => ({ id: s.id, text: s.name })),
    value: now,
    choose: (id) => doc.withFitting(rig, { surface: id }),
  };
}

/** Sizes about the usual one of a fitting. */
function quickSizes(usual: number): string[] {
  const round = (x: number) => Number(x.toPrecision(x < 10 ? 1 : 2));
  return [0.6, 1, 1.6, 2.5].map((k) => length(round(usual * k)));
}

/** A line's size: its diameter, or for fishing line its pound test. */
function sizePhrase(
  id: string,
  which: string,
  line: doc.LineDoc,
  fishing: boolean,
  c: Catalogue,
  set: (part: Partial<doc.LineDoc>) => Rig,
): Phrase {
  if (fishing && (line.label_kn || !line.diameter_mm)) {
    return {
      id,
      label: `${which}: pound test`,
      text: force(line.label_kn ?? 0, true),
      quantity: "force",
      bare: "lb",
      typed: force(line.label_kn ?? 0, true),
      now: line.label_kn ?? 0,
      write: (v) => force(v, true),
      hint: "The strength on the spool, as in 16 lb or 7 kgf.",
      quick: ["8 lb", "16 lb", "20 lb", "60 lb"],
      set: (value) => set({ label_kn: value, diameter_mm: undefined }),
    };
  }
  return {
    id,
    label: `${which}: ${row(c, "line", "diameter_mm")?.name ?? "diameter"}`,
    text: line.diameter_mm ? length(line.diameter_mm) : force(line.label_kn ?? 0, false),
    quantity: "length",
    bare: "mm",
    typed: line.diameter_mm ? length(line.diameter_mm) : "",
    now: line.diameter_mm ?? 0,
    write: length,
    hint: row(c, "line", "diameter_mm")?.hint ?? "",
    quick: ["6 mm", "8 mm", "12 mm", "16 mm"],
    set: (value) => set({ diameter_mm: value }),
  };
}

/** A rope's strength as printed on its label. Fishing line is sized by it already. */
function labelPhrase(rig: Rig, line: doc.LineDoc, fishing: boolean, c: Catalogue): Record<string, Phrase> {
  if (fishing || !line.diameter_mm) return {};
  const text = line.label_kn ? `${force(line.label_kn, false)} on its label` : "of usual strength";
  return {
    label: {
      id: "label",
      label: label(c, "line", "label_kn"),
      text,
      quantity: "force",
      bare: "kN",
      typed: line.label_kn ? force(line.label_kn, false) : "",
      now: line.label_kn ?? 0,
      write: (v) => force(v, false),
      hint: row(c, "line", "label_kn")?.hint ?? "",
      quick: ["0"],
      set: (value) => doc.withLine(rig, { label_kn: value === 0 ? undefined : value }),
    },
  };
}

function kindPhrase(id: string, which: "line" | "other", line: doc.LineDoc, rig: Rig, c: Catalogue): Phrase {
  const name = (material: string, construction: string) =>
    `${c.materials.find((m) => m.id === material)?.name ?? material} ${pick(words(c, "line", "construction"), construction)}`.trim();
  const options = c.materials.flatMap((m) =>
    m.constructions.map((k) => ({
      id: `${m.id} ${k}`,
      text: m.name.startsWith("braided") ? m.name : name(m.id, k),
    })),
  );
  const value = `${line.material} ${line.construction ?? ""}`;
  return {
    id,
    label: which === "line" ? "Material and make" : "Other line: material and make",
    text: options.find((o) => o.id === value)?.text ?? name(line.material, line.construction ?? ""),
    options,
    value,
    choose: (both) => {
      const [material = "", construction] = both.split(" ") as [string, doc.LineDoc["construction"]];
      const next = doc.withMaterial(rig, which, material, construction);
      // Fishing line goes by its label, rope by its diameter: start from a usual size when that changes.
      const was = c.materials.find((m) => m.id === line.material)?.fishing ?? false;
      const is = c.materials.find((m) => m.id === material)?.fishing ?? false;
      if (was === is) return next;
      const usual = c.tasks.find((t) => fishingTask(t, c) === is)?.start;
      const size = { label_kn: usual?.label_kn, diameter_mm: usual?.diameter_mm };
      return which === "line" ? doc.withLine(next, size) : doc.withOther(next, size);
    },
  };
}

/** The sentence as plain text, to be read out or sent. */
export function plain(parts: (string | Phrase)[]): string {
  return parts.map((p) => (typeof p === "string" ? p : p.text)).join("");
}
