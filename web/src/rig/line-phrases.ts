import type { Catalogue, Rig } from "../api/client";
import { force, length } from "../ui/format";
import * as doc from "./document";
import { fishingTask } from "./document";
import { label, type Phrase, pick, row, words } from "./phrase";

/** The surface of what it is tied to, said only where it is not the usual one. */
export function surfacePhrase(rig: Rig, c: Catalogue): Phrase {
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
export function quickSizes(usual: number): string[] {
  const round = (x: number) => Number(x.toPrecision(x < 10 ? 1 : 2));
  return [0.6, 1, 1.6, 2.5].map((k) => length(round(usual * k)));
}

/** A line's size: its diameter, or for fishing line its pound test. */
export function sizePhrase(
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
export function labelPhrase(
  rig: Rig,
  line: doc.LineDoc,
  fishing: boolean,
  c: Catalogue,
): Record<string, Phrase> {
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

export function kindPhrase(
  id: string,
  which: "line" | "other",
  line: doc.LineDoc,
  rig: Rig,
  c: Catalogue,
): Phrase {
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
