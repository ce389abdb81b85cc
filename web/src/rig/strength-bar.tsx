import { memo } from "react";
import type { Choice } from "../api/client";
import { force, short } from "../ui/format";

type Props = { choice: Choice; loadKN: number; lineKN: number; fishing: boolean };

/** What the joint bears as a length of the line it is tied in: load and twice the load across it, the rest of the line dashed. */
export const StrengthBar = memo(function StrengthBar({ choice, loadKN, lineKN, fishing }: Props) {
  const cap = choice.strength.capacity_kn;
  const twice = 2 * loadKN;
  const top = Math.max(Math.min(Math.max(lineKN, cap.high), loadKN * 16), twice * 1.3);
  const x = (kN: number) => Math.min(100, (100 * kN) / top);
  const p = (kN: number) => `${x(kN)}%`;
  // Words that would run into each other stand as one.
  const close = x(twice) - x(loadKN) < 30;
  const near = x(cap.likely) > 62;
  return (
    <svg
      width="100%"
      height="70"
      className="block"
      role="img"
      aria-label={`Bears ${force(cap.likely, fishing)}, ${short(choice.strength.times)} times the load; twice the load is ${force(twice, fishing)}; the line itself bears ${force(lineKN, fishing)}`}
    >
      <text
        x={p(loadKN)}
        y="14"
        fontSize="14"
        fill="var(--ink)"
        textAnchor={x(loadKN) < 12 || close ? "start" : "middle"}
        dx={close ? -4 : 0}
      >
        {`load ${force(loadKN, fishing)}${close ? ", and twice" : ""}`}
      </text>
      {!close && (
        <text x={p(twice)} y="14" fontSize="14" fill="var(--ink)" textAnchor="middle">
          twice
        </text>
      )}
      <rect
        x="0"
        y="22"
        width="100%"
        height="20"
        rx="3"
        fill="none"
        stroke="var(--quiet)"
        strokeDasharray="4 3"
      />
      <rect x="0" y="22" width={p(cap.high)} height="20" rx="3" fill="var(--rope-1-light)" />
      <rect
        x="0"
        y="22"
        width={p(cap.likely)}
        height="20"
        rx="3"
        fill="var(--rope-1)"
        stroke="var(--rope-1-edge)"
        strokeWidth="1.4"
      />
      <rect x="0" y="26" width={p(cap.likely)} height="4" fill="var(--rope-1-light)" fillOpacity=".6" />
      <line x1={p(cap.low)} x2={p(cap.low)} y1="22" y2="42" stroke="var(--rope-1-edge)" strokeWidth="1.4" />
      <line x1={p(loadKN)} x2={p(loadKN)} y1="18" y2="46" stroke="var(--ink)" strokeWidth="2.6" />
      <line
        x1={p(twice)}
        x2={p(twice)}
        y1="18"
        y2="46"
        stroke="var(--ink)"
        strokeWidth="2.2"
        strokeDasharray="3 3"
      />
      <text
        x={p(cap.likely)}
        y="60"
        fontSize="15"
        fontWeight="700"
        fill="var(--ink)"
        textAnchor={near ? "end" : "middle"}
      >
        {force(Number(cap.likely.toPrecision(2)), fishing)}
      </text>
      {x(lineKN) - x(cap.likely) > (near ? 30 : 46) && (
        <text x={p(lineKN)} y="60" fontSize="14" fill="var(--quiet)" textAnchor="end">
          line {force(Number(lineKN.toPrecision(2)), fishing)}
        </text>
      )}
    </svg>
  );
});
