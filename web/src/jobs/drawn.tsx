import type { ReactNode } from "react";

/*
 * The pieces that pictures of jobs are made of: seen from above or from the side, 180 by 104, flare red for
 * what moves or is watched in this step.
 */

const object = "var(--object)";
const objectEdge = "var(--object-edge)";
export const moved = "var(--flare)";
const ink = "var(--ink)";

/** A picture with what it shows in words. */
export function Scene({ says, children }: { says: string; children: ReactNode }) {
  return (
    <svg width="180" height="104" viewBox="0 0 180 104" role="img" aria-label={says} className="block">
      {children}
    </svg>
  );
}

/** A line along a path; the second rope is teal. */
export function Line({
  d,
  second = false,
  now = false,
  w = 4,
  dashed = false,
}: {
  d: string;
  second?: boolean;
  now?: boolean;
  w?: number;
  dashed?: boolean;
}) {
  const colour = now ? moved : second ? "var(--rope-2)" : "var(--rope-1)";
  return (
    <g fill="none" strokeLinecap="round" strokeLinejoin="round" strokeDasharray={dashed ? "1 7" : undefined}>
      <path d={d} stroke={second ? "var(--rope-2-edge)" : "var(--rope-1-edge)"} strokeWidth={w + 2} />
      <path d={d} stroke={colour} strokeWidth={w} />
    </g>
  );
}

/** A straight arrow. */
export function Arrow({ from, to, calm = false }: { from: XY; to: XY; calm?: boolean }) {
  const turn = (Math.atan2(to[1] - from[1], to[0] - from[0]) * 180) / Math.PI;
  const colour = calm ? "var(--glass)" : moved;
  return (
    <g stroke={colour} fill={colour}>
      <path d={`M${from}L${to}`} strokeWidth="2.5" strokeLinecap="round" />
      <path d="M4 0L-6 5V-5Z" stroke="none" transform={`translate(${to}) rotate(${turn})`} />
    </g>
  );
}

export type XY = [number, number];

/** Somebody from the side, feet at y; arms are given from the shoulder. */
export function Person({ x, y, arms = [], at = 1 }: { x: number; y: number; arms?: XY[]; at?: number }) {
  return (
    <g
      transform={`translate(${x} ${y}) scale(${at})`}
      stroke={ink}
      strokeWidth="4"
      strokeLinecap="round"
      fill="none"
    >
      <circle cx="0" cy="-34" r="4.5" fill={ink} stroke="none" />
      <path d="M0 -26V-13L-4 0M0 -13L4 0" />
      {arms.map((a) => (
        <path key={String(a)} d={`M0 -25L${a}`} strokeWidth="3.4" />
      ))}
    </g>
  );
}

/** Somebody from above. */
export function Head({ x, y, now = false }: { x: number; y: number; now?: boolean }) {
  return (
    <g fill={now ? moved : ink} transform={`translate(${x} ${y})`}>
      <ellipse cx="0" cy="0" rx="9" ry="4.5" opacity="0.55" />
      <circle r="4.5" />
    </g>
  );
}

/** A boat from above, its middle at x, y, bow to the right. */
export function Hull({ x, y, turn = 0, long = 104 }: { x: number; y: number; turn?: number; long?: number }) {
  const [a, b] = [long / 2, long / 5.2];
  return (
    <g transform={`translate(${x} ${y}) rotate(${turn})`} stroke={objectEdge} strokeWidth="1.5">
      <path
        d={`M${-a} ${-b * 0.7}Q${-a * 0.2} ${-b * 1.25} ${a * 0.4} ${-b * 0.8}Q${a * 0.8} ${-b * 0.4} ${a} 0Q${a * 0.8} ${b * 0.4} ${a * 0.4} ${b * 0.8}Q${-a * 0.2} ${b * 1.25} ${-a} ${b * 0.7}Z`}
        fill="var(--object-light)"
      />
      <path
        d={`M${-a * 0.8} ${-b * 0.45}H${a * 0.15}Q${a * 0.3} 0 ${a * 0.15} ${b * 0.45}H${-a * 0.8}Z`}
        fill={object}
      />
    </g>
  );
}

/** A boat from the side, bow to the right, its deck at y. */
export function Side({
  x,
  y,
  long = 70,
  back = false,
}: {
  x: number;
  y: number;
  long?: number;
  back?: boolean;
}) {
  return (
    <path
      transform={`translate(${x} ${y}) scale(${back ? -1 : 1} 1)`}
      d={`M${-long / 2} 0H${long / 2}Q${long / 2 - 8} 16 ${long / 2 - 22} 22H${-long / 2 + 4}Z`}
      fill={object}
      stroke={objectEdge}
      strokeWidth="1.5"
    />
  );
}

