import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";

export type State = Omit<Schemas["BenchLive"], "t_s" | "load_kn" | "readings">;
type Live = Schemas["BenchLive"];

/** Readings since a pull began, or the last minute of the cell. */
export type Readings = { s: number[]; kN: number[] };

const minute = 60;
/** Between two tries to reach the server. */
const again = 1500;

/**
 * What the cell says, as it says it: the state through React, the readings in a plain object
 * that is read when a frame is drawn, so that a thousand a second cost no render.
 */
export function useLive(): { state: State | undefined; readings: Readings } {
  const [state, setState] = useState<State>();
  const readings = useRef<Readings>({ s: [], kN: [] });
  useEffect(() => {
    const stop = new AbortController();
    let pull: string | undefined;
    const take = (l: Live) => {
      const r = readings.current;
      const last = r.s.at(-1) ?? Number.NEGATIVE_INFINITY;
      if (l.pull !== pull || (l.t_s[0] ?? last) < last) {
        pull = l.pull;
        r.s.length = r.kN.length = 0;
      }
      r.s.push(...l.t_s);
      r.kN.push(...l.load_kn);
      if (!pull) {
        const end = r.s.at(-1) ?? 0;
        const from = r.s.findIndex((t) => t > end - minute);
        if (from > 500) {
          r.s.splice(0, from);
          r.kN.splice(0, from);
        }
      }
      const { t_s: _, load_kn: __, readings: ___, ...rest } = l;
      setState((before) => (before && JSON.stringify(before) === JSON.stringify(rest) ? before : rest));
    };
    const run = async () => {
      while (!stop.signal.aborted) {
        try {
          await lines("/api/v1/bench/live", stop.signal, (text) => take(JSON.parse(text) as Live));
        } catch {
          // It is tried again; the strip of the connection says what is wrong.
        }
        await new Promise((f) => setTimeout(f, again));
      }
    };
    void run();
    return () => stop.abort();
  }, []);
  return { state, readings: readings.current };
}

/** Lines of an answer as they come. */
async function lines(path: string, signal: AbortSignal, line: (text: string) => void): Promise<void> {
  const { body } = await fetch(new Request(new URL(path, location.origin), { signal }));
  const reader = body?.getReader();
  const text = new TextDecoder();
  for (let rest = ""; reader; ) {
    const { done, value } = await reader.read();
    if (done) return;
    const parts = (rest + text.decode(value, { stream: true })).split("\n");
    rest = parts.pop() ?? "";
    for (const p of parts) if (p) line(p);
  }
}
