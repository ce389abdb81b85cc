import type { Schemas } from "../api/client";

/** A knot traced by hand: its ropes from the standing part to the end, what it is tied round, which strand lies over. */
export type Tracing = {
  ropes: { points: number[][]; closed?: boolean }[];
  object?: number;
  over: number[][];
};

export type Meeting = Schemas["TraceMeeting"];

export const bare: Tracing = { ropes: [], over: [] };

/** How many ropes are knotted, and how many of those can be. */
export const knotted = (t: Tracing) => t.ropes.length - (t.object === undefined ? 0 : 1);
export const most = 2;

/** What a finger drew, without its tremor: points well apart, corners cut twice (G. M. Chaikin, 1974). */
export function smooth(drawn: number[][]): number[][] {
  let out = spaced(drawn, 14);
  for (let n = 0; n < 2 && out.length > 2; n++) {
    const [first, last] = [out[0] as number[], out[out.length - 1] as number[]];
    const cut = out.slice(0, -1).flatMap((p, i) => {
      const q = out[i + 1] as number[];
      return [mix(p, q, 0.25), mix(p, q, 0.75)];
    });
    out = [first, ...cut.slice(1, -1), last];
  }
  return spaced(out, 5).map((p) => p.map((v) => Math.round(v * 10) / 10));
}

const mix = (p: number[], q: number[], t: number) => p.map((v, i) => v + t * ((q[i] ?? 0) - v));

export const apart = (p: number[], q: number[]) =>
  Math.hypot((p[0] ?? 0) - (q[0] ?? 0), (p[1] ?? 0) - (q[1] ?? 0));

/** The points at least so far apart, the last one always. */
function spaced(points: number[][], far: number): number[][] {
  const out: number[][] = [];
  for (const p of points) {
    const before = out[out.length - 1];
    if (!before || apart(before, p) >= far) out.push(p);
  }
  const last = points[points.length - 1];
  if (last && out.length > 1 && out[out.length - 1] !== last) out[out.length - 1] = last;
  return out;
}

export function length(points: number[][]): number {
  return points.slice(1).reduce((sum, p, i) => sum + apart(points[i] as number[], p), 0);
}

/** A ring about its middle. */
export function ring(middle: number[], r: number): number[][] {
  const [x = 0, y = 0] = middle;
  return Array.from({ length: 40 }, (_, k) => {
    const a = (2 * Math.PI * (k + 0.37)) / 40;
    return [x + r * Math.cos(a), y + r * Math.sin(a)];
  });
}

/** A rope more. */
export const withRope = (t: Tracing, points: number[][]): Tracing => ({
  ...t,
  ropes: [...t.ropes, { points }],
});

/** What it is tied round, in the place of what it was tied round before. */
export function withObject(t: Tracing, points: number[][], closed: boolean): Tracing {
  const less = t.object === undefined ? t : without(t, t.object);
  return { ...less, ropes: [...less.ropes, { points, closed }], object: less.ropes.length };
}

/** The tracing without one of its ropes, and without what was said of its crossings. */
export function without(t: Tracing, gone: number): Tracing {
  const now = (i: number) => (i > gone ? i - 1 : i);
  return {
    ropes: t.ropes.filter((_, i) => i !== gone),
    object: t.object === undefined || t.object === gone ? undefined : now(t.object),
    over: t.over
      .filter(([a, , b]) => a !== gone && b !== gone)
      .map(([a = 0, s = 0, b = 0, u = 0]) => [now(a), s, now(b), u]),
  };
}

/** A crossing with the other strand over; the one that comes by second, where nothing was said of it yet. */
export function turned(t: Tracing, m: Meeting): Tracing {
  const same = ([a, s, b, u]: number[], x: number[], y: number[]) =>
    a === x[0] && s === x[1] && b === y[0] && u === y[1];
  const over = t.over.filter((e) => !same(e, m.a, m.b) && !same(e, m.b, m.a));
  return { ...t, over: [...over, m.over === "b" ? [...m.a, ...m.b] : [...m.b, ...m.a]] };
}

/** Standing part and end change places. */
export function exchanged(t: Tracing): Tracing {
  const last = (i: number) => (t.ropes[i]?.points.length ?? 0) - 2;
  const at = (i: number, s: number) => (i === t.object ? s : last(i) - s);
  return {
    ...t,
    ropes: t.ropes.map((r, i) => (i === t.object ? r : { ...r, points: [...r.points].reverse() })),
    over: t.over.map(([a = 0, s = 0, b = 0, u = 0]) => [a, at(a, s), b, at(b, u)]),
  };
}

/** The piece of a rope about a place on it, so far to either side. */
export function piece(points: number[][], segment: number, place: number[], far: number): number[][] {
  const walk = (from: number, step: 1 | -1): number[][] => {
    const out: number[][] = [];
    let [left, at] = [far, place];
    for (let i = from; i >= 0 && i < points.length; i += step) {
      const next = points[i] as number[];
      const d = apart(at, next);
      if (d >= left) return [...out, mix(at, next, left / d)];
      out.push(next);
      left -= d;
      at = next;
    }
    return out;
  };
  return [...walk(segment, -1).reverse(), place, ...walk(segment + 1, 1)];
}

export const path = (points: number[][], closed = false) =>
  `M${points.map((p) => p.map((v) => Math.round(v * 10) / 10).join(" ")).join("L")}${closed ? "Z" : ""}`;
