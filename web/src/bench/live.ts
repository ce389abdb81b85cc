import { useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { useStream } from "../ui/stream";

export type State = Omit<Schemas["BenchLive"], "t_s" | "load_kn" | "readings">;
type Live = Schemas["BenchLive"];

/** Readings since a pull began, or the last minute of the cell. */
export type Readings = { s: number[]; kN: number[] };

const minute = 60;

/**
 * What the cell says, as it says it: the state through React, the readings in a plain object
 * that is read when a frame is drawn, so that a thousand a second cost no render.
 */
export function useLive(): { state: State | undefined; readings: Readings } {
  const [state, setState] = useState<State>();
  const readings = useRef<Readings>({ s: [], kN: [] });
  const pull = useRef<string>(undefined);
  useStream("/api/v1/bench/live", (text) => {
    const l = JSON.parse(text) as Live;
    const r = readings.current;
    const last = r.s.at(-1) ?? Number.NEGATIVE_INFINITY;
    if (l.pull !== pull.current || (l.t_s[0] ?? last) < last) {
      pull.current = l.pull;
      r.s.length = r.kN.length = 0;
    }
    r.s.push(...l.t_s);
    r.kN.push(...l.load_kn);
    if (!pull.current) {
      const end = r.s.at(-1) ?? 0;
      const from = r.s.findIndex((t) => t > end - minute);
      if (from > 500) {
        r.s.splice(0, from);
        r.kN.splice(0, from);
      }
    }
    const { t_s: _, load_kn: __, readings: ___, ...rest } = l;
    setState((before) => (before && JSON.stringify(before) === JSON.stringify(rest) ? before : rest));
  });
  return { state, readings: readings.current };
}
