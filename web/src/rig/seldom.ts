import type { Catalogue, Rig } from "../api/client";
import { length } from "../ui/format";
import * as doc from "./document";
import { labelPhrase, surfacePhrase } from "./line-phrases";
import { label, type Phrase, row, worded } from "./phrase";

/**
 * What is usual nearly always is left unsaid: how long it stays, the safety, the size of the eye, what it lies
 * against. "Otherwise as usual" is the phrase behind which they are changed; changed, they are said.
 */
export function seldom(
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
  if (task?.eye) {
    all.eye = width(c, rig, "eye", "an eye of", "an eye as small as it goes", [
      "0",
      "100 mm",
      "300 mm",
      "1 m",
    ]);
  }
  if (task && task.between !== "fitting") {
    const none = "runs through no guide";
    all.guide = width(c, rig, "guide", "runs through a guide of", none, ["0", "2 mm", "4 mm", "8 mm"]);
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

/** A width at the joint, of its eye or of the guide it has to pass; 0 for none. */
function width(
  c: Catalogue,
  rig: Rig,
  id: "eye" | "guide",
  says: string,
  none: string,
  quick: string[],
): Phrase {
  const json = `${id}_mm` as const;
  const now = doc.jointOf(rig)[json] ?? 0;
  return {
    id,
    label: label(c, "joint", json),
    text: now ? `${says} ${length(now)}` : none,
    quantity: "length",
    bare: "mm",
    typed: now ? length(now) : "",
    now,
    write: length,
    hint: row(c, "joint", json)?.hint ?? "",
    quick,
    set: (value) => doc.withJoint(rig, { [json]: value || undefined }),
  };
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
