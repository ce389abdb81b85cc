import { Box } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import type { Answer, Catalogue, Choice, Rig } from "../api/client";
import { Drawing, lookOf } from "../ui/drawing";
import { capital, force, length } from "../ui/format";
import * as doc from "./document";
import { Editor } from "./editor";
import type { Phrase } from "./phrases";

type Props = {
  rig: Rig;
  answer: Answer;
  selected: Choice | undefined;
  phrases: Record<string, Phrase>;
  catalogue: Catalogue;
  change: (rig: Rig) => void;
  /** This joint is where the whole rig gives way first. */
  weakest: boolean;
};

/** The rope to scale from the fitting to the load, the knot under a glass, and paper tags that can be pressed. */
export function LineDrawing({ rig, answer, selected, phrases, catalogue, change, weakest }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame);
  const phone = width < 700;
  const fishing = doc.isFishing(rig, catalogue);
  const fitting = doc.fittingOf(rig);
  const scene = layOut(answer, width, phone);
  const look = lookOf(doc.lineOf(rig).construction);
  const at = selected && force(selected.strength.capacity_kn.likely, fishing);
  const limit = !selected
    ? "Nothing in the list does this."
    : weakest
      ? `Weakest link: ${selected.strength.fails} here first, at ${at}`
      : `${selected.strength.fails} at ${at}`;

  const tags: { id: string; left: number; top: number; title: string[]; rest: string[]; note?: string }[] = [
    fitting
      ? {
          id: "end",
          left: 16,
          top: scene.below,
          title: ["fitting_kind"],
          rest: ["fitting_size", "fitting_surface"],
        }
      : {
          id: "end",
          left: 16,
          top: scene.below,
          title: ["other_size", "other_kind"],
          rest: [],
          note: `bears ${force(answer.other?.capacity_kn.likely ?? 0, fishing)}`,
        },
    {
      id: "line",
      left: Math.max(scene.glass.x + scene.glass.r + 256, width * 0.52),
      top: scene.y + 44,
      title: ["line_size", "line_kind"],
      rest: ["wear", "label"],
      note: `bears ${force(answer.line.capacity_kn.likely, fishing)} ${rig.dry ? "dry" : "wet"} · ${answer.line.mbl_kn.tag}`,
    },
    { id: "load", left: width - 218, top: scene.y + 44, title: ["load"], rest: ["character", "consequence"] },
  ];
  const shown = tags.map((t) => <Tag key={t.id} {...t} phrases={phrases} change={change} />);
  const joint = (
    <Box fontSize="15px" mt="1" lineHeight="1.6">
      {["wet", "release", "tail"].map((id, i) => (
        <span key={id}>
          {i > 0 && " · "}
          {id === "release" && "off "}
          <Part phrase={phrases[id]} change={change} />
        </span>
      ))}
    </Box>
  );

  return (
    <Box ref={frame} position="relative" overflow="hidden" data-testid="line">
      <svg
        width="100%"
        height={scene.height}
        viewBox={`0 0 ${width} ${scene.height}`}
        role="img"
        aria-label={`The line to scale: ${answer.line.name}`}
      >
        <Thing kind={fitting?.kind ?? "line"} scene={scene} />
        <Rope {...scene.rope} look={look} colour={1} />
        {selected && (
          <>
            {weakest && <Fray x={scene.joint.x + scene.joint.r} y={scene.y} w={scene.rope.w} />}
            <Knob scene={scene} />
          </>
        )}
        <path
          d={`M${scene.joint.x} ${scene.y + scene.joint.r}L${scene.glass.x - scene.glass.r * 0.55} ${scene.glass.y - scene.glass.r * 0.8}`}
          stroke="var(--ink)"
          strokeWidth="1.5"
          strokeDasharray="3 3"
        />
        <circle
          cx={scene.glass.x}
          cy={scene.glass.y}
          r={scene.glass.r}
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth="2.5"
        />
        <Pull x={width - 24} y={scene.y} />
        <ScaleBar scene={scene} width={width} />
      </svg>
      {selected && (
        <Box
          position="absolute"
          left={`${scene.glass.x - scene.glass.r * 0.78}px`}
          top={`${scene.glass.y - scene.glass.r * 0.78}px`}
          w={`${scene.glass.r * 1.56}px`}
          h={`${scene.glass.r * 1.56}px`}
        >
          <Drawing
            id={selected.knot}
            name={selected.name}
            drawn={selected.drawn}
            options={{ look }}
            w="100%"
            h="100%"
          />
        </Box>
      )}
      {phone ? (
        <Box px="3">
          <Box fontSize="15px">
            <span className="head" style={{ fontSize: 18 }}>
              {selected?.name ?? "No knot"}
            </span>{" "}
            <Box as="span" color={weakest || !selected ? "flare" : "quiet"} fontWeight="700">
              {limit}
            </Box>
          </Box>
          {/* The tags would only say again what the sentence says just below. */}
          <Box pb="2">{joint}</Box>
        </Box>
      ) : (
        <>
          <Box
            position="absolute"
            left={`${scene.glass.x + scene.glass.r + 14}px`}
            top={`${scene.y + 30}px`}
            maxW="232px"
            lineHeight="1.3"
          >
            <Box className="head" fontSize="19px">
              {selected?.name ?? "No knot"}
            </Box>
            <Box color={weakest || !selected ? "flare" : "quiet"} fontWeight="700" fontSize="14.5px">
              {capital(limit)}
            </Box>
            {joint}
          </Box>
          {shown}
        </>
      )}
    </Box>
  );
}

