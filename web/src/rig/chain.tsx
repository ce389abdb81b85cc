import { Box, Flex, Grid } from "@chakra-ui/react";
import { memo } from "react";
import type { Catalogue, Rig, Schemas } from "../api/client";
import { Press } from "../ui/button";
import { Drawing, lookOf } from "../ui/drawing";
import { Evidence, Mark } from "../ui/evidence";
import { force, length, range } from "../ui/format";
import * as doc from "./document";

type Whole = Schemas["ChooseRigAnswer"];
type Element = Schemas["RigElement"];

type Props = {
  rig: Rig;
  whole: Whole | undefined;
  catalogue: Catalogue;
  fishing: boolean;
  /** The element that is looked at. */
  at: number;
  look: (at: number) => void;
  change: (rig: Rig) => void;
};

/** The chain from end to end, drawn: touch a part to look at it. */
export const Chain = memo(function Chain({ rig, whole, catalogue, fishing, at, look, change }: Props) {
  const here = rig.chain[at];
  const ends = [rig.chain[0], rig.chain.at(-1)];
  const to = (next: Rig, place = at) => {
    look(Math.min(place, next.chain.length - 1));
    change(next);
  };
  return (
    <Box px={{ base: 3, md: 6 }} py="2" data-testid="chain">
      {rig.chain.length > 3 && (
        <Flex
          as="ol"
          overflowX="auto"
          align="stretch"
          listStyleType="none"
          pb="1"
          aria-label="The rig, from end to end"
        >
          {rig.chain.map((e, i) => (
            <Flex as="li" key={i} flex={e.line ? "1 0 130px" : "0 0 auto"} align="center">
              <Part
                element={e}
                place={i}
                whole={whole}
                catalogue={catalogue}
                fishing={fishing}
                on={i === at}
                look={() => look(i)}
              />
            </Flex>
          ))}
        </Flex>
      )}
      <Flex gap="2" mt="1" wrap="wrap" className="no-print">
        <Press onClick={() => to(doc.addLine(rig, at, fishing ? "leader" : "extend"), at + 2)}>
          Add a line
        </Press>
        {ends.some((e) => e?.line) && <Press onClick={() => to(doc.addFitting(rig))}>Add a fitting</Press>}
        {here?.line && rig.chain[at + 2]?.line && (
          <Press onClick={() => to(doc.move(rig, at, 1), at + 2)}>Move on</Press>
        )}
        {here?.line && rig.chain[at - 2]?.line && (
          <Press onClick={() => to(doc.move(rig, at, -1), at - 2)}>Move back</Press>
        )}
        {rig.chain.length > 3 && (
          <Press onClick={() => to(doc.turnRound(rig), rig.chain.length - 1 - at)}>Turn round</Press>
        )}
        {rig.chain.length > 3 && at % 2 === 0 && (
          <Press onClick={() => to(doc.remove(rig, at), Math.max(0, at - 1))}>
            Remove the {here?.line ? "line" : "fitting"}
          </Press>
        )}
      </Flex>
    </Box>
  );
});

function Part(props: {
  element: Element;
  place: number;
  whole: Whole | undefined;
  catalogue: Catalogue;
  fishing: boolean;
  on: boolean;
  look: () => void;
}) {
  const { element: e, place, whole, catalogue, fishing, on } = props;
  const weakest = whole?.weakest?.at === place;
  const frame = {
    as: "button",
    onClick: props.look,
    "aria-pressed": on,
    "data-piece": place,
    cursor: "pointer",
    borderRadius: "12px",
    border: "2.5px solid",
    borderColor: weakest ? "flare" : on ? "kelp" : "transparent",
    bg: on ? "sheet" : "transparent",
    minH: "122px",
    px: "2",
    py: "1",
    textAlign: "center",
    fontSize: "14.5px",
    lineHeight: "1.25",
  } as const;
  const tag = weakest && (
    <Box color="flare" fontWeight="700" fontSize="14px">
      ✂ weakest
    </Box>
  );
  if (e.joint) {
    const j = whole?.joints.find((x) => x.at === place);
    const line = whole?.rig.chain[place + 1]?.line ?? whole?.rig.chain[place - 1]?.line;
    return (
      <Box {...frame} w="124px">
        {j?.knot ? (
          <Drawing
            id={j.knot}
            name={j.chosen?.name ?? ""}
            drawn={j.chosen?.drawn ?? false}
            options={{ look: lookOf(line?.construction) }}
            h="52px"
            w="100%"
          />
        ) : (
          <Box h="52px" fontSize="28px" aria-hidden>
            ?
          </Box>
        )}
        <strong>{j?.chosen?.name ?? "no knot does this"}</strong>
        {j?.against.length ? <Box color="flare">✕ ruled out here</Box> : null}
        {tag}
      </Box>
    );
  }
  if (e.line) {
    const l = whole?.lines.find((x) => x.at === place);
    const material = catalogue.materials.find((m) => m.id === e.line?.material);
    const thick = Math.min(18, Math.max(3, 2.2 * Math.sqrt(l?.diameter_mm ?? e.line.diameter_mm ?? 1) * 1.6));
    const size =
      e.line.label_kn && fishing
        ? force(e.line.label_kn, true)
        : length(l?.diameter_mm ?? e.line.diameter_mm ?? 0);
    return (
      <Box {...frame} w="100%" minW="120px">
        <Box>
          {size} {material?.name}
        </Box>
        <svg width="100%" height="28" preserveAspectRatio="none" viewBox="0 0 100 28" aria-hidden="true">
          <line x1="0" x2="100" y1="14" y2="14" stroke="var(--rope-1-edge)" strokeWidth={thick + 2} />
          <line x1="0" x2="100" y1="14" y2="14" stroke="var(--rope-1)" strokeWidth={thick} />
          {weakest && (
            <line
              x1="46"
              x2="54"
              y1="14"
              y2="14"
              stroke="var(--paper)"
              strokeWidth={thick + 3}
              strokeDasharray="1.2 1.4"
            />
          )}
        </svg>
        {l && (
          <Box color="quiet">
            bears {force(l.capacity_kn.likely, fishing)}
            {e.line.length_m ? `, ${e.line.length_m} m` : ""} <Mark tag={l.capacity_kn.tag} />
          </Box>
        )}
        {tag}
      </Box>
    );
  }
  const kind = catalogue.fittings.find((f) => f.id === e.fitting?.kind);
  return (
    <Box {...frame} w="92px">
      <Box
        mx="auto"
        w="40px"
        h="40px"
        borderRadius={kind?.id === "ring" || kind?.id === "hook-eye" || kind?.id === "clip" ? "50%" : "8px"}
        border="8px solid"
        borderColor="var(--object)"
        outline="1.5px solid"
        outlineColor="var(--object-edge)"
        aria-hidden
      />
      <strong>{kind?.name}</strong>
      <Box color="quiet">{length(e.fitting?.size_mm ?? kind?.default_mm ?? 0)}</Box>
    </Box>
  );
}

