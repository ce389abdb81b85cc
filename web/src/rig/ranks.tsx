import { Box, chakra, Flex, Grid } from "@chakra-ui/react";
import { memo, useState } from "react";
import { Link } from "react-router";
import type { Answer, Choice } from "../api/client";
import { Press } from "../ui/button";
import { Drawing, DrawnUp, type Look } from "../ui/drawing";
import { Sign } from "../ui/evidence";
import { times } from "../ui/format";
import { Sheet } from "../ui/sheet";
import { State } from "../ui/verdict";

import type { DrawnAs } from "./scene";

type Props = {
  answer: Answer;
  look: Look;
  selected: Choice | undefined;
  /** What it is tied to is drawn as. */
  drawnOn?: DrawnAs;
  select: (knot: string) => void;
};

/** Ranks shown before the rest is asked for. */
const first = 7;

/** The knots that will do, best first: a row each, their bars on one scale. Drawn anew only when the answer is. */
export const Ranks = memo(function Ranks({ answer, look, selected, select, drawnOn }: Props) {
  const [all, setAll] = useState(false);
  const list = all ? answer.ranked : answer.ranked.slice(0, first);
  const scale = scaleOf(answer);
  const more = answer.ranked.length - list.length;
  return (
    <Box position="relative">
      <Grid
        templateColumns={columns}
        columnGap="2"
        color="quiet"
        fontSize="15px"
        h="30px"
        alignItems="center"
        aria-hidden
      >
        <span />
        <Wide />
        <Flex gap="0">
          <Box w={state}>wet</Box>
          <Box w={state}>dry</Box>
        </Flex>
        <Wide position="relative" h="100%">
          {scale.x(scale.load) < 0.3 ? (
            <Over x={scale.x(2 * scale.load)} start>
              load, twice
            </Over>
          ) : (
            <>
              <Over x={scale.x(scale.load)}>load</Over>
              <Over x={scale.x(2 * scale.load)}>twice</Over>
            </>
          )}
        </Wide>
        <span />
      </Grid>
      <Box as="ol" listStyleType="none" aria-label="Knots that can do it, best first" position="relative">
        {list.map((c, i) => (
          <Row
            key={c.knot}
            choice={c}
            place={i + 1}
            on={selected?.knot === c.knot}
            look={look}
            drawnOn={drawnOn}
            select={select}
            scale={scale}
          />
        ))}
      </Box>
      {more > 0 && (
        <Press look="bare" onClick={() => setAll(true)}>
          {more} more will do
        </Press>
      )}
      <RuledOut list={answer.ruled_out} />
    </Box>
  );
});

const columns = {
  base: "24px minmax(0, 1fr) 52px",
  md: "24px minmax(0, 1fr) 58px",
  lg: "24px 50px minmax(0, 1fr) 118px 62px",
};
const state = { base: "94px", lg: "100px" };

const Wide = chakra("div", { base: { display: { base: "none", lg: "block" } } });

/** A word above its line through all the bars. */
const Over = ({ x, start, children }: { x: number; start?: boolean; children: React.ReactNode }) => (
  <Box
    position="absolute"
    bottom="2px"
    left={start ? "0" : `${100 * x}%`}
    transform={start ? undefined : "translateX(-50%)"}
    whiteSpace="nowrap"
  >
    {children}
  </Box>
);

/** One scale for all the bars: the strongest of them, or at the least twice the load and some room. */
function scaleOf(answer: Answer) {
  const load = answer.rig.peak_kn;
  const most = Math.max(...answer.ranked.slice(0, first).map((c) => c.strength.capacity_kn.high), 2.6 * load);
  const top = Math.min(most, 14 * load);
  return { load, x: (kN: number) => Math.min(1, kN / top) };
}

type Scale = ReturnType<typeof scaleOf>;

const Row = memo(function Row(p: {
  choice: Choice;
  place: number;
  on: boolean;
  look: Look;
  drawnOn?: DrawnAs;
  select: (knot: string) => void;
  scale: Scale;
}) {
  const { choice: c, place, on, look, select, scale } = p;
  const why = c.but[0]?.why ?? c.reason;
  return (
    <Box as="li" data-ranked={c.knot}>
      <RowButton type="button" aria-pressed={on} onClick={() => select(c.knot)} title={why}>
        <Box className="head" fontSize="19px" color="quiet" textAlign="center">
          {place}
        </Box>
        <Wide>
          <Small id={c.knot} name={c.name} drawn={c.drawn} up={c.drawn_up} look={look} on={p.drawnOn} />
        </Wide>
        <Box minW="0">
          <Box fontWeight="700" fontSize="16px" lineHeight="1.2" lineClamp="2">
            {c.name}
            {c.wraps ? `, ${c.wraps} wraps` : ""}
          </Box>
          <Flex fontSize="15px">
            <Box w={state} flex="none">
              <State hold={c.wet} when="wet" />
            </Box>
            <Box w={state} flex="none">
              <State hold={c.dry} when="dry" />
            </Box>
          </Flex>
        </Box>
        <Bar choice={c} scale={scale} />
        <Box className="head" fontSize="21px" textAlign="right" whiteSpace="nowrap">
          {halves(c.strength.times)}
          <Box as="span" fontSize="sm" color="quiet">
            {" "}
            ×
          </Box>
          <Sign tag={c.strength.capacity_kn.tag} />
        </Box>
      </RowButton>
    </Box>
  );
});

