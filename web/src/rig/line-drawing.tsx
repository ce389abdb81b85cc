import { Box } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import type { Answer, Catalogue, Choice, Rig } from "../api/client";
import { Drawing, lookOf } from "../ui/drawing";
import { capital, force, length } from "../ui/format";
import * as doc from "./document";
import { Editor } from "./editor";
import type { Phrase } from "./phrases";
import { Rope } from "./rope";
import { layOut, type Scene } from "./scene";
import { Thing } from "./thing";

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
  const drawnAs = catalogue.fittings.find((f) => f.id === fitting?.kind)?.drawn_as;
  const scene = layOut(answer, drawnAs, width, phone);
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
          rest: ["fitting_size", "fitting_surface"].filter((id) => phrases[id]),
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
    <Box fontSize="md" mt="1" lineHeight="1.6">
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
        <Thing as={drawnAs} scene={scene} />
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
          <Box fontSize="md">
            <Box as="span" className="head" fontSize="lg">
              {selected?.name ?? "No knot"}
            </Box>{" "}
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
            <Box className="head" fontSize="lg">
              {selected?.name ?? "No knot"}
            </Box>
            <Box color={weakest || !selected ? "flare" : "quiet"} fontWeight="700" fontSize="sm">
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
    <Box className="tag" data-tag={props.id} left={`${props.left}px`} top={`${props.top}px`}>
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
    </Box>
  );
}

/** One underlined word. */
function Part({ phrase, change }: { phrase: Phrase | undefined; change: (rig: Rig) => void }) {
  if (!phrase) return null;
  return <Editor phrase={phrase} change={change} title={`Change: ${phrase.label.toLowerCase()}`} />;
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