/** What the whole rig can bear, where it gives way, how to let it go, what to cut. */
export function WholeRig({ whole, fishing }: { whole: Whole; fishing: boolean }) {
  const c = whole.chance;
  const enough = whole.margin >= 1;
  return (
    <Grid
      templateColumns={{ base: "1fr", md: "1.25fr 1fr 1fr" }}
      gap="5"
      px={{ base: 3, md: 6 }}
      py="3"
      borderBottom="1.5px solid"
      borderColor="rule"
      data-testid="whole"
    >
      <Box>
        <Box as="h2" fontSize="19px">
          The whole rig
        </Box>
        {whole.weakest && <Box data-testid="weakest">{whole.weakest.says}</Box>}
        {whole.capacity_kn && (
          <Box mt="1">
            Bears <strong>{range(whole.capacity_kn, (v) => force(v, fishing))}</strong>{" "}
            <Evidence tag={whole.capacity_kn.tag} source={whole.capacity_kn.source} />{" "}
            <Box as="span" fontWeight="700" color={enough ? "glass" : "amber"}>
              {enough ? "✓ enough" : "▲ short of"} {force(whole.needed_kn, fishing)}
            </Box>
          </Box>
        )}
        {c && <Outcome chance={c} fishing={fishing} />}
      </Box>
      <Box>
        <Box as="h2" fontSize="19px">
          Letting go
        </Box>
        <Box as="ol" ps="5" listStyleType="decimal">
          {whole.cast_off.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </Box>
      </Box>
      <Box>
        <Box as="h2" fontSize="19px">
          To cut
        </Box>
        {whole.cut.map((x) => (
          <Box key={x.at} mb="1">
            {x.says}
          </Box>
        ))}
        <Evidence
          tag="computed"
          source="line in the knots (our estimates), round the objects, and the shortest tails (common practice, no source)"
        />
      </Box>
    </Grid>
  );
}

/** In how many of a hundred such rigs it holds, slips or breaks: a bar and the words. */
export function Outcome({ chance, fishing }: { chance: Schemas["ChooseChance"]; fishing: boolean }) {
  const of = (x: number) =>
    x > 0 && x < 0.01 ? "under 1" : x < 1 && x > 0.99 ? "over 99" : String(Math.round(100 * x));
  const words = [
    `holds in ${of(chance.holds)} of 100`,
    chance.slips > 0 && `slips in ${of(chance.slips)}`,
    chance.breaks > 0 && `breaks in ${of(chance.breaks)}`,
  ].filter(Boolean);
  return (
    <Box mt="2" data-testid="outcome">
      <svg width="100%" height="18" viewBox="0 0 100 18" preserveAspectRatio="none" aria-hidden="true">
        <rect x="0" y="2" width="100" height="14" fill="var(--flare-wash)" />
        <rect x="0" y="2" width={100 * chance.holds} height="14" fill="var(--glass)" />
        <rect x={100 * chance.holds} y="2" width={100 * chance.slips} height="14" fill="var(--rope-1)" />
        <rect x="0" y="2" width="100" height="14" fill="none" stroke="var(--ink)" strokeWidth=".6" />
      </svg>
      <Box fontSize="15.5px">
        At this load it {words.join(", ")}
        {chance.by_class ? ", hold by class" : ""}. Nine in ten bear {force(chance.p5_kn, fishing)} to{" "}
        {force(chance.p95_kn, fishing)}.{" "}
        <Evidence
          tag="computed"
          source="ten thousand draws from the intervals of strength, knot and friction, always with the same numbers"
        />
      </Box>
    </Box>
  );
}
