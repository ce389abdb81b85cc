import { Flex } from "@chakra-ui/react";
import type { Schemas } from "../api/client";

export const levels = ["not yet", "with help", "alone", "in time", "wet", "in place"] as const;

/** Turns round a post, none to five, and a flag where the last try was a fault. */
export function LevelSign({ level, fault = 0, size = 34 }: { level: number; fault?: number; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 34 34" aria-hidden="true">
      <rect
        x="10"
        y="2"
        width="9"
        height="30"
        rx="2"
        fill="var(--object-light)"
        stroke="var(--object-edge)"
        strokeWidth="1.3"
      />
      {Array.from({ length: level }, (_, i) => (
        <g key={levels[i]}>
          <path
            d={`M6 ${30 - 5.4 * i}L23 ${26.5 - 5.4 * i}`}
            stroke="var(--rope-1-edge)"
            strokeWidth="5.4"
            strokeLinecap="round"
          />
          <path
            d={`M6 ${30 - 5.4 * i}L23 ${26.5 - 5.4 * i}`}
            stroke="var(--rope-1)"
            strokeWidth="3.6"
            strokeLinecap="round"
          />
        </g>
      ))}
      {fault > 0 && (
        <path
          d="M26 4V16M26 4L33.500 7.500L26 11Z"
          stroke="var(--flare)"
          strokeWidth="1.8"
          fill={fault > 1 ? "var(--flare)" : "none"}
        />
      )}
    </svg>
  );
}

/** What a level and a flag say, in words. */
export function levelWords(cell: Schemas["Cell"] | undefined): string {
  const word = levels[cell?.level ?? 0] ?? "";
  if (!cell?.fault) return word;
  return `${word}, ${cell.fault > 1 ? "the same fault twice" : "a fault last time"}`;
}

/** What the signs mean, once. */
export function LevelKey() {
  return (
    <Flex gap="3" wrap="wrap" fontSize="15px" color="quiet" aria-label="Levels" role="list">
      {levels.map((name, i) => (
        <Flex key={name} align="center" gap="1" role="listitem">
          <LevelSign level={i} size={26} />
          {name}
        </Flex>
      ))}
      <Flex align="center" gap="1" role="listitem">
        <LevelSign level={0} fault={2} size={26} />
        the same fault twice
      </Flex>
    </Flex>
  );
}
