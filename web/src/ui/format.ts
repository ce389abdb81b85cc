import type { Figure } from "../api/client";
import { prefs } from "./prefs";

/** Three significant figures, no trailing noughts: what these numbers are worth. */
export function short(value: number): string {
  if (value === 0) return "0";
  if (!Number.isFinite(value)) return "–";
  const digits = Math.max(0, 2 - Math.floor(Math.log10(Math.abs(value))));
  const text = value.toFixed(Math.min(digits, 6));
  return text.includes(".") ? text.replace(/\.?0+$/, "") : text;
}

export const poundsPerKN = 1000 / (0.45359237 * 9.80665);
const kilogramsPerKN = 1000 / 9.80665;

/** A force as this kind of user says it: by the preferences, fishing line and rope apart. */
export function force(kN: number, fishing: boolean): string {
  const { units, tackle } = prefs();
  // As it is printed on a spool, or a spring balance is read: two figures, three from a hundred on.
  const read = (v: number, unit: string) =>
    `${short(Number(v.toPrecision(Math.abs(v) < 99.5 ? 2 : 3)))} ${unit}`;
  if (fishing) return tackle === "kg" ? read(kN * kilogramsPerKN, "kg") : read(kN * poundsPerKN, "lb");
  if (units === "kgf") return read(kN * kilogramsPerKN, "kgf");
  if (units === "in") return read(kN * poundsPerKN, "lbf");
  return Math.abs(kN) < 0.0995 ? `${short(kN * 1000)} N` : `${short(kN)} kN`;
}

/** A length in inches, in feet from a yard on. */
const inches = (mm: number): string =>
  Math.abs(mm) < 914.4 ? `${short(two(mm / 25.4))} in` : `${short(two(mm / 304.8))} ft`;

export function length(mm: number): string {
  if (prefs().units === "in") return inches(mm);
  return Math.abs(mm) < 999.5 ? `${short(mm)} mm` : `${short(mm / 1000)} m`;
}

/** The unit that a bare number is meant in, where the usual one is given. */
export function bareUnit(usual: "mm" | "m" | "kN" | "lb"): "mm" | "m" | "in" | "ft" | "kN" | "kgf" | "lb" {
  const { units, tackle } = prefs();
  if (usual === "lb") return tackle === "kg" ? "kgf" : "lb";
  if (units === "in") return ({ mm: "in", m: "ft", kN: "lb" } as const)[usual];
  return usual === "kN" && units === "kgf" ? "kgf" : usual;
}

/** A usual value, written with its unit, as the preferences have it. */
export function liked(usual: string): string {
  const m = /^([\d.]+) (mm|m|kN|lb)$/.exec(usual);
  if (!m) return usual;
  const v = Number(m[1]);
  if (m[2] === "mm") return length(v);
  if (m[2] === "m") return length(v * 1000);
  return m[2] === "kN" ? force(v, false) : force(v / poundsPerKN, true);
}

/** Two significant figures: what an estimate is worth. */
const two = (value: number) => Number(value.toPrecision(2));

/** A figure as a range, or as one number where there is no spread, as a person would say it. */
export function range(f: Figure, write: (value: number) => string): string {
  if (f.low === f.high) return write(f.likely);
  return `${write(two(f.low)).replace(/ [a-zA-Z%]+$/, "")}–${write(two(f.high))}`;
}

/** A length of line as a person would say it: in centimetres below one metre, two figures. */
export function reach(m: number): string {
  if (prefs().units === "in") return inches(m * 1000);
  const cm = m * 100;
  return cm < 99.5 ? `${short(cm < 1 ? Number(cm.toPrecision(1)) : two(cm))} cm` : `${short(two(m))} m`;
}

export function seconds(s: number): string {
  if (s < 90) return `${Math.round(s)} s`;
  return `${Math.floor(s / 60)} min ${String(Math.round(s % 60)).padStart(2, "0")} s`;
}

export const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** How many times a load: one decimal below ten. */
export const times = (x: number) => (x < 10 ? x.toFixed(1) : String(Math.round(x)));

/** A number as it is typed, with a point or a comma; 0 where it is none. */
export const typedNumber = (text: string): number => Number(text.trim().replace(",", ".")) || 0;
