/** A rope between two places, with its make on it. */
export function Rope({
  x0,
  x1,
  y,
  w,
  look,
  colour,
}: {
  x0: number;
  x1: number;
  y: number;
  w: number;
  look: "laid" | "braid" | "mono";
  colour: 1 | 2;
}) {
  const marks: string[] = [];
  const pitch = Math.max(w * 0.62, 4);
  for (let x = x0 + pitch; x < x1 - pitch; x += pitch) {
    if (look === "laid")
      marks.push(`M${x} ${y + w * 0.4}q${pitch * 0.55} ${-w * 0.25} ${pitch * 0.8} ${-w * 0.8}`);
    else if (look === "braid")
      marks.push(`M${x} ${y - w * 0.36}l${pitch * 0.45} ${w * 0.36}l${-pitch * 0.45} ${w * 0.36}`);
  }
  return (
    <g>
      <path d={`M${x0} ${y}H${x1}`} stroke={`var(--rope-${colour}-edge)`} strokeWidth={w} />
      <path
        d={`M${x0} ${y}H${x1}`}
        stroke={`var(--rope-${colour})`}
        strokeWidth={Math.max(w - 2.4, w * 0.7)}
      />
      <path
        d={marks.join("")}
        fill="none"
        stroke={`var(--rope-${colour}-edge)`}
        strokeOpacity=".5"
        strokeWidth={Math.max(w * 0.07, 0.8)}
      />
      <path
        d={`M${x0} ${y - w * 0.2}H${x1}`}
        stroke={`var(--rope-${colour}-light)`}
        strokeOpacity={look === "mono" ? 0.9 : 0.5}
        strokeWidth={w * 0.18}
      />
    </g>
  );
}
