import { Box, chakra, Flex } from "@chakra-ui/react";
import { memo, useEffect, useRef } from "react";
import type { Catalogue, Choice, Rig, Schemas } from "../api/client";
import { Along, type Look, lookOf, Svg, useOnLine } from "../ui/drawing";
import { Mark, Sign } from "../ui/evidence";
import { force, length } from "../ui/format";
import { Acts } from "./band-acts";
import { height, middle, Pull, RopeRun, Scale } from "./band-rope";
import type * as doc from "./document";
import { type Band, bandOf, type End } from "./scene";
import { Thing } from "./thing";

type Whole = Schemas["RigAnswer"];

/** What is drawn of a chosen knot: it stays the same while only the load changes. */
export type Shown = Pick<Choice, "knot" | "name" | "drawn" | "drawn_up" | "kind"> & {
  fails: string;
  capacity: number;
  tag: Choice["strength"]["capacity_kn"]["tag"];
};

export const shownOf = (c: Choice): Shown => ({
  knot: c.knot,
  name: c.name,
  drawn: c.drawn,
  drawn_up: c.drawn_up,
  kind: c.kind,
  fails: c.strength.fails,
  capacity: c.strength.capacity_kn.likely,
  tag: c.strength.capacity_kn.tag,
});

type Props = {
  rig: Rig;
  catalogue: Catalogue;
  /** What the whole chain bears; absent for a single joint. */
  whole: Whole | undefined;
  /** The chosen knot of the joint that is looked at, and what its line bears. */
  selected: Shown | undefined;
  bears: Schemas["LineAnswer"] | undefined;
  other: Schemas["LineAnswer"] | undefined;
  fishing: boolean;
  /** The joint that is looked at. */
  joint: number;
  look: (at: number) => void;
  change: (rig: Rig, at: number) => void;
};

/** The rig from end to end: things and ropes to scale, every joint under a glass, the one looked at under the largest. */
export const LineBand = memo(function LineBand(props: Props) {
  const { rig, catalogue, joint, whole } = props;
  const scene = bandOf(rig, catalogue, whole, props.bears, props.other);
  const single = rig.chain.length === 3;
  const at = (i: number) => ({ ...props, i, scene, single });
  const last = rig.chain.length - 1;
  return (
    <Flex
      as="section"
      aria-label="The line, to scale"
      position="relative"
      h={`${height}px`}
      overflowX="auto"
      overflowY="hidden"
      data-testid="line"
      css={{
        "@media (max-width: 767px)": { height: "134px" },
        "@media (max-height: 500px)": { display: "none" },
      }}
    >
      {rig.chain.map((e, i) =>
        e.joint ? (
          <Joint key={i} {...at(i)} on={i === joint} />
        ) : e.line ? (
          <Run key={i} {...at(i)} line={e.line} />
        ) : (
          <Fitting key={i} {...at(i)} end={scene.ends[i]} right={i === last && i > 0} />
        ),
      )}
      {rig.chain[last]?.line && <Pull scene={scene} />}
      <Scale scene={scene} />
    </Flex>
  );
});

type Piece = Props & { i: number; scene: Band; single: boolean };

function Fitting({
  scene,
  end,
  right,
  i,
  rig,
  change,
  single,
}: Piece & { end: End | undefined; right: boolean }) {
  if (!end) return null;
  return (
    <Box position="relative" flex="none" w={`${end.width}px`} data-piece={i}>
      <svg width={end.width} height={height} className="block" role="img" aria-label={end.name}>
        <g transform={right ? `translate(${end.width} 0) scale(-1 1)` : undefined}>
          <Thing as={end.as} scene={{ ...end, y: middle, height, joint: { x: end.width }, rope: end.rope }} />
          <rect
            x={end.meets}
            y={middle - scene.width(i) / 2}
            width={end.width}
            height={scene.width(i)}
            fill="var(--rope-1)"
          />
          <path
            d={`M${end.meets} ${middle - scene.width(i) / 2}H${end.width}M${end.meets} ${middle + scene.width(i) / 2}H${end.width}`}
            stroke="var(--rope-1-edge)"
            strokeWidth="1.3"
          />
        </g>
      </svg>
      {!single && (
        <Acts
          at={i}
          rig={rig}
          change={change}
          fishing={false}
          left="8px"
          top="0px"
          named={`What to do with the ${end.name}`}
        />
      )}
    </Box>
  );
}

