import type { Figure } from "../api/client";

/** Three significant figures, no trailing noughts: what these numbers are worth. */
export function short(value: number): string {
  if (value === 0) return "0";
  if (!Number.isFinite(value)) return "–";
  const digits = Math.max(0, 2 - Math.floor(Math.log10(Math.abs(value))));
  const text = value.toFixed(Math.min(digits, 6));
  return text.includes(".") ? text.replace(/\.?0+$/, "") : text;
}

const poundsPerKN = 1000 / (0.45359237 * 9.80665);

/** A force as this kind of user says it: pounds for fishing line, kN or N for rope. */
export function force(kN: number, fishing: boolean): string {
  if (fishing) {
    // As it is printed on a spool, or a spring balance is read: two figures, three from a hundred on.
    const lb = kN * poundsPerKN;
    return `${short(Number(lb.toPrecision(Math.abs(lb) < 99.5 ? 2 : 3)))} lb`;
  }
  return Math.abs(kN) < 0.0995 ? `${short(kN * 1000)} N` : `${short(kN)} kN`;
}

export function length(mm: number): string {
  return Math.abs(mm) < 999.5 ? `${short(mm)} mm` : `${short(mm / 1000)} m`;
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
