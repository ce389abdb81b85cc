import { useSyncExternalStore } from "react";

/** What somebody likes, kept on this device. */
export type Prefs = {
  hand: "right" | "left";
  /** Text a fifth larger everywhere. */
  large: boolean;
  /** Keys of one letter do something. */
  letters: boolean;
  /** Units of rope: millimetres and kilonewtons, millimetres and kilograms, inches and pounds. */
  units: "kn" | "kgf" | "in";
  /** Units of fishing line. */
  tackle: "lb" | "kg";
  /** The view that the application opens with. */
  opens: "rig" | "knots" | "teach" | "jobs" | "log";
  /** The first visit has been told what this is. */
  met: boolean;
  /** Who works on this device: stands first where a record asks who looked. */
  name: string;
};

const usual: Prefs = {
  hand: "right",
  large: false,
  letters: true,
  units: "kn",
  tackle: "lb",
  opens: "rig",
  met: false,
  name: "",
};
const place = "oarweed-prefs";
let now: Prefs | undefined;
const told = new Set<() => void>();

/** The preferences as they are. */
export function prefs(): Prefs {
  if (!now) {
    try {
      now = { ...usual, ...(JSON.parse(localStorage.getItem(place) ?? "{}") as Partial<Prefs>) };
    } catch {
      now = usual;
    }
  }
  return now;
}

export function setPrefs(part: Partial<Prefs>): void {
  now = { ...prefs(), ...part };
  try {
    localStorage.setItem(place, JSON.stringify(now));
  } catch {
    // A full or forbidden store: they hold until the page is left.
  }
  for (const f of told) f();
}

/** The preferences, and drawn anew when they change. */
export const usePrefs = (): Prefs =>
  useSyncExternalStore((f) => {
    told.add(f);
    return () => told.delete(f);
  }, prefs);

/** The units in which the server shall say its texts; empty where they are the usual ones. */
export function unitsWanted(): string {
  const { units, tackle } = prefs();
  return [units === "kn" ? "" : units, tackle === "kg" ? "kg" : ""].filter(Boolean).join(",");
}
