import type { Catalogue, Rig, Schemas } from "../api/client";

/** The picture of a fitting, as its data names it; undefined: as a line or a spar. */
export type DrawnAs = Schemas["RigFittingKind"]["drawn_as"];

/** Where a thing is drawn: its middle, the height of the line, its size and the height of the picture, in pixels. */
export type Scene = {
  at: number;
  y: number;
  size: number;
  height: number;
  joint: { x: number };
  rope: { w: number };
};

/** A thing at an end of the chain. */
export type End = {
  name: string;
  as: DrawnAs;
  at: number;
  size: number;
  width: number;
  /** Where the rope meets it. */
  meets: number;
  rope: { w: number };
};

export type Band = ReturnType<typeof bandOf>;

type LineAnswer = Schemas["LineAnswer"];

/** Everything at one scale: ropes and things of the whole chain, in pixels. */
export function bandOf(
  rig: Rig,
  c: Catalogue,
  whole: Schemas["RigAnswer"] | undefined,
  bears: LineAnswer | undefined,
  other: LineAnswer | undefined,
) {
  const diameter = (i: number): number => {
    const line = rig.chain[i]?.line;
    if (!line) return 0;
    const single = rig.chain.length === 3 ? (i === 2 ? bears : other)?.diameter_mm : undefined;
    return line.diameter_mm || whole?.lines.find((x) => x.at === i)?.diameter_mm || single || 1;
  };
  const kindOf = (i: number) => c.fittings.find((f) => f.id === rig.chain[i]?.fitting?.kind);
  const sizeOf = (i: number) => rig.chain[i]?.fitting?.size_mm ?? kindOf(i)?.default_mm ?? 1;
  const lines = rig.chain.flatMap((e, i) => (e.line ? [i] : []));
  const thick = Math.max(...lines.map(diameter), 0.1);
  const things = rig.chain.flatMap((e, i) => (e.fitting ? [i] : []));
  const fits = things.map((i) => (solid(kindOf(i)?.drawn_as) ? 104 : 36) / sizeOf(i));
  // A rope of 4 pixels at the least can be seen; a thick thing is then cut off at the edge.
  const px = Math.max(Math.min(16 / thick, ...fits), 4 / thick);
  const width = (i: number): number => {
    const at = rig.chain[i]?.line
      ? i
      : lines.reduce((a, b) => (Math.abs(b - i) < Math.abs(a - i) ? b : a), lines[0] ?? 0);
    return Math.max(2, diameter(at) * px);
  };
  const ends: Record<number, End> = {};
  for (const i of things) {
    const as = kindOf(i)?.drawn_as;
    const size = Math.min(sizeOf(i) * px, solid(as) ? 260 : 44);
    const broad = Math.min(size, 120);
    const at = solid(as) ? 14 + broad / 2 : 74;
    const meets = solid(as)
      ? at + broad / 2
      : at +
        ({ ring: ringRadius(size), clew: size + 12, eye: size * 0.85, gap: 26, cleat: 52 }[as as string] ??
          0);
    ends[i] = {
      name: kindOf(i)?.name ?? "",
      as,
      at,
      size,
      width: Math.round(meets + 26),
      meets,
      rope: { w: width(i) },
    };
  }
  const target = 60 / px;
  const unit = 10 ** Math.floor(Math.log10(target));
  const scaleMM = ([5, 2, 1].find((k) => k * unit <= target) ?? 1) * unit;
  return {
    px,
    width,
    ends,
    scaleMM,
    lastWidth: width(rig.chain.length - 1),
    /** Neighbouring lines of a chain take turns in colour. */
    colour: (i: number): 1 | 2 => (lines.indexOf(i) % 2 === 0 ? 1 : 2),
  };
}

const solid = (as: DrawnAs) => as === "post" || as === "bollard" || as === "rail";

export const ringRadius = (bar: number) => bar * 0.7 + 18;
