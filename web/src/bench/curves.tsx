import { Box } from "@chakra-ui/react";
import type { Schemas } from "../api/client";

type End = Schemas["EndResult"];

/** Survival: the share of specimens that outlives a load, knot by knot. */
export function Curves({ ends }: { ends: End[] }) {
  const with_ = ends.filter((e) => e.group.km.length > 0);
  if (with_.length === 0) return null;
  const loads = with_.flatMap((e) => e.values.map((v) => v.load_kn));
  const low = Math.min(...loads) * 0.92;
  const high = Math.max(...loads) * 1.03;
  const x = (kN: number) => 50 + ((kN - low) / (high - low)) * 420;
  const y = (s: number) => 16 + (1 - s) * 160;
  return (
    <Box maxW="560px">
      <svg viewBox="0 0 480 220" width="100%" role="img" aria-label="Share that outlives a load">
        {[0, 0.5, 1].map((s) => (
          <g key={s}>
            <line x1="50" x2="470" y1={y(s)} y2={y(s)} stroke="var(--line)" />
            <text x="44" y={y(s) + 5} textAnchor="end" fontSize="13" fill="var(--ink)">
              {s === 0 ? "none" : s === 1 ? "all" : "half"}
            </text>
          </g>
        ))}
        {with_.map((e, i) => {
          let d = `M${x(low)} ${y(1)}`;
          for (const step of e.group.km) d += `H${x(step.load_kn)}V${y(step.survival)}`;
          d += `H${x(Math.max(...e.values.map((v) => v.load_kn)))}`;
          const colour = i % 2 === 1 ? "var(--glass)" : "var(--amber)";
          return (
            <path
              key={e.name}
              d={d}
              fill="none"
              stroke={colour}
              strokeWidth="3"
              strokeDasharray={i > 1 ? "6 4" : undefined}
            />
          );
        })}
        {[low, (low + high) / 2, high].map((v) => (
          <text key={v} x={x(v)} y="200" textAnchor="middle" fontSize="13" fill="var(--ink)">
            {v.toPrecision(3)}
          </text>
        ))}
        <text x="470" y="216" textAnchor="end" fontSize="13" fill="var(--ink)">
          kN
        </text>
      </svg>
      <Box fontSize="sm">
        {with_.map((e, i) => (
          <Box as="span" key={e.name} mr="4">
            <Box as="span" fontWeight="700" color={i % 2 === 1 ? "glass" : "amber"}>
              —
            </Box>{" "}
            {e.name}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
