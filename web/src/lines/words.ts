import type { Outcome } from "./queries";

export const outcomes: { id: Outcome; name: string; sign: string }[] = [
  { id: "held", name: "held", sign: "✓" },
  { id: "slipped", name: "slipped", sign: "↘" },
  { id: "jammed", name: "jammed", sign: "⊗" },
  { id: "broke", name: "broke", sign: "✕" },
  { id: "chafed", name: "chafed", sign: "≈" },
  { id: "late", name: "cast off late", sign: "◔" },
];

export const parts: { id: string; name: string; look: string }[] = [
  { id: "core", name: "Core", look: "flat, soft or hard places between the fingers" },
  { id: "chafe", name: "Cover", look: "fluff, cut strands, rubbed through" },
  { id: "glaze", name: "Glaze", look: "shiny, hard, melted by friction" },
  { id: "stiffness", name: "Stiffness", look: "salt, sun: it no longer bends as it did" },
  { id: "splice", name: "Splice or eye", look: "tucks, stitching, thimble" },
];

export const grades = ["as new", "marked", "worn", "retire it"];

/** How a line is that was graded so. */
export const states = ["as new", "marked", "worn", "to be retired"];

export const colours = ["white", "natural", "yellow", "orange", "red", "green", "blue", "black", "clear"];

export const day = (at: string | undefined) =>
  at ? new Date(at).toLocaleDateString(undefined, { day: "numeric", month: "short", year: "numeric" }) : "";

/** Whether a line is sold by its strength and not by its diameter. */
export const byLabel = (l: { diameter_mm?: number; label_kn?: number }) => !l.diameter_mm && !!l.label_kn;

/** A length of a tow line, to the centimetre: nobody makes one to better than that. */
export const metre = (v: number) => `${Number(v.toFixed(2))} m`;

/** What a tow line is made fast to. */
export const onto = { pylon: "pylon", tower: "tower", hook: "open hook", eye: "closed eye" } as const;
