import { Box } from "@chakra-ui/react";
import type { Schemas } from "../api/client";
import { Evidence } from "../ui/evidence";

type End = Schemas["EndResult"];

const rowH = 56;
const left = 190;
const width = 720;

/**
 * Each pull as a point: filled where the knot gave, an arrow where it held at least so much.
 * The bar is the middle of many, the band where it likely lies.
 */
export function Strengths({ ends, yardstick }: { ends: End[]; yardstick?: number }) {
  const loads = ends.flatMap((e) => e.values.map((v) => v.load_kn));
  if (loads.length === 0) return null;
  const reach = ends.flatMap((e) => [e.group.median_kn_low, e.group.median_kn_high].filter((v) => v != null));
  // A band that hardly ends is cut off, so that the points stay apart.
  const most = 1.25 * Math.max(...loads);
  const all = [
    ...loads,
    ...(reach as number[]).map((v) => Math.min(v, most)),
    ...(yardstick ? [yardstick] : []),
  ];
  const spread = Math.max(...all) - Math.min(...all) || 1;
  const low = Math.max(0, Math.min(...all) - 0.08 * spread);
  const high = Math.max(...all) + 0.08 * spread;
  const x = (kN: number) => left + ((kN - low) / (high - low)) * (width - left - 30);
  const step = ticks(high - low);
  const first = Math.ceil(low / step) * step;
  const h = ends.length * rowH + 40;
  return (
    <Box overflowX="auto">
      <svg
        viewBox={`0 0 ${width} ${h}`}
        width="100%"
        style={{ minWidth: "480px" }}
        role="img"
        aria-label={ends.map((e) => e.says).join(" ")}
        data-strengths=""
      >
        {Array.from({ length: Math.floor((high - first) / step) + 1 }, (_, i) => first + i * step).map(
          (v) => (
            <g key={v}>
              <line x1={x(v)} x2={x(v)} y1="4" y2={h - 34} stroke="var(--line)" />
              <text x={x(v)} y={h - 14} textAnchor="middle" fontSize="15" fill="var(--ink)">
                {Number(v.toPrecision(4))}
              </text>
            </g>
          ),
        )}
        <text x={width - 4} y={h - 14} textAnchor="end" fontSize="15" fill="var(--ink)">
          kN
        </text>
        {yardstick && (
          <line
            x1={x(yardstick)}
            x2={x(yardstick)}
            y1="0"
            y2={h - 34}
            stroke="var(--amber)"
            strokeWidth="2"
            strokeDasharray="6 4"
          />
        )}
        {ends.map((e, i) => (
          <Row
            key={e.name}
            end={e}
            y={i * rowH + 30}
            x={(kN) => x(Math.min(kN, high))}
            second={i % 2 === 1}
          />
        ))}
      </svg>
      <Box fontSize="sm" color="quiet">
        ● gave · |→ held at least so much · bar: the middle of many · band: where it likely lies (90 %){" "}
        <Evidence tag="yours" source="worked out of your own pulls; figures behind Why" />
      </Box>
    </Box>
  );
}

function ticks(range: number): number {
  const raw = range / 6;
  const ten = 10 ** Math.floor(Math.log10(raw));
  return [1, 2, 5, 10].map((m) => m * ten).find((s) => s >= raw) ?? ten;
}

function Row({ end, y, x, second }: { end: End; y: number; x: (kN: number) => number; second: boolean }) {
  const { median_kn: middle, median_kn_low: low, median_kn_high: high } = end.group;
  const fill = second ? "var(--rope-2)" : "var(--rope-1)";
  const wash = second ? "var(--glass-wash)" : "var(--amber-wash)";
  return (
    <g>
      <text x="0" y={y + 5} fontSize="16" fontWeight="700" fill="var(--ink)">
        {end.name.length > 24 ? `${end.name.slice(0, 23)}…` : end.name}
      </text>
      {middle != null && (
        <>
          <rect
            x={x(low ?? middle)}
            width={Math.max(2, x(high ?? middle) - x(low ?? middle))}
            y={y - 20}
            height="40"
            rx="3"
            fill={wash}
          />
          <line x1={x(middle)} x2={x(middle)} y1={y - 22} y2={y + 22} stroke="var(--ink)" strokeWidth="3" />
        </>
      )}
      {end.values.map((v, i) => {
        // Pulls at nearly one load lie one above the other.
        const close = end.values.slice(0, i).filter((o) => Math.abs(x(o.load_kn) - x(v.load_kn)) < 15).length;
        const at = y + ([0, -13, 13][close % 3] ?? 0);
        return v.failed ? (
          <circle
            // biome-ignore lint/suspicious/noArrayIndexKey: pulls in their order
            key={i}
            cx={x(v.load_kn)}
            cy={at}
            r="7"
            fill={fill}
            stroke="var(--ink)"
            strokeWidth="2"
          />
        ) : (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: pulls in their order
            key={i}
            d={`M${x(v.load_kn)} ${at - 6}v12M${x(v.load_kn)} ${at}h15m-5 -5l5 5l-5 5`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth="2.4"
          />
        );
      })}
    </g>
  );
}
