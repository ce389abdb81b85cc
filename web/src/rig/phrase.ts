import type { Catalogue, Rig } from "../api/client";
import { capital } from "../ui/format";

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
export const groups = (c: Catalogue) => c.task_groups as string[];

/** A row of the table of fields: what it is called, how it is typed, which words it can hold. */
export const row = (c: Catalogue, part: string, json: string) =>
  c.fields.find((f) => f.part === part && f.json === json);

/** The words of a field as a list to choose from. */
export const words = (c: Catalogue, part: string, json: string) =>
  (row(c, part, json)?.values ?? []).map((v) => ({ id: v.id, text: v.name, note: v.note }));

export const pick = (list: { id: string; text: string }[], id: string | undefined) =>
  list.find((x) => x.id === id)?.text ?? String(id ?? "…");

export const label = (c: Catalogue, part: string, json: string) => capital(row(c, part, json)?.name ?? json);

/** A phrase that holds one of the words of a field. */
export function worded(
  c: Catalogue,
  at: { id: string; part: string; json: string },
  value: string,
  choose: (id: string) => Rig,
  title = label(c, at.part, at.json),
): Phrase {
  const options = words(c, at.part, at.json);
  return { id: at.id, label: title, text: pick(options, value), options, value, choose };
}