type Phrases = Record<string, Phrase>;

/** A paper tag on the drawing; every underlined word on it can be changed. */
function Tag(props: {
  id: string;
  title: string[];
  rest: string[];
  note?: string;
  phrases: Phrases;
  change: (rig: Rig) => void;
  left: number;
  top: number;
}) {
  const part = (id: string) => <Part key={id} phrase={props.phrases[id]} change={props.change} />;
  return (
    <div className="tag" data-tag={props.id} style={{ left: props.left, top: props.top }}>
      <b>
        {props.title.map((id, i) => (
          <span key={id}>
            {i > 0 && " "}
            {part(id)}
          </span>
        ))}
      </b>
      {props.rest.map((id, i) => (
        <span key={id}>
          {i > 0 && props.phrases[id] && ", "}
          {part(id)}
        </span>
      ))}
      {props.note && <div>{props.note}</div>}
    </div>
  );
}

/** One underlined word. */
function Part({ phrase, change }: { phrase: Phrase | undefined; change: (rig: Rig) => void }) {
  if (!phrase) return null;
  return <Editor phrase={phrase} change={change} title={`Change: ${phrase.label.toLowerCase()}`} />;
}

type Scene = ReturnType<typeof layOut>;

/** Places everything, in pixels, at one scale for line and fitting. */
function layOut(answer: Answer, width: number, phone: boolean) {
  const d = answer.line.diameter_mm || 1;
  const fitting = answer.rig.chain[0]?.fitting;
  const size = fitting?.size_mm ?? answer.other?.diameter_mm ?? d;
  const solid = fitting?.kind === "post" || fitting?.kind === "bollard" || fitting?.kind === "rail";
  // Pixels per mm: the rope readable, the fitting in the picture.
  const px = Math.max(Math.min((phone ? 16 : 24) / d, (solid ? 110 : phone ? 28 : 40) / size), 5 / d);
  const w = d * px;
  const y = phone ? 72 : 80;
  const at = solid ? 26 + Math.min(size * px, 150) / 2 : 80;
  const reach = {
    ring: ringRadius(size * px),
    clew: size * px + 12,
    "hook-eye": size * px * 0.85,
    hole: 26,
    cleat: 52,
  }[fitting?.kind ?? ""];
  const jointX = solid ? at + Math.min(size * px, 150) / 2 : fitting ? at + (reach ?? 0) : phone ? 90 : 170;
  const glassR = phone ? 66 : 92;
  return {
    height: phone ? 212 : 268,
    y,
    px,
    at,
    size: size * px,
    below: 188,
    joint: { x: jointX, r: Math.max(w * 0.95, 6) },
    rope: { x0: jointX, x1: width - 26, y, w },
    glass: { x: phone ? Math.min(jointX + 120, width - 84) : jointX + 190, y: phone ? 140 : 160, r: glassR },
  };
}

const ringRadius = (bar: number) => bar * 0.7 + 20;

