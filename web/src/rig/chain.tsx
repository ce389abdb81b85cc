import { Box, chakra, Flex } from "@chakra-ui/react";
import { memo } from "react";
import type { Catalogue, Rig, Schemas } from "../api/client";
import { Press } from "../ui/button";
import { Drawing, lookOf } from "../ui/drawing";
import { Mark } from "../ui/evidence";
import { force, length } from "../ui/format";
import * as doc from "./document";

type Whole = Schemas["RigAnswer"];
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

type PartProps = {
  element: Element;
  place: number;
  whole: Whole | undefined;
  catalogue: Catalogue;
  fishing: boolean;
  on: boolean;
  look: () => void;
};

function Part(props: PartProps) {
  const { element: e, place, whole, on } = props;
  const weakest = whole?.weakest?.at === place;
  return (
    <chakra.button
      type="button"
      onClick={props.look}
      aria-pressed={on}
      data-piece={place}
      cursor="pointer"
      borderRadius="md"
      border="2.5px solid"
      borderColor={weakest ? "flare" : on ? "kelp" : "transparent"}
      bg={on ? "sheet" : "transparent"}
      minH="122px"
      px="2"
      py="1"
      textAlign="center"
      fontSize="sm"
      lineHeight="1.25"
      w={e.joint ? "124px" : e.line ? "100%" : "92px"}
      minW={e.line ? "120px" : undefined}
    >
      {e.joint ? (
        <JointPart {...props} />
      ) : e.line ? (
        <LinePart {...props} line={e.line} weakest={weakest} />
      ) : (
        <FittingPart {...props} />
      )}
      {weakest && (
        <Box color="flare" fontWeight="700">
          ✂ weakest
        </Box>
      )}
    </chakra.button>
  );
}

function JointPart({ place, whole }: PartProps) {
  const j = whole?.joints.find((x) => x.at === place);
  const line = whole?.rig.chain[place + 1]?.line ?? whole?.rig.chain[place - 1]?.line;
  return (
    <>
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
        <Box h="52px" fontSize="2xl" aria-hidden>
          ?
        </Box>
      )}
      <strong>{j?.chosen?.name ?? "no knot does this"}</strong>
      {j?.against.length ? <Box color="flare">✕ ruled out here</Box> : null}
    </>
  );
}

function LinePart(props: PartProps & { line: NonNullable<Element["line"]>; weakest: boolean }) {
  const { line, place, whole, catalogue, fishing, weakest } = props;
  const l = whole?.lines.find((x) => x.at === place);
  const material = catalogue.materials.find((m) => m.id === line.material);
  const d = l?.diameter_mm ?? line.diameter_mm ?? 0;
  const thick = Math.min(18, Math.max(3, 2.2 * Math.sqrt(d || 1) * 1.6));
  return (
    <>
      <Box>
        {line.label_kn && fishing ? force(line.label_kn, true) : length(d)} {material?.name}
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
          {line.length_m ? `, ${line.length_m} m` : ""} <Mark tag={l.capacity_kn.tag} />
        </Box>
      )}
    </>
  );
}

function FittingPart({ element: e, catalogue }: PartProps) {
  const kind = catalogue.fittings.find((f) => f.id === e.fitting?.kind);
  const ring = kind?.drawn_as === "ring" || kind?.drawn_as === "eye";
  return (
    <>
      <Box
        mx="auto"
        w="40px"
        h="40px"
        borderRadius={ring ? "full" : "sm"}
        border="8px solid"
        borderColor="var(--object)"
        outline="1.5px solid"
        outlineColor="var(--object-edge)"
        aria-hidden
      />
      <strong>{kind?.name}</strong>
      <Box color="quiet">{length(e.fitting?.size_mm ?? kind?.default_mm ?? 0)}</Box>
    </>
  );
}
