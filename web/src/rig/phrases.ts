import type { Catalogue, Rig } from "../api/client";
import { force, length, seconds } from "../ui/format";
import * as doc from "./document";
import { kindPhrase, quickSizes, sizePhrase, surfacePhrase } from "./line-phrases";
import { groups, label, type Phrase, row, worded } from "./phrase";
import { seldom } from "./seldom";

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

/** The sentence as plain text, to be read out or sent. */
export function plain(parts: (string | Phrase)[]): string {
  return parts.map((p) => (typeof p === "string" ? p : p.text)).join("");
}