/** How it looks drawn up, else how it is tied. */
const Small = memo(function Small(p: {
  id: string;
  name: string;
  drawn: boolean;
  up: boolean;
  look: Look;
  on?: DrawnAs;
}) {
  const { id, name, drawn, look, on } = p;
  const size = { w: "50px", h: "48px", "aria-hidden": true };
  return p.up ? (
    <DrawnUp id={id} look={look} {...size} />
  ) : (
    <Drawing id={id} name={name} drawn={drawn} options={{ look, on }} fontSize="xs" {...size} />
  );
});

/** Halves up to ten, as a person says it. */
export function halves(x: number): string {
  if (x < 0.95 || x >= 9.75) return x < 0.95 ? x.toFixed(1) : times(x);
  const half = Math.round(2 * x);
  return half % 2 ? `${half > 1 ? (half - 1) / 2 : ""}½` : String(half / 2);
}

const RowButton = chakra("button", {
  base: {
    display: "grid",
    gridTemplateColumns: columns,
    columnGap: "2",
    alignItems: "center",
    w: "100%",
    minH: "55px",
    py: "1",
    ps: "0",
    pe: { base: "0", md: "2" },
    textAlign: "left",
    cursor: "pointer",
    borderTop: "1px solid",
    borderColor: "rule",
    _hover: { bg: "amberWash" },
    // The chosen row grows into the panel beside it.
    "&[aria-pressed=true]": {
      bg: "sheet",
      borderRadius: { base: "md", md: "12px 0 0 12px" },
      border: "2px solid",
      borderColor: "ink",
      borderRightWidth: { base: "2px", md: "0" },
      position: "relative",
      zIndex: 2,
      // Its columns stay where those of the other rows are.
      ms: { md: "-8px" },
      ps: { md: "6px" },
      width: { md: "calc(100% + 10px)" },
    },
  },
});

/** What it bears, as a length of rope: pale to the high end; load and twice the load go through it. */
const Bar = memo(function Bar({ choice: c, scale }: { choice: Choice; scale: Scale }) {
  const cap = c.strength.capacity_kn;
  const x = (kN: number) => `${100 * scale.x(kN)}%`;
  return (
    <Box display={{ base: "none", lg: "block" }} h="46px">
      <svg width="100%" height="46" aria-hidden="true">
        <rect x="0" y="17" width={x(cap.high)} height="12" fill="var(--rope-1-light)" />
        <rect
          x="0"
          y="17"
          width={x(cap.likely)}
          height="12"
          fill="var(--rope-1)"
          stroke="var(--rope-1-edge)"
        />
        <line x1={x(cap.likely)} x2={x(cap.likely)} y1="14" y2="32" stroke="var(--ink)" strokeWidth="2.4" />
        <line x1={x(scale.load)} x2={x(scale.load)} y1="0" y2="46" stroke="var(--ink)" strokeWidth="2" />
        <line
          x1={x(2 * scale.load)}
          x2={x(2 * scale.load)}
          y1="0"
          y2="46"
          stroke="var(--ink)"
          strokeWidth="2"
          strokeDasharray="3 3"
        />
      </svg>
    </Box>
  );
});

/** One line for what is ruled out; the reasons in a sheet. */
const RuledOut = memo(function RuledOut({ list }: { list: Answer["ruled_out"] }) {
  const [open, setOpen] = useState(false);
  const near = list.filter((r) => r.near);
  if (list.length === 0) return null;
  const named = near.slice(0, 2);
  return (
    <Box fontSize="15px" color="quiet" py="2" data-testid="ruled-out">
      {named.length > 0 && "Ruled out: "}
      {named.map((r) => (
        <span key={r.knot} data-ruled={r.knot}>
          <strong>{r.name.toLowerCase()}</strong> {brief(r.reasons[0]?.why ?? "")} ·{" "}
        </span>
      ))}
      <Press look="bare" small px="0" onClick={() => setOpen(true)}>
        {list.length - named.length} more {named.length === 0 ? "are made for other work" : ""}
      </Press>
      <Sheet open={open} close={() => setOpen(false)} title="Ruled out here" wide>
        {near.map((r) => (
          <Ruled key={r.knot} ruled={r} />
        ))}
        {near.length < list.length && (
          <Box className="head" fontSize="lg" mt="3">
            Made for other work
          </Box>
        )}
        {list
          .filter((r) => !r.near)
          .map((r) => (
            <Ruled key={r.knot} ruled={r} />
          ))}
      </Sheet>
    </Box>
  );
});

/** The first clause of a reason. */
const brief = (why: string) => {
  const clause = (why.split(/[.:;](?: |$)/)[0] ?? "").trim();
  return clause.charAt(0).toLowerCase() + clause.slice(1);
};

function Ruled({ ruled }: { ruled: Answer["ruled_out"][number] }) {
  return (
    <Flex gap="3" py="1.5" fontSize="md" data-ruled={ruled.knot} align="baseline">
      <Box as="span" color="flare" fontWeight="700" aria-hidden>
        ✕
      </Box>
      <Box>
        <Link to={`/knots/${ruled.knot}`} className="link strong">
          {ruled.name}
        </Link>{" "}
        {ruled.reasons.map((r) => r.why).join(" ")}
      </Box>
    </Flex>
  );
}