/** A length of rope, with what it bears on a tag and a place where the chain grows. */
function Run(props: Piece & { line: doc.LineDoc }) {
  const { i, scene, line, rig, fishing, change, whole, single, bears, other, catalogue, joint, look } = props;
  const of = whole?.lines.find((x) => x.at === i) ?? (single ? (i === 2 ? bears : other) : undefined);
  const w = scene.width(i);
  const colour = scene.colour(i);
  const kind = catalogue.materials.find((m) => m.id === line.material);
  const name =
    line.label_kn && kind?.fishing
      ? force(line.label_kn, true)
      : length(of?.diameter_mm ?? line.diameter_mm ?? 0);
  const beside = joint === i + 1 ? joint : joint === i - 1 ? joint : undefined;
  return (
    <Box
      position="relative"
      flex="1 0 auto"
      minW={{ base: single ? "60px" : "120px", md: "130px" }}
      data-piece={i}
    >
      <RopeRun w={w} look={lookOf(line.construction)} colour={colour} />
      <Acts
        at={i}
        rig={rig}
        change={change}
        fishing={fishing}
        left="50%"
        top={`${middle - 22}px`}
        named="Add to or change the chain here"
        plus
      />
      {of && (
        <Tag top="8px" left="50%" mid wide={single} alarm={whole?.weakest?.at === i}>
          {!single && (
            <>
              <TagButton type="button" onClick={() => look(beside ?? (i > 0 ? i - 1 : i + 1))}>
                {name} {kind?.name}
              </TagButton>
              <span aria-hidden>·</span>
            </>
          )}
          {whole?.weakest?.at === i ? "gives first, " : "bears "}
          {force(Number(of.capacity_kn.likely.toPrecision(2)), fishing)} <Mark tag={of.capacity_kn.tag} />
        </Tag>
      )}
    </Box>
  );
}

function Joint({ i, scene, on, single, whole, selected, rig, look, fishing }: Piece & { on: boolean }) {
  const j = whole?.joints.find((x) => x.at === i);
  const place = useRef<HTMLDivElement>(null);
  // Where the chain is longer than the screen the joint that is looked at is brought into sight.
  useEffect(() => {
    const box = place.current;
    if (on && box?.parentElement)
      box.parentElement.scrollLeft = box.offsetLeft + box.offsetWidth / 2 - box.parentElement.clientWidth / 2;
  }, [on]);
  const chosen = on ? selected : j?.chosen && shownOf(j.chosen);
  const line = rig.chain[i + 1]?.line ?? rig.chain[i - 1]?.line;
  const as = [i - 1, i + 1].map((k) => scene.ends[k]?.as).find(Boolean);
  const gives = single ? chosen !== undefined : whole?.weakest?.at === i;
  const capacity = chosen?.capacity;
  const name = chosen?.name ?? "no knot does this";
  const size = on ? { w: "236px", h: "122px", top: "3px" } : { w: "104px", h: "72px", top: "28px" };
  const phone = on ? { w: "132px", h: "100px", top: "4px" } : { w: "84px", h: "60px", top: "30px" };
  const atRight = scene.ends[i + 1] !== undefined && i + 2 === rig.chain.length;
  const glass = (
    <>
      {chosen ? (
        <Along
          id={chosen.knot}
          name={chosen.name}
          drawn={chosen.drawn}
          options={{ look: lookOf(line?.construction), on: as }}
          loop={chosen.kind === "loop"}
        />
      ) : (
        <Box fontSize="2xl" aria-hidden>
          ?
        </Box>
      )}
    </>
  );
  const small = chosen?.drawn_up && (
    <Small
      knot={chosen.knot}
      look={lookOf(line?.construction)}
      w={scene.width(i)}
      meets={Boolean(as)}
      atRight={atRight}
    />
  );
  return (
    <>
      {!atRight && small}
      <Box
        position="relative"
        flex="none"
        w={{ base: phone.w, md: size.w }}
        mx="-1px"
        data-piece={i}
        ref={place}
      >
        <RopeRun w={scene.width(i)} look={lookOf(line?.construction)} colour={1} behind />
        <Glass
          as={single ? "div" : "button"}
          {...(single
            ? {}
            : { type: "button", "aria-pressed": on, "aria-label": name, onClick: () => look(i) })}
          data-piece={i}
          borderColor={on ? "glass" : "quiet"}
          top={{ base: phone.top, md: size.top }}
          h={{ base: phone.h, md: size.h }}
          px={on ? "5" : "2"}
          py={on ? "2" : "1"}
        >
          {glass}
        </Glass>
        {chosen && (gives || !single) && (
          <Tag top={on ? { base: "106px", md: "126px" } : "104px"} left="50%" mid alarm={gives}>
            {[
              !single && chosen.name,
              gives &&
                capacity !== undefined &&
                `${chosen.fails} ${single ? "here" : "here first"}, ${force(Number(capacity.toPrecision(2)), fishing)}`,
            ]
              .filter(Boolean)
              .join(": ")}
            {gives && capacity !== undefined && <Sign tag={chosen.tag} />}
          </Tag>
        )}
        {!chosen && (
          <Tag top="126px" left="50%" mid alarm>
            Nothing in the list does this
          </Tag>
        )}
        {j && j.against.length > 0 && (
          <Tag top="104px" left="50%" mid alarm>
            ruled out here
          </Tag>
        )}
      </Box>
      {atRight && small}
    </>
  );
}

