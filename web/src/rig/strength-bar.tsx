import type { Choice } from "../api/client";
import { force, short } from "../ui/format";

type Props = { choice: Choice; loadKN: number; fishing: boolean; width?: number };

/** Capacity drawn as a length of rope; the load and twice the load are notches on it. */
export function StrengthBar({ choice, loadKN, fishing, width = 230 }: Props) {
  const cap = choice.strength.capacity_kn;
  const twice = 2 * loadKN;
  const top = Math.max(Math.min(cap.high, loadKN * 9), twice * 1.3) * 1.08;
  const x = (kN: number) => Math.min((kN / top) * (width - 4), width - 4) + 2;
  const off = cap.likely > top;
  const ticks = [];
  for (let at = 8; at < x(cap.likely) - 5; at += 8) ticks.push(`M${at} 21l5-9`);
  return (
    <svg
      width={width}
      viewBox={`0 0 ${width} 46`}
      className="block"
      role="img"
      aria-label={`Bears ${force(cap.likely, fishing)}, ${short(choice.strength.times)} times the load; twice the load is ${force(twice, fishing)}`}
    >
      <rect
        x="2"
        y="12"
        width={x(cap.high) - 2}
        height="9"
        rx="4.5"
        fill="var(--rope-1-light)"
        stroke="var(--line)"
        strokeDasharray="3 2"
      />
      <rect
        x="2"
        y="11"
        width={x(cap.likely) - 2}
        height="11"
        rx="5"
        fill="var(--rope-1)"
        stroke="var(--rope-1-edge)"
      />
      <path d={ticks.join("")} stroke="var(--rope-1-edge)" strokeOpacity=".45" />
      <rect
        x="2"
        y="11"
        width={x(cap.low) - 2}
        height="11"
        rx="5"
        fill="none"
        stroke="var(--rope-1-edge)"
        strokeWidth="1.6"
      />
      {off && (
        <path d={`M${width - 10} 8l6 8.500-6 8.500`} fill="none" stroke="var(--ink)" strokeWidth="1.8" />
      )}
      <path d={`M${x(loadKN)} 6v21`} stroke="var(--ink)" strokeWidth="2.4" />
      <path d={`M${x(twice)} 6v21`} stroke="var(--flare)" strokeWidth="2.4" strokeDasharray="4 2" />
      <text x={Math.max(2, x(loadKN) - 6)} y="41" fontSize="13" fill="var(--ink)">
        load
      </text>
      <text
        x={Math.max(x(twice) - 4, x(loadKN) + 34)}
        y="41"
        fontSize="13"
        fill="var(--ink)"
        textAnchor="start"
      >
        2 ×
      </text>
    </svg>
  );
}
