import type { Schemas } from "../api/client";

/** How a knot in space is seen. */
export type Seen = {
  /** From loose, 0, to drawn up, 1. */
  at: number;
  /** About the upright, and tipped toward the viewer, in radians. */
  turn: number;
  tip: number;
  /** For a left-handed tyer: the mirror image. */
  left: boolean;
  /** The share of its depth that is left: what is nearer is cut away. */
  cut: number;
};

type Built = Schemas["SnugBuilt"];
export type Strand = NonNullable<Built["strands"]>[number];

const perPiece = 2;

/** The share of a rope at each end that may run out of the picture. */
const leads = 0.08;

/** Colours as the drawings have them, read where they are shown. */
export function coloursOf(of: Element) {
  const style = getComputedStyle(of);
  const v = (name: string, other: string) => style.getPropertyValue(name).trim() || other;
  return {
    rope: [1, 2].map((n) => ({
      edge: v(`--rope-${n}-edge`, n === 1 ? "#573a0d" : "#173c37"),
      body: v(`--rope-${n}`, n === 1 ? "#dc9a35" : "#4a9a90"),
      light: v(`--rope-${n}-light`, n === 1 ? "#f6d592" : "#abd8cf"),
    })),
    object: {
      edge: v("--object-edge", "#46524c"),
      body: v("--object", "#a9b3ad"),
      light: v("--object-light", "#e3e8e3"),
    },
    cut: v("--flare", "#b3270f"),
  };
}

/** Between two frames a node lies between its two places. */
export function nodes(s: Strand, at: number): Float64Array {
  const frames = s.frames ?? [];
  const last = frames.length - 1;
  const f = Math.min(Math.max(at, 0), 1) * last;
  const [a, b] = [frames[Math.floor(f)] ?? [], frames[Math.ceil(f)] ?? []];
  const t = f - Math.floor(f);
  const out = new Float64Array(a.length);
  for (let i = 0; i < a.length; i++) out[i] = ((a[i] ?? 0) * (1 - t) + (b[i] ?? 0) * t) / 100;
  return out;
}

/** Strands as they are seen: nodes turned, and how they fit a picture. */
export function spun(list: Strand[], seen: Seen) {
  const [st, ct] = [Math.sin(seen.turn), Math.cos(seen.turn)];
  const [sp, cp] = [Math.sin(seen.tip), Math.cos(seen.tip)];
  const strands = list.map((s) => {
    const p = nodes(s, seen.at);
    for (let i = 0; i < p.length; i += 3) {
      const x0 = (seen.left ? -1 : 1) * (p[i] ?? 0);
      const [y0, z0] = [p[i + 1] ?? 0, p[i + 2] ?? 0];
      const [x, z] = [ct * x0 + st * z0, ct * z0 - st * x0];
      p[i] = x;
      p[i + 1] = cp * y0 - sp * z;
      p[i + 2] = sp * y0 + cp * z;
    }
    return { s, p, n: p.length / 3 };
  });
  // The knot fills the picture however it is turned: what leads to it runs out of it.
  const shown = strands.flatMap(({ s, p, n }) => {
    const skip = s.object ? n : Math.round(leads * n);
    return Array.from({ length: Math.max(0, n - 2 * skip) }, (_, k) => {
      const i = 3 * (k + skip);
      return [p[i] ?? 0, p[i + 1] ?? 0, p[i + 2] ?? 0] as const;
    });
  });
  const middle = [0, 1, 2].map((a) => shown.reduce((sum, v) => sum + (v[a] ?? 0), 0) / (shown.length || 1));
  const [x = 0, y = 0, z = 0] = middle;
  const far = Math.max(1, ...shown.map((v) => Math.hypot(v[0] - x, v[1] - y, v[2] - z) + 0.6));
  const deep = Math.max(...strands.flatMap(({ s, p }) => Array.from(p, (v) => Math.abs(v) + s.d)));
  const [back, front] = [Math.min(...shown.map((v) => v[2])), Math.max(...shown.map((v) => v[2]))];
  return {
    strands,
    /** Pixels for a diameter, the middle of the picture, what is nearer than is cut away, and how deep all is. */
    fit: (w: number, h: number) => ({
      by: Math.min(w, 1.25 * h) / 2 / far,
      x,
      y,
      near: seen.cut < 1 ? back + (front - back) * seen.cut + 1e-6 : Infinity,
      deep,
    }),
  };
}

