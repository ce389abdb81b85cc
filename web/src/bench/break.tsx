/** A broken end as it looks, in a few strokes. */
export function Break({ id }: { id: string }) {
  return (
    <svg viewBox="0 0 200 70" width="100%" height="70" aria-hidden="true" fill="none" strokeLinecap="round">
      {drawn[id] ?? rope("M10 35H190")}
    </svg>
  );
}

const rope = (d: string) => (
  <>
    <path d={d} stroke="var(--rope-1-edge)" strokeWidth="15" />
    <path d={d} stroke="var(--rope-1)" strokeWidth="11" />
  </>
);

const thin = (d: string, w = 2.4, colour = "var(--rope-1-edge)") => (
  <path d={d} stroke={colour} strokeWidth={w} />
);

const turns = (
  <>
    {rope("M10 35H100")}
    {[44, 60, 76].map((x) => (
      <g key={x}>{thin(`M${x} 20q10 15 0 30`, 9, "var(--rope-1)")}</g>
    ))}
    {[44, 60, 76].map((x) => (
      <g key={x}>{thin(`M${x + 5} 20q10 15 0 30`, 1.6)}</g>
    ))}
  </>
);

const drawn: Record<string, React.ReactNode> = {
  curl: (
    <>
      {rope("M10 35H90")}
      {thin(
        "M90 35c30 0 30 -22 14 -22s-14 30 12 30 24 -24 12 -24 -10 28 10 28 20 -20 12 -22 -8 24 12 26",
        6,
        "var(--rope-1)",
      )}
      {thin("M162 51l10 2", 3)}
    </>
  ),
  clean: (
    <>
      {turns}
      {rope("M140 35H190")}
      {thin("M106 26v18M134 26v18", 3)}
    </>
  ),
  below: (
    <>
      {turns}
      {rope("M100 35H124")}
      {rope("M150 35H190")}
      {thin("M130 26v18M144 26v18", 3)}
    </>
  ),
  fuzz: (
    <>
      {rope("M10 35H96")}
      {[-16, -11, -6, -1, 4, 9, 14].map((y, i) => (
        <g key={y}>{thin(`M98 ${35 + y / 2}q20 ${y / 2} ${34 + 9 * (i % 3)} ${y}`, 2.2)}</g>
      ))}
    </>
  ),
  glaze: (
    <>
      {rope("M10 35H190")}
      <rect x="76" y="28" width="52" height="14" rx="6" fill="var(--rope-1-edge)" />
      {thin("M82 32h38", 2.4, "var(--rope-1-light)")}
    </>
  ),
  horn: (
    <>
      <rect
        x="14"
        y="12"
        width="120"
        height="12"
        rx="6"
        fill="var(--object)"
        stroke="var(--object-edge)"
        strokeWidth="2"
      />
      <rect
        x="60"
        y="24"
        width="28"
        height="12"
        fill="var(--object)"
        stroke="var(--object-edge)"
        strokeWidth="2"
      />
      {rope("M40 56c20 -14 30 12 50 0s30 -12 50 0 30 4 50 0")}
    </>
  ),
  loop: (
    <>
      {rope("M70 35c-60 -36 -60 36 0 0")}
      {rope("M70 35q14 -14 24 0q-10 14 -24 0")}
      {rope("M130 35H190")}
      {thin("M104 35h16m-6 -5l6 5l-6 5", 2.4, "var(--ink)")}
    </>
  ),
  flat: (
    <>
      {rope("M10 54H70Q100 54 100 20")}
      <ellipse
        cx="96"
        cy="46"
        rx="11"
        ry="7"
        fill="var(--sheet)"
        stroke="var(--rope-1-edge)"
        strokeWidth="2"
        transform="rotate(-45 96 46)"
      />
      {rope("M100 20V8")}
    </>
  ),
  core: (
    <>
      {rope("M10 35H70")}
      {thin("M70 35H130", 5, "var(--rope-1)")}
      {thin("M70 29H130M70 41H130", 1.6)}
      {rope("M130 35H190")}
      <ellipse
        cx="146"
        cy="35"
        rx="20"
        ry="15"
        fill="var(--rope-1)"
        stroke="var(--rope-1-edge)"
        strokeWidth="2"
      />
    </>
  ),
  grip: (
    <>
      <rect
        x="120"
        y="12"
        width="64"
        height="46"
        rx="4"
        fill="var(--object)"
        stroke="var(--object-edge)"
        strokeWidth="2"
      />
      {rope("M10 35H92")}
      {rope("M124 35H160")}
      {thin("M98 26v18M118 26v18", 3)}
    </>
  ),
};