/** The knot itself on the line, at the line's own width; on a phone the glass alone has room. */
function Small(p: { knot: string; look: Look; w: number; meets: boolean; atRight: boolean }) {
  const figure = useOnLine(p.knot, p.w, p.look);
  if (!figure) return null;
  const over = p.meets ? "-30px" : "-1px";
  return (
    <Box
      position="relative"
      flex="none"
      display={{ base: "none", md: "block" }}
      w={`${figure.w}px`}
      h={`${height}px`}
      zIndex={1}
      {...(p.atRight
        ? { me: over, transform: "rotate(180deg)", transformOrigin: `50% ${middle}px` }
        : { ms: over })}
      aria-hidden
      data-small={p.knot}
    >
      <Svg
        text={figure.text}
        position="absolute"
        left="0"
        top={`${middle - figure.h / 2}px`}
        w="100%"
        h={`${figure.h}px`}
      />
    </Box>
  );
}

const Glass = chakra("div", {
  base: {
    position: "absolute",
    left: "0",
    width: "100%",
    display: "flex",
    alignItems: "center",
    justifyContent: "center",
    bg: "sheet",
    border: "2.5px solid",
    borderRadius: "full",
    overflow: "hidden",
    "&[type=button]": { cursor: "pointer" },
  },
});

const Slip = chakra("div", {
  base: {
    position: "absolute",
    display: "flex",
    alignItems: "center",
    gap: "1",
    px: "2.5",
    py: "0.5",
    bg: "sheet",
    border: "1.5px solid",
    borderRadius: "4px 10px 10px 4px",
    fontSize: "sm",
    fontWeight: 700,
    whiteSpace: "nowrap",
    zIndex: 1,
  },
});

function Tag(p: {
  top: string | { base: string; md: string };
  left: string;
  wide?: boolean;
  mid?: boolean;
  alarm?: boolean;
  children: React.ReactNode;
}) {
  return (
    <Slip
      top={p.top}
      left={p.left}
      display={p.wide ? { base: "none", md: "flex" } : "flex"}
      transform={p.mid ? "translateX(-50%)" : undefined}
      borderColor={p.alarm ? "flare" : "quiet"}
      color={p.alarm ? "flare" : "ink"}
      data-tag={p.alarm ? "gives" : "bears"}
    >
      {p.children}
    </Slip>
  );
}

const TagButton = chakra("button", {
  base: { cursor: "pointer", textDecoration: "underline", textUnderlineOffset: "3px" },
});