/** Where there is no WebGL: tubes from behind to the front, an edge, the body, a gleam; what is cut shows its section. */
export function paint(canvas: HTMLCanvasElement, list: Strand[], seen: Seen): void {
  const ctx = canvas.getContext("2d");
  if (!ctx) return;
  const paints = coloursOf(canvas);
  const all = spun(list, seen);
  const { strands } = all;
  const ropes = strands.filter((x) => !x.s.object);
  const { by, x: mx, y: my, near } = all.fit(canvas.width, canvas.height);
  const [ox, oy] = [canvas.width / 2 - by * mx, canvas.height / 2 + by * my];
  type Piece = { strand: number; from: number; to: number; z: number };
  const pieces: Piece[] = [];
  strands.forEach(({ s, p, n }, strand) => {
    const segments = s.closed ? n : n - 1;
    for (let from = 0; from < segments; from += perPiece) {
      const to = Math.min(from + perPiece, segments);
      const z = ((p[3 * (from % n) + 2] ?? 0) + (p[3 * (to % n) + 2] ?? 0)) / 2;
      if (seen.cut >= 1 || z <= near) pieces.push({ strand, from, to, z });
    }
  });
  pieces.sort((a, b) => a.z - b.z);
  ctx.clearRect(0, 0, canvas.width, canvas.height);
  ctx.lineJoin = "round";
  /** Strokes a piece, run on at both ends by a share of a segment. */
  const line = (
    x: (typeof strands)[number],
    piece: Piece,
    on: number,
    width: number,
    colour: string,
    shift = 0,
  ) => {
    const node = (i: number, axis: number) => {
      const k = x.s.closed ? ((i % x.n) + x.n) % x.n : Math.min(Math.max(i, 0), x.n - 1);
      return x.p[3 * k + axis] ?? 0;
    };
    const to = (a: number, b: number, f: number, put: (x: number, y: number) => void) =>
      put(
        ox + by * (node(a, 0) * (1 - f) + node(b, 0) * f) + shift,
        oy - by * (node(a, 1) * (1 - f) + node(b, 1) * f) + shift,
      );
    ctx.beginPath();
    to(piece.from, piece.from - 1, on, (px, py) => ctx.moveTo(px, py));
    for (let i = piece.from; i <= piece.to; i++) to(i, i, 0, (px, py) => ctx.lineTo(px, py));
    to(piece.to, piece.to + 1, on, (px, py) => ctx.lineTo(px, py));
    ctx.lineWidth = width * by;
    ctx.strokeStyle = colour;
    ctx.stroke();
  };
  for (const piece of pieces) {
    const x = strands[piece.strand];
    if (!x) continue;
    const tint = x.s.object ? paints.object : paints.rope[ropes.indexOf(x) % 2];
    if (!tint) continue;
    // The edge runs on a little, so that it does not gape in a bend; the body covers its end.
    line(x, piece, 0.4, x.s.d, tint.edge);
    line(x, piece, 0.8, x.s.d * 0.84, tint.body);
    line(x, piece, 0.8, x.s.d * 0.16, tint.light, -0.13 * x.s.d * by);
    // Where the next piece is cut away, the section is shown.
    if (seen.cut < 1 && piece.z > near - 0.25) {
      const k = piece.to % x.n;
      ctx.beginPath();
      ctx.arc(
        ox + by * (x.p[3 * k] ?? 0),
        oy - by * (x.p[3 * k + 1] ?? 0),
        x.s.d * by * 0.36,
        0,
        2 * Math.PI,
      );
      ctx.strokeStyle = paints.cut;
      ctx.lineWidth = 2;
      ctx.stroke();
    }
  }
}
