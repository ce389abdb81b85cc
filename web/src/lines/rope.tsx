import { useId } from "react";

/** Colours of rope, its body and what lies in its shade. They are the rope's own, by day and by night. */
const dyes: Record<string, [string, string]> = {
  white: ["#f4f1e6", "#8d8a7c"],
  natural: ["#c9a56a", "#6b4f24"],
  yellow: ["#f0cb45", "#7c6210"],
  orange: ["#e2893c", "#74400f"],
  red: ["#cf5048", "#611c17"],
  green: ["#5d9a68", "#234a2c"],
  blue: ["#5b8fc4", "#1f3f66"],
  black: ["#4a4f52", "#101314"],
  clear: ["#dfe9e6", "#7f9994"],
};

/** How wide a line is drawn, in pixels for each millimetre: thick lines and thin ones stay apart. */
const perMM = 2;
const least = 2.5;
const most = 56;

export const drawnWide = (mm: number) => Math.min(most, Math.max(least, perMM * mm));

/** A piece of line at its own diameter and colour, laid or braided as it is made. */
export function RopePiece(p: {
  mm: number;
  colour?: string;
  made?: string;
  /** Places along it, 0 to 1, where it is worn, with their grade. */
  worn?: { at: number; grade: number }[];
  label?: string;
  /** Length shown, in pixels. */
  w?: number;
}) {
  const id = useId();
  const [body, edge] = dyes[p.colour ?? "natural"] ?? (dyes.natural as [string, string]);
  const wide = drawnWide(p.mm);
  const w = p.w ?? 320;
  const h = most + 8;
  const y = (h - wide) / 2;
  const pitch = Math.max(5, wide * (p.made === "twelve" ? 1.3 : 0.8));
  const braided = p.made !== "laid" && p.made !== "solid";
  return (
    <svg
      viewBox={`0 0 ${w} ${h}`}
      width="100%"
      role={p.label ? "img" : undefined}
      aria-label={p.label}
      aria-hidden={p.label ? undefined : true}
    >
      <defs>
        <pattern id={`${id}p`} width={pitch} height={wide} y={y} patternUnits="userSpaceOnUse">
          <rect width={pitch} height={wide} fill={body} />
          {p.made === "laid" && (
            <path
              d={`M${-pitch} ${wide}L${pitch} 0M0 ${wide}L${2 * pitch} 0`}
              stroke={edge}
              strokeWidth={Math.max(0.8, wide / 14)}
            />
          )}
          {braided && wide > 5 && (
            <path
              d={`M0 0L${pitch / 2} ${wide / 2}L${pitch} 0M0 ${wide}L${pitch / 2} ${wide / 2}L${pitch} ${wide}M0 ${wide / 2}L${pitch / 2} ${wide}M${pitch / 2} 0L${pitch} ${wide / 2}`}
              fill="none"
              stroke={edge}
              strokeWidth={Math.max(0.6, wide / 22)}
              opacity="0.7"
            />
          )}
        </pattern>
        <linearGradient id={`${id}s`} x1="0" x2="0" y1="0" y2="1">
          <stop offset="0" stopColor="#fff" stopOpacity="0.35" />
          <stop offset="0.45" stopColor="#fff" stopOpacity="0" />
          <stop offset="1" stopColor="#000" stopOpacity="0.35" />
        </linearGradient>
      </defs>
      <rect x="1" y={y} width={w - 2} height={wide} rx={wide / 2.4} fill={`url(#${id}p)`} />
      <rect x="1" y={y} width={w - 2} height={wide} rx={wide / 2.4} fill={`url(#${id}s)`} stroke={edge} />
      {p.worn?.map((x) => {
        const at = 6 + (w - 12) * Math.min(1, Math.max(0, x.at));
        return (
          <g
            key={`${x.at} ${x.grade}`}
            stroke={x.grade > 1 ? "var(--flare)" : "var(--amber)"}
            strokeWidth="2.4"
            strokeLinecap="round"
          >
            <path d={`M${at} ${y - 2}v-7M${at - 5} ${y - 1}l-4 -6M${at + 5} ${y - 1}l4 -6`} />
          </g>
        );
      })}
    </svg>
  );
}
