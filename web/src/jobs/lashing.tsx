/*
 * A square lashing in four pictures, in the look of the knot drawings: the upright spar stands, the level one
 * lies on top of it. Rope in front of both is drawn whole; what goes behind the upright shows beside it.
 */

const rope = "var(--rope-1)";
const edge = "var(--rope-1-edge)";
const moved = "var(--flare)";

function Rope({ d, now = false }: { d: string; now?: boolean }) {
  return (
    <g fill="none" strokeLinecap="round">
      <path d={d} stroke={edge} strokeWidth="7" />
      <path d={d} stroke={now ? moved : rope} strokeWidth="5" />
    </g>
  );
}

/** Behind the upright, in front of nothing: the hitch beneath the crossing. */
const hitchBack = "M44 88C50 84 70 84 76 88M44 97C50 101 70 101 76 97";
const hitchFront = "M44 97C54 96 66 90 76 88";
/** Turns over the level spar on both sides of the upright: outside the last one each time. */
const turns = [0, 1, 2].map((i) => ({
  left: `M${42 - 7 * i} 84C${36 - 7 * i} 74 ${36 - 7 * i} 46 ${42 - 7 * i} 37`,
  right: `M${78 + 7 * i} 84C${84 + 7 * i} 74 ${84 + 7 * i} 46 ${78 + 7 * i} 37`,
}));
/** Between the spars, round the strands of the lashing: seen above and below the level spar, across the upright. */
const frapping = [0, 1].map((i) => `M28 ${43 - 7 * i}H92M28 ${77 + 7 * i}H92`);

const does = [
  "A clove hitch on the upright spar, below the crossing",
  "Turns over the level spar and behind the upright, three times round",
  "Frapping turns between the spars, round the lashing itself",
  "A clove hitch on the level spar ends it",
];

/** Step 1 to 4 of a square lashing. */
export function Lashing({ step }: { step: number }) {
  return (
    <svg
      width="132"
      height="120"
      viewBox="0 0 120 120"
      role="img"
      aria-label={does[step - 1] ?? ""}
      className="block"
    >
      <rect x="47" y="2" width="26" height="116" rx="10" fill="var(--wood, #b99b72)" stroke="var(--line)" />
      <Rope d={hitchBack} now={step === 1} />
      <rect x="47" y="80" width="26" height="24" fill="var(--wood, #b99b72)" />
      <Rope d={hitchFront} now={step === 1} />
      {step >= 2 &&
        turns.map((t) => (
          <Rope key={t.left} d={`M47 34H${t.left.slice(1).split(" ")[0]}`} now={step === 2} />
        ))}
      {step >= 3 && frapping.map((d) => <Rope key={d} d={d} now={step === 3} />)}
      <rect
        x="2"
        y="47"
        width="116"
        height="26"
        rx="10"
        fill="var(--wood-light, #cbb08a)"
        stroke="var(--line)"
      />
      {step === 1 && <Rope d="M76 97C92 100 104 106 112 114" now />}
      {step >= 2 &&
        turns.map((t) => (
          <g key={t.right}>
            <Rope d={t.left} now={step === 2} />
            <Rope d={t.right} now={step === 2} />
          </g>
        ))}
      {step === 4 && (
        <Rope d="M98 80C92 66 94 48 100 40M110 80C104 66 106 48 112 40M98 80C102 66 106 52 112 40" now />
      )}
    </svg>
  );
}
