import type { Rig, SavedRig } from "../api/client";
import { firstRig } from "./document";

/** The rig that is worked on, how it came to be so, and what is kept of it. */
export type RigState = {
  rig: Rig;
  past: Rig[];
  future: Rig[];
  /** The record it was opened from or saved to; absent for one that is kept nowhere. */
  saved?: { id: number; revision: number; rig: Rig };
  /** When it was last changed, by the clock of the page: what follows at once is taken back with it. */
  changed: number;
};

export type RigAction =
  /** at: the clock of the page, in ms. */
  | { do: "change"; rig: Rig; at: number }
  | { do: "undo" | "redo" }
  /** Another rig in place of this one: from a link, a file, a template, or the kept ones. */
  | { do: "open"; rig: Rig; saved?: SavedRig }
  /** The one to begin with, once it is known; there is nothing to go back to. */
  | { do: "begin"; saved: SavedRig }
  /** It was kept as this record. */
  | { do: "saved"; saved: SavedRig };

/** How many changes can be taken back. */
const most = 50;
/** Changes that follow each other within so many ms are one: a number being dragged. */
const atOnce = 250;

export const begin = (rig: Rig): RigState => ({ rig, past: [], future: [], changed: 0 });

export function rigReducer(state: RigState, action: RigAction): RigState {
  switch (action.do) {
    case "change": {
      if (same(action.rig, state.rig)) return state;
      const dragging = action.at - state.changed < atOnce && state.past.length > 0;
      const past = dragging ? state.past : [...state.past, state.rig].slice(-most);
      return { ...state, rig: action.rig, past, future: [], changed: action.at };
    }
    case "undo": {
      const rig = state.past.at(-1);
      if (!rig) return state;
      return {
        ...state,
        rig,
        past: state.past.slice(0, -1),
        future: [...state.future, state.rig],
        changed: 0,
      };
    }
    case "redo": {
      const rig = state.future.at(-1);
      if (!rig) return state;
      return {
        ...state,
        rig,
        past: [...state.past, state.rig],
        future: state.future.slice(0, -1),
        changed: 0,
      };
    }
    case "open": {
      const past = same(action.rig, state.rig) ? state.past : [...state.past, state.rig].slice(-most);
      return { rig: action.rig, past, future: [], changed: 0, saved: action.saved && record(action.saved) };
    }
    case "begin":
      return { ...begin(action.saved.rig), saved: record(action.saved) };
    case "saved":
      return { ...state, rig: { ...state.rig, name: action.saved.rig.name }, saved: record(action.saved) };
  }
}

const record = (s: SavedRig) => ({ id: s.id, revision: s.revision, rig: s.rig });

/** What is on screen differs from what is kept: a new rig too. */
export const unsaved = (state: RigState): boolean =>
  !state.saved || !same(filled(state.saved.rig), filled(state.rig));

/** Left out or nothing: the same. A kept rig has its defaults written out. */
const filled = (rig: Rig): Rig =>
  JSON.parse(
    JSON.stringify({ character: "steady", consequence: "gear", ...rig, version: undefined }, (_, v) =>
      v === 0 || v === "" || v === false ? undefined : v,
    ),
  ) as Rig;

export function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== "object" || typeof b !== "object" || !a || !b) return false;
  const [x, y] = [a as Record<string, unknown>, b as Record<string, unknown>];
  const keys = new Set([...Object.keys(x), ...Object.keys(y)]);
  return [...keys].every((k) => same(x[k], y[k]));
}

/** Where two rigs differ: the path of each field with both values. */
export function differences(a: unknown, b: unknown, path = ""): { path: string; a: unknown; b: unknown }[] {
  if (same(a, b)) return [];
  if (typeof a !== "object" || typeof b !== "object" || !a || !b) return [{ path, a, b }];
  const [x, y] = [a as Record<string, unknown>, b as Record<string, unknown>];
  const at = (k: string) => (Array.isArray(a) ? `${path}[${k}]` : path ? `${path}.${k}` : k);
  return [...new Set([...Object.keys(x), ...Object.keys(y)])].flatMap((k) => differences(x[k], y[k], at(k)));
}

const place = "oarweed-rig";

/** Keeps the state on this device: it outlives leaving the page, and the browser. */
export function keep(state: RigState): void {
  try {
    localStorage.setItem(place, JSON.stringify(state));
  } catch {
    // A full or forbidden store: the address still holds the rig.
  }
}

/** What this device had last, if it can be read. */
export function kept(sound: (rig: Rig) => boolean): RigState | undefined {
  try {
    const s = JSON.parse(localStorage.getItem(place) ?? "null") as RigState | null;
    const rigs = s && [s.rig, ...s.past, ...s.future, ...(s.saved ? [s.saved.rig] : [])];
    return s && rigs?.every(sound) ? { ...s, changed: 0 } : undefined;
  } catch {
    return undefined;
  }
}

/** The rig that was worked on last on this device, or else the first one. */
export const atHand = (sound: (rig: Rig) => boolean): Rig => kept(sound)?.rig ?? firstRig;
