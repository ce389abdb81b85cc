import type { Schemas } from "../api/client";
import { newKey } from "../ui/key";

type Outcome = Schemas["PracticeAttempt"]["outcome"];

/** One learner's try of the round. */
export type Try = { key: string; outcome: Outcome; seconds: number; fault: string; at: string };

/** A round of a class at one knot: one clock for all. */
export type Round = {
  knot: string;
  group: string;
  n: number;
  conditions: string[];
  help: boolean;
  side: "" | "left" | "right";
  judged: "instructor" | "peer" | "self";
  /** When the clock was started; 0 while it stands. */
  started: number;
  tries: Record<number, Try>;
  /** The order in which the tries were made, so that the last can be taken back. */
  order: number[];
  /** What the round showed, once it is ended. */
  ended: boolean;
};

export const freshRound = (knot: string, group: string): Round => ({
  knot,
  group,
  n: 1,
  conditions: [],
  help: false,
  side: "",
  judged: "instructor",
  started: 0,
  tries: {},
  order: [],
  ended: false,
});

/** A try as it stands now: the time is that of the one clock. */
export function tried(r: Round, outcome: Outcome, now: number, fault = ""): Try {
  const seconds = r.started ? Math.round((now - r.started) / 100) / 10 : 0;
  return { key: newKey(), outcome, seconds, fault, at: new Date(now).toISOString() };
}

/** Notes a learner's try in place of an earlier one of this round. */
export function note(r: Round, learner: number, t: Try): Round {
  return {
    ...r,
    tries: { ...r.tries, [learner]: t },
    order: [...r.order.filter((x) => x !== learner), learner],
  };
}

/** Takes a learner's try of this round back. */
export function unnote(r: Round, learner: number): Round {
  const { [learner]: _, ...tries } = r.tries;
  return { ...r, tries, order: r.order.filter((x) => x !== learner) };
}

/** The next round at the same or another knot: conditions, judge and group stay. */
export const nextRound = (r: Round, knot = r.knot): Round => ({
  ...r,
  knot,
  n: knot === r.knot ? r.n + 1 : 1,
  started: 0,
  tries: {},
  order: [],
  ended: false,
});

/** The attempt that the log keeps of a try. */
export const attemptOf = (r: Round, learner: number, t: Try) => ({
  key: t.key,
  learner_id: learner,
  knot: r.knot,
  outcome: t.outcome,
  fault: t.fault,
  seconds: Math.min(t.seconds, 7200),
  conditions: r.conditions.length > 0 ? r.conditions.join(",") : "dry",
  help: r.help,
  side: r.side || undefined,
  judged: r.judged,
  at: t.at,
});

const place = "oarweed-round";

export function keptRound(): Round | undefined {
  try {
    const r = JSON.parse(localStorage.getItem(place) ?? "null") as Round | null;
    return r ? { ...freshRound(r.knot, r.group), ...r } : undefined;
  } catch {
    return undefined;
  }
}

export function keepRound(r: Round | undefined): void {
  try {
    if (r) localStorage.setItem(place, JSON.stringify(r));
    else localStorage.removeItem(place);
  } catch {
    // It lasts as long as the page.
  }
}

/** Minutes and seconds. */
export const clock = (s: number) => `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, "0")}`;
