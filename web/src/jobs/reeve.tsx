const steel = "var(--object, #a9b3ad)";
const twine = "var(--rope-2, #4f9d94)";

const does = [
  "The rope's tip lies between the two legs of the wire; twine is whipped over rope and wire, on past the tip over the wire alone, and ends in a half hitch",
  "Both legs of the wire go through the hole of each plate, the whipped line after them",
];

/** Turns of a whipping from x to upto, over something so high. */
const whipping = (x: number, upto: number, high: number) =>
  Array.from({ length: Math.round((upto - x) / 5) }, (_, i) => (
    <path
      key={x + i}
      d={`M${x + 5 * i} ${48 + high}L${x + 5 * i + 4} ${48 - high}`}
      stroke={twine}
      strokeWidth="3.4"
      strokeLinecap="round"
    />
  ));

/** Step 1 or 2 of reeving with a wire: whipped to the line; through the plates. */
export function Reeve({ step }: { step: number }) {
  const at = step === 1 ? 0 : -40;
  return (
    <svg
      width="180"
      height="96"
      viewBox="0 0 180 96"
      role="img"
      aria-label={does[step - 1]}
      className="block"
    >
      {step === 2 && [104, 132].map((x) => <Plate key={x} x={x} />)}
      <g transform={`translate(${at} 0)`} fill="none">
        <path d="M-40 48H78" stroke="var(--rope-1-edge)" strokeWidth="20" />
        <path d="M-40 48H78" stroke="var(--rope-1)" strokeWidth="17" />
        <path d="M78 40L96 48L78 56Z" fill="var(--rope-1)" stroke="var(--rope-1-edge)" strokeWidth="1.5" />
        <path
          d="M22 36H96C112 36 112 44 122 45H214M22 60H96C112 60 112 52 122 51H214"
          stroke={steel}
          strokeWidth="3.5"
          strokeLinecap="round"
        />
        {whipping(40, 96, 14)}
        {whipping(98, 118, 7)}
        <path d="M118 42C126 38 128 58 120 56C114 54 122 40 132 36" stroke={twine} strokeWidth="3" />
      </g>
      {step === 2 && [104, 132].map((x) => <Plate key={x} x={x} front />)}
    </svg>
  );
}

/** A plate on edge, its hole between two halves. */
function Plate({ x, front = false }: { x: number; front?: boolean }) {
  return front ? (
    <path d={`M${x} 4V38M${x} 58V92`} stroke="var(--line)" strokeWidth="9" />
  ) : (
    <path d={`M${x} 4V92`} stroke="var(--rule)" strokeWidth="9" />
  );
}