/** The water from y down, with its waves. */
export function Water({ y }: { y: number }) {
  return (
    <g>
      <rect x="0" y={y} width="180" height={104 - y} fill="var(--glass-wash)" />
      <path
        d={`M0 ${y}q7.5 -5 15 0${"t15 0".repeat(11)}`}
        fill="none"
        stroke="var(--glass)"
        strokeWidth="2"
      />
    </g>
  );
}

/** The quay along the top, seen from above, with cleats. */
export function Quay({ cleats = [] as number[] }) {
  return (
    <g>
      <rect x="0" y="24" width="180" height="80" fill="var(--glass-wash)" />
      <rect x="0" y="-2" width="180" height="26" fill={object} stroke={objectEdge} strokeWidth="1.5" />
      {cleats.map((x) => (
        <Cleat key={x} x={x} y={15} />
      ))}
    </g>
  );
}

export function Cleat({ x, y, now = false }: { x: number; y: number; now?: boolean }) {
  return (
    <g transform={`translate(${x} ${y})`} fill={now ? moved : objectEdge}>
      <rect x="-10" y="-2.5" width="20" height="5" rx="2.5" />
      <circle r="4" />
    </g>
  );
}

/** Something said, or a short label. */
export function Said({ x, y, children, w = 62 }: { x: number; y: number; children: string; w?: number }) {
  return (
    <g>
      <rect
        x={x - w / 2}
        y={y - 12}
        width={w}
        height="20"
        rx="10"
        fill="var(--sheet)"
        stroke={ink}
        strokeWidth="1.3"
      />
      <text x={x} y={y + 3} textAnchor="middle" fontSize="13" fill={ink}>
        {children}
      </text>
    </g>
  );
}

/** Struck through: not so, not here. */
export const No = ({ x, y, r = 12 }: { x: number; y: number; r?: number }) => (
  <path
    d={`M${x - r} ${y - r}L${x + r} ${y + r}M${x + r} ${y - r}L${x - r} ${y + r}`}
    stroke={moved}
    strokeWidth="4"
    strokeLinecap="round"
  />
);

/** Where nobody stands. */
export const Clear = ({ x, y, w, h }: { x: number; y: number; w: number; h: number }) => (
  <rect
    x={x}
    y={y}
    width={w}
    height={h}
    rx="8"
    fill="var(--flare-wash)"
    stroke={moved}
    strokeWidth="1.5"
    strokeDasharray="5 4"
  />
);

/** A hank lying flat. */
export const Coil = ({ x, y, r = 14, now = false }: { x: number; y: number; r?: number; now?: boolean }) => (
  <g>
    {[r, r - 5, r - 10]
      .filter((k) => k > 2)
      .map((k) => (
        <Line
          key={k}
          w={3}
          now={now}
          d={`M${x - k} ${y}a${k} ${k * 0.7} 0 1 0 ${2 * k} 0a${k} ${k * 0.7} 0 1 0 ${-2 * k} 0`}
        />
      ))}
  </g>
);

/** A knot as a lump in a line. */
export const Lump = ({ x, y, now = false }: { x: number; y: number; now?: boolean }) => (
  <g>
    <ellipse
      cx={x}
      cy={y}
      rx="13"
      ry="8.5"
      fill={now ? moved : "var(--rope-1)"}
      stroke="var(--rope-1-edge)"
      strokeWidth="1.5"
    />
    <path
      d={`M${x - 8} ${y + 5}L${x - 1} ${y - 6}M${x} ${y + 6}L${x + 8} ${y - 5}`}
      stroke="var(--rope-1-edge)"
      strokeWidth="1.6"
    />
  </g>
);

/** How far a load has been taken, in quarters up to six. */
export function Gauge({ quarters }: { quarters: number }) {
  return (
    <g>
      {[0, 1, 2, 3, 4, 5].map((i) => (
        <rect
          key={i}
          x={30 + 20 * i}
          y="84"
          width="18"
          height="12"
          fill={i < quarters ? moved : "none"}
          stroke={ink}
          strokeWidth="1.3"
        />
      ))}
      <path d="M109 80V100" stroke={ink} strokeWidth="2.5" />
    </g>
  );
}
