import { Box } from "@chakra-ui/react";
import { useId } from "react";
import type { Look } from "../ui/drawing";
import { length } from "../ui/format";
import type { Band } from "./scene";

/** Height of the band, and of the line in it. */
export const height = 160;
export const middle = 64;

/** A rope as wide as its place, with its make on it. */
export function RopeRun({
  w,
  look,
  colour,
  behind,
}: {
  w: number;
  look: Look;
  colour: 1 | 2;
  behind?: boolean;
}) {
  const id = useId();
  const pitch = Math.max(w * 0.62, 4);
  const top = middle - w / 2;
  const mark =
    look === "laid"
      ? `M0 ${w}q${pitch * 0.55} ${-w * 0.25} ${pitch * 0.9} ${-w}`
      : look === "braid"
        ? `M${pitch * 0.2} ${w * 0.14}l${pitch * 0.45} ${w * 0.36}l${-pitch * 0.45} ${w * 0.36}`
        : "";
  return (
    <Box asChild position={behind ? "absolute" : undefined} inset={behind ? "0" : undefined}>
      <svg width="100%" height={height} className="block" aria-hidden="true">
        <defs>
          <pattern id={id} width={pitch} height={w} y={top} patternUnits="userSpaceOnUse">
            <path
              d={mark}
              fill="none"
              stroke={`var(--rope-${colour}-edge)`}
              strokeOpacity=".5"
              strokeWidth={Math.max(w * 0.07, 0.8)}
            />
          </pattern>
        </defs>
        <rect x="0" y={top} width="100%" height={w} fill={`var(--rope-${colour}-edge)`} />
        <rect
          x="0"
          y={top + Math.min(1.2, w * 0.15)}
          width="100%"
          height={Math.max(w - 2.4, w * 0.7)}
          fill={`var(--rope-${colour})`}
        />
        <rect
          x="0"
          y={top + w * 0.24}
          width="100%"
          height={w * 0.16}
          fill={`var(--rope-${colour}-light)`}
          fillOpacity={look === "mono" ? 0.9 : 0.5}
        />
        <rect x="0" y={top} width="100%" height={w} fill={`url(#${id})`} />
      </svg>
    </Box>
  );
}

/** The load: an arrow with a grip at the end of the line. */
export function Pull({ scene }: { scene: Band }) {
  const w = scene.lastWidth;
  return (
    <svg
      width="104"
      height={height}
      className="block pull"
      role="img"
      aria-label="the load pulls this way"
      style={{ flex: "none" }}
    >
      <rect
        x="0"
        y={middle - w / 2}
        width="36"
        height={w}
        fill="var(--rope-1)"
        stroke="var(--rope-1-edge)"
        strokeWidth="1.2"
      />
      <path
        d={`M16 ${middle - 18}q8 9 0 18t0 18M24 ${middle - 18}q8 9 0 18t0 18`}
        fill="none"
        stroke="var(--paper)"
        strokeWidth="5"
      />
      <path
        d={`M14 ${middle - 18}q8 9 0 18t0 18M26 ${middle - 18}q8 9 0 18t0 18`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      <path
        d={`M36 ${middle - 8}h32v-12l30 20-30 20v-12h-32z`}
        fill="var(--flare)"
        stroke="var(--sheet)"
        strokeWidth="2"
      />
      <path
        d={`M43 ${middle - 4}v8M49 ${middle - 4}v8M55 ${middle - 4}v8`}
        stroke="var(--sheet)"
        strokeWidth="2"
      />
    </svg>
  );
}

/** The edge of the picture is graduated: its scale. */
export function Scale({ scene }: { scene: Band }) {
  const step = scene.scaleMM * scene.px;
  return (
    <Box
      position="absolute"
      right="16px"
      bottom="2px"
      pointerEvents="none"
      display={{ base: "none", md: "block" }}
    >
      <svg width={4 * step + 44} height="30" role="img" aria-label={`Scale: ${length(4 * scene.scaleMM)}`}>
        {[0, 1, 2, 3].map((k) => (
          <rect
            key={k}
            x={4 + k * step}
            y="20"
            width={step}
            height="6"
            fill={k % 2 ? "var(--sheet)" : "var(--ink)"}
            stroke="var(--ink)"
          />
        ))}
        <text x="4" y="15" textAnchor="middle" fontSize="14" fill="var(--quiet)">
          0
        </text>
        <text x={4 + 4 * step} y="15" textAnchor="middle" fontSize="14" fill="var(--quiet)">
          {length(4 * scene.scaleMM)}
        </text>
      </svg>
    </Box>
  );
}
