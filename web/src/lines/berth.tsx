import { useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { useMedia } from "../ui/media";

type Line = Schemas["MooringLine"];
type Answer = Schemas["MooringAnswer"];

/** A berth from above: the boat as she lies in this wind, her lines as thick as they bear, shore ends dragged. */
export function Berth(p: {
  loa: number;
  beam: number;
  quay: boolean;
  lines: Line[];
  answer: Answer | undefined;
  wind: { kn: number; from: number };
  /** Which line is looked at. */
  at?: number;
  drag: (i: number, to: [number, number]) => void;
  touch: (i: number) => void;
}) {
  const { loa, beam, lines, answer, wind } = p;
  const svg = useRef<SVGSVGElement>(null);
  const [held, setHeld] = useState<number>();
  const wide = 1.9 * loa;
  const high = Math.max(0.95 * loa, beam + 7);
  const top = p.quay ? -high * 0.5 : -high / 2;
  const at = (e: React.PointerEvent): [number, number] => {
    const m = svg.current?.getScreenCTM()?.inverse();
    if (!m) return [0, 0];
    const q = new DOMPoint(e.clientX, e.clientY).matrixTransform(m);
    return [Math.round(q.x * 10) / 10, Math.round(q.y * 10) / 10];
  };
  const quayY = -beam / 2 - 0.35;
  const ship = `M${0.5 * loa} 0C${0.34 * loa} ${-0.42 * beam} ${0.15 * loa} ${-beam / 2} ${-0.1 * loa} ${-beam / 2}L${-0.5 * loa} ${-0.4 * beam}V${0.4 * beam}L${-0.1 * loa} ${beam / 2}C${0.15 * loa} ${beam / 2} ${0.34 * loa} ${0.42 * beam} ${0.5 * loa} 0Z`;
  const shift = answer
    ? `translate(${answer.moved_m[0]} ${answer.moved_m[1]}) rotate(${answer.turn_deg})`
    : undefined;
  const size = loa / 21;
  // On a phone the loads alone, in letters that are read at arm's length.
  const narrow = useMedia("(max-width: 600px)");
  const letters = narrow ? loa / 11 : size;
  return (
    <svg
      ref={svg}
      viewBox={`${-wide / 2} ${top} ${wide} ${high}`}
      width="100%"
      role="img"
      aria-label={answer?.says.join(" ") ?? "The berth from above"}
      style={{ background: "var(--glass-wash)", borderRadius: "8px", touchAction: "none" }}
      onPointerMove={(e) => held !== undefined && p.drag(held, at(e))}
      onPointerUp={() => setHeld(undefined)}
      onPointerLeave={() => setHeld(undefined)}
    >
      {p.quay && (
        <>
          <rect x={-wide / 2} y={top} width={wide} height={quayY - top} fill="var(--object)" />
          <line
            x1={-wide / 2}
            x2={wide / 2}
            y1={quayY}
            y2={quayY}
            stroke="var(--object-edge)"
            strokeWidth={size / 3}
          />
        </>
      )}
      <g transform={shift}>
        <path d={ship} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={size / 4} />
        <path d={ship} transform="scale(0.82 0.72)" fill="none" stroke="var(--line)" strokeWidth={size / 5} />
        {p.quay &&
          [0.3, -0.3].map((x) => (
            <rect
              key={x}
              x={x * loa - 0.4}
              y={-beam / 2 - 0.3}
              width="0.8"
              height="0.32"
              rx="0.15"
              fill="var(--kelp)"
            />
          ))}
      </g>
      {lines.map((l, i) => {
        const share = answer?.lines[i];
        const weak = share && share.margin > 0 && share.margin < 1;
        const slack = !share || share.load_kn < 0.01;
        const thick = slack
          ? size / 5
          : size / 5 + (size / 2.4) * Math.min(1, 1 / Math.max(0.4, share.margin));
        const first = answer?.order.indexOf(i) ?? -1;
        const rubs = answer?.details[i]?.chafes ?? [];
        // Beyond the shore end, away from the boat; springs a line higher than the ends.
        const toY = l.to[1] ?? 0;
        const away = Math.sign(toY) || 1;
        const y =
          toY + away * size * (p.quay ? ([1.5, 1.5, 2.9, 4.3][i] ?? 1.5) : 1.5) + (away > 0 ? 0.7 * size : 0);
        return (
          <g key={l.name ?? i} data-line={l.name}>
            <line
              x1={(l.from[0] ?? 0) + (answer?.moved_m[0] ?? 0)}
              y1={(l.from[1] ?? 0) + (answer?.moved_m[1] ?? 0)}
              x2={l.to[0]}
              y2={l.to[1]}
              stroke={weak ? "var(--flare)" : "var(--rope-1-edge)"}
              strokeWidth={thick}
              strokeDasharray={slack ? `${size / 2} ${size / 3}` : undefined}
            />
            <circle
              cx={l.to[0]}
              cy={l.to[1]}
              r={size * 0.62}
              fill={held === i || p.at === i ? "var(--amber)" : "var(--kelp)"}
              stroke="var(--sheet)"
              strokeWidth={size / 6}
              style={{ cursor: "grab" }}
              onPointerDown={() => {
                setHeld(i);
                p.touch(i);
              }}
            />
            {first >= 0 && (
              <text
                x={l.to[0]}
                y={toY + size * 0.3}
                textAnchor="middle"
                style={{ fontSize: `${size * 0.85}px`, pointerEvents: "none" }}
                fontWeight="700"
                fill={held === i || p.at === i ? "#10231d" : "var(--kelp-ink)"}
              >
                {first + 1}
              </text>
            )}
            {rubs.includes("quay") && <Rub x={along(l, quayY)} y={quayY} size={size} />}
            {rubs.includes("rail") && <Rub x={near(l)[0]} y={near(l)[1]} size={size} />}
            <text
              x={l.to[0]}
              y={y}
              textAnchor="middle"
              style={{ fontSize: `${letters}px` }}
              fontWeight="700"
              fill={weak ? "var(--flare)" : "var(--ink)"}
              stroke="var(--sheet)"
              strokeWidth={size / 5}
              paintOrder="stroke"
            >
              {narrow ? "" : `${l.name} `}
              {share ? (slack ? "slack" : `${share.load_kn.toFixed(1)} kN`) : ""}
            </text>
          </g>
        );
      })}
      <g transform={`translate(${0.4 * wide} ${top + high - 4.6 * size}) rotate(${wind.from})`}>
        <circle r={2.7 * size} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={size / 6} />
        <path
          d={`M${2.2 * size} 0H${-1.2 * size}`}
          stroke="var(--amber)"
          strokeWidth={size / 1.6}
          markerEnd="url(#wind)"
        />
      </g>
      <text
        x={0.4 * wide}
        y={top + high - 0.6 * size}
        textAnchor="middle"
        style={{ fontSize: `${letters}px` }}
        fontWeight="700"
        fill="var(--ink)"
      >
        {wind.kn} kn
      </text>
      <defs>
        <marker
          id="wind"
          viewBox="0 0 10 10"
          refX="6"
          refY="5"
          markerWidth="4"
          markerHeight="4"
          orient="auto"
        >
          <path d="M0 0L10 5L0 10z" fill="var(--amber)" />
        </marker>
      </defs>
    </svg>
  );
}

/** Where a line leads over a height, and a little way out from its beginning. */
const along = (l: Line, y: number): number => {
  const [[x1 = 0, y1 = 0], [x2 = 0, y2 = 0]] = [l.from, l.to];
  return y2 === y1 ? x1 : x1 + ((x2 - x1) * (y - y1)) / (y2 - y1);
};
const near = (l: Line): [number, number] => {
  const [[x1 = 0, y1 = 0], [x2 = 0, y2 = 0]] = [l.from, l.to];
  return [x1 + 0.16 * (x2 - x1), y1 + 0.16 * (y2 - y1)];
};

/** A place where a line rubs. */
const Rub = ({ x, y, size }: { x: number; y: number; size: number }) => (
  <g transform={`translate(${x} ${y})`} stroke="var(--amber)" strokeWidth={size / 5} strokeLinecap="round">
    {[30, 90, 150, 210, 270, 330].map((deg) => (
      <path key={deg} d={`M${size * 0.42} 0H${size * 0.8}`} transform={`rotate(${deg})`} />
    ))}
  </g>
);
