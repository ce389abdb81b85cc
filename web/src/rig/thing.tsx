import { Rope } from "./rope";
import { type DrawnAs, ringRadius, type Scene } from "./scene";

const style = { fill: "var(--object)", stroke: "var(--object-edge)", strokeWidth: 1.5 };

/** What the line is tied to, at the scale of the line. */
export function Thing({ as, scene }: { as: DrawnAs; scene: Scene }) {
  switch (as) {
    case "post":
    case "bollard":
    case "rail":
      return <Bar as={as} scene={scene} />;
    case "ring":
      return <Ring scene={scene} />;
    case "clew":
      return <Clew scene={scene} />;
    case "cleat":
      return <Cleat scene={scene} />;
    case "gap":
      return <Gap scene={scene} />;
    case "eye":
      return <Eye scene={scene} />;
    case "hook":
      return <Hook scene={scene} />;
    case "unseen":
      return null;
  }
  return <Rope x0={-6} x1={scene.joint.x} y={scene.y} w={scene.size} look="laid" colour={2} />;
}

function Bar({ as, scene }: { as: "post" | "bollard" | "rail"; scene: Scene }) {
  const { at, y, size, height } = scene;
  const left = at - Math.min(size, 120) / 2;
  const top = as === "bollard" ? y - 46 : -4;
  const foot = as === "rail" ? height + 8 : height + 4;
  return (
    <g>
      <rect
        x={left + Math.min(size, 120) - size}
        y={top}
        width={size}
        height={foot - top}
        rx={as === "bollard" ? 10 : 0}
        {...style}
      />
      <path
        d={`M${left + Math.min(size, 120) * 0.3} ${top + 6}V${foot - 4}`}
        stroke="var(--object-light)"
        strokeOpacity=".8"
        strokeWidth={Math.min(size, 120) * 0.14}
      />
      {as === "bollard" && (
        <rect x={left - 8} y={y - 58} width={Math.min(size, 120) + 16} height="18" rx="8" {...style} />
      )}
    </g>
  );
}

function Ring({ scene }: { scene: Scene }) {
  const { at, y, size, height } = scene;
  const r = ringRadius(size);
  return (
    <g fill="none">
      <rect
        x="-4"
        y="-4"
        width={at - r * 0.75}
        height={height + 8}
        fill="var(--object-light)"
        stroke="var(--object-edge)"
      />
      <circle cx={at} cy={y} r={r} stroke="var(--object-edge)" strokeWidth={size + 3} />
      <circle cx={at} cy={y} r={r} stroke="var(--object)" strokeWidth={size} />
      <circle
        cx={at}
        cy={y}
        r={r - size * 0.16}
        stroke="var(--object-light)"
        strokeOpacity=".8"
        strokeWidth={size * 0.22}
      />
    </g>
  );
}

function Clew({ scene }: { scene: Scene }) {
  const { at, y, size } = scene;
  const r = size * 0.5 + 12;
  return (
    <g>
      <path
        d={`M-10 -10L${at + r + 10} ${y}L-10 ${y + 92}z`}
        fill="var(--sheet)"
        stroke="var(--object-edge)"
        strokeWidth="1.5"
      />
      <path
        d={`M-10 ${y - 18}L${at - 22} ${y - 4}M-10 ${y + 34}L${at - 22} ${y + 8}`}
        stroke="var(--line)"
        strokeDasharray="5 4"
      />
      <circle cx={at} cy={y} r={r} fill="var(--paper)" stroke="var(--object-edge)" strokeWidth={size + 3} />
      <circle cx={at} cy={y} r={r} fill="none" stroke="var(--object)" strokeWidth={size} />
    </g>
  );
}

function Cleat({ scene }: { scene: Scene }) {
  const { at, y, size } = scene;

  return (
    <g {...style}>
      <path d={`M${at - 26} ${y + 58}l10-${58 - size * 0.4}h32l10 ${58 - size * 0.4}z`} />
      <rect x={at - 58} y={y - size / 2} width="116" height={size} rx={size / 2} />
      <rect x="-4" y={y + 58} width={at + 90} height="12" fill="var(--object-light)" />
    </g>
  );
}

function Gap({ scene }: { scene: Scene }) {
  const { at, y, size, height } = scene;

  return (
    <g {...style}>
      <rect x={at - 26} y={-4} width="52" height={y - size / 2 + 4} rx="4" />
      <rect x={at - 26} y={y + size / 2} width="52" height={height - y} rx="4" />
      <circle cx={at} cy={y - size / 2 - 22} r="9" fill="var(--object-light)" />
      <circle cx={at} cy={y + size / 2 + 40} r="9" fill="var(--object-light)" />
    </g>
  );
}

function Eye({ scene }: { scene: Scene }) {
  const { at, y, size } = scene;
  const wire = Math.max(size * 0.34, 4);
  const r = size / 2 + wire / 2;
  const hook = `M${at - r} ${y}H-6M${at - r - 30} ${y}`;
  return (
    <g fill="none">
      {[
        ["var(--object-edge)", wire + 3],
        ["var(--object)", wire],
      ].map(([c, w]) => (
        <g key={c} stroke={c as string} strokeWidth={w}>
          <path d={hook} />
          <circle cx={at} cy={y} r={r} />
        </g>
      ))}
    </g>
  );
}

/** A hook seen from the side, its point up; the rope lies in its bowl. */
function Hook({ scene }: { scene: Scene }) {
  const { at, y, size } = scene;
  const w = Math.max(Math.min(size, 34), 10);
  const bowl = `M-6 ${y}H${at - w * 1.6}C${at + w * 0.9} ${y} ${at + w * 0.9} ${y + w * 2.6} ${at - w * 0.7} ${y + w * 2.2}`;
  return (
    <g fill="none" strokeLinecap="round">
      <path d={bowl} stroke="var(--object-edge)" strokeWidth={w + 3} />
      <path d={bowl} stroke="var(--object)" strokeWidth={w} />
    </g>
  );
}