/** A rope between two places, with its make on it. */
function Rope({
  x0,
  x1,
  y,
  w,
  look,
  colour,
}: Scene["rope"] & { look: "laid" | "braid" | "mono"; colour: 1 | 2 }) {
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

/** The drawn-up knot at its true bulk: turns of the rope, too small to read, which is why there is a glass. */
function Knob({ scene }: { scene: Scene }) {
  const { x, r } = scene.joint;
  const w = scene.rope.w;
  return (
    <g>
      {[-0.9, 0, 0.9].map((k) => (
        <g key={k}>
          <path
            d={`M${x + k * w - w * 0.25} ${scene.y - r}q${w * 0.5} ${r} ${w * 0.5} ${2 * r}`}
            fill="none"
            stroke="var(--rope-1-edge)"
            strokeWidth={w}
            strokeLinecap="round"
          />
          <path
            d={`M${x + k * w - w * 0.25} ${scene.y - r}q${w * 0.5} ${r} ${w * 0.5} ${2 * r}`}
            fill="none"
            stroke="var(--rope-1)"
            strokeWidth={Math.max(w - 2.4, w * 0.7)}
            strokeLinecap="round"
          />
        </g>
      ))}
    </g>
  );
}

/** Broken yarns where the line would go first. */
function Fray({ x, y, w }: { x: number; y: number; w: number }) {
  const yarns = [-0.62, -0.5, -0.38, 0.38, 0.5, 0.62].map((k, i) => {
    const sx = x + w * (0.9 + 0.25 * (i % 3));
    return `M${sx} ${y + k * w * 0.8}q${w * 0.3} ${Math.sign(k) * w * 0.2} ${w * (0.35 + 0.1 * (i % 2))} ${Math.sign(k) * w * (0.45 + 0.15 * (i % 3))}`;
  });
  return (
    <g data-testid="fray">
      <path
        d={yarns.join("")}
        fill="none"
        stroke="var(--flare)"
        strokeWidth="3.6"
        strokeLinecap="round"
        strokeOpacity=".35"
      />
      <path
        d={yarns.join("")}
        fill="none"
        stroke="var(--rope-1-edge)"
        strokeWidth="1.5"
        strokeLinecap="round"
      />
    </g>
  );
}

function Pull({ x, y }: { x: number; y: number }) {
  return (
    <path
      d={`M${x - 46} ${y - 4.5}h24v-10l24 14.500-24 14.500v-10h-24z`}
      fill="var(--flare)"
      stroke="var(--sheet)"
      strokeWidth="2"
    />
  );
}

function ScaleBar({ scene, width }: { scene: Scene; width: number }) {
  const target = 110 / scene.px;
  const unit = 10 ** Math.floor(Math.log10(target));
  const mm = ([5, 2, 1].find((k) => k * unit <= target) ?? 1) * unit;
  const w = mm * scene.px;
  const y = width < 700 ? 30 : scene.height - 12;
  return (
    <g>
      <path d={`M${width - 20 - w} ${y - 6}v6h${w}v-6`} fill="none" stroke="var(--ink)" strokeWidth="1.8" />
      <text x={width - 20 - w / 2} y={y - 7} textAnchor="middle" fontSize="13.5" fill="var(--ink)">
        {length(mm)}
      </text>
    </g>
  );
}

/** What the line is tied to, at the scale of the line. */
function Thing({ kind, scene }: { kind: string; scene: Scene }) {
  const { at, y, size, height } = scene;
  const style = { fill: "var(--object)", stroke: "var(--object-edge)", strokeWidth: 1.5 };
  const gleam = (x: number, w: number, y0: number, y1: number) => (
    <path d={`M${x} ${y0}V${y1}`} stroke="var(--object-light)" strokeOpacity=".8" strokeWidth={w} />
  );
  if (kind === "post" || kind === "bollard" || kind === "rail") {
    const left = at - Math.min(size, 150) / 2;
    const top = kind === "bollard" ? y - 46 : -4;
    const foot = kind === "rail" ? height + 8 : 178;
    return (
      <g>
        <rect
          x={left + Math.min(size, 150) - size}
          y={top}
          width={size}
          height={foot - top}
          rx={kind === "bollard" ? 10 : 0}
          {...style}
        />
        {gleam(left + Math.min(size, 150) * 0.3, Math.min(size, 150) * 0.14, top + 6, foot - 4)}
        {kind === "bollard" && (
          <rect x={left - 8} y={y - 58} width={Math.min(size, 150) + 16} height="18" rx="8" {...style} />
        )}
      </g>
    );
  }
  if (kind === "ring") {
    const r = ringRadius(size);
    return (
      <g fill="none">
        <rect
          x="-4"
          y="-4"
          width={at - r * 0.75}
          height="186"
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
  if (kind === "clew") {
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
  if (kind === "cleat") {
    return (
      <g {...style}>
        <path d={`M${at - 26} ${y + 58}l10-${58 - size * 0.4}h32l10 ${58 - size * 0.4}z`} />
        <rect x={at - 58} y={y - size / 2} width="116" height={size} rx={size / 2} />
        <rect x="-4" y={y + 58} width={at + 90} height="12" fill="var(--object-light)" />
      </g>
    );
  }
  if (kind === "hole") {
    return (
      <g {...style}>
        <rect x={at - 26} y={-4} width="52" height={y - size / 2 + 4} rx="4" />
        <rect x={at - 26} y={y + size / 2} width="52" height={174 - y} rx="4" />
        <circle cx={at} cy={y - size / 2 - 22} r="9" fill="var(--object-light)" />
        <circle cx={at} cy={y + size / 2 + 40} r="9" fill="var(--object-light)" />
      </g>
    );
  }
  if (kind === "hook-eye") {
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
  return <Rope x0={-6} x1={scene.joint.x} y={y} w={size} look="laid" colour={2} />;
}

function useWidth(ref: React.RefObject<HTMLDivElement | null>): number {
  const [width, setWidth] = useState(() => Math.min(window.innerWidth, 1280));
  useEffect(() => {
    const el = ref.current;
    if (!el) return;
    const watch = new ResizeObserver(() => setWidth(el.clientWidth));
    watch.observe(el);
    return () => watch.disconnect();
  }, [ref]);
  return width;
}
