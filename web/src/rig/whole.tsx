import { Box, Flex, Heading } from "@chakra-ui/react";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { Press } from "../ui/button";
import { Evidence } from "../ui/evidence";
import { force, range } from "../ui/format";
import { Sheet } from "../ui/sheet";

type Whole = Schemas["RigAnswer"];

/** The whole rig in one line: what it bears and what gives first; letting go and what to cut in a sheet. */
export function WholeRig({ whole, fishing }: { whole: Whole; fishing: boolean }) {
  const [open, setOpen] = useState(false);
  const short = whole.lines.find((l) => l.utilisation > 1);
  const enough = whole.margin >= 1 && !short;
  const word = enough
    ? "✓ enough"
    : whole.margin < 1
      ? `▲ thin: at its worst less than twice the load, ${force(2 * whole.rig.peak_kn, fishing)}`
      : `▲ short: the new ${short?.name} bears less than ${force(whole.needed_kn, fishing)}`;
  return (
    <Flex
      borderTop="1px solid"
      borderColor="rule"
      mt="1"
      pt="1"
      gap="2"
      wrap="wrap"
      align="center"
      fontSize="16px"
      data-testid="whole"
    >
      <strong>Whole rig</strong>
      {whole.capacity_kn && (
        <span>
          bears {range(whole.capacity_kn, (v) => force(v, fishing))}
          <Evidence tag={whole.capacity_kn.tag} source={whole.capacity_kn.source} />
        </span>
      )}
      {whole.rig.consequence === "person" ? (
        <strong>Approve it yourself, under your own rules.</strong>
      ) : (
        <Box as="span" fontWeight="700" color={enough ? "glass" : "amber"}>
          {word}
        </Box>
      )}
      {whole.weakest && (
        <Box as="span" data-testid="weakest" flex="1" minW="220px" display={{ base: "none", md: "inline" }}>
          {whole.weakest.says}
        </Box>
      )}
      <Press look="bare" small aria-expanded={open} onClick={() => setOpen(true)}>
        Letting go · To cut
      </Press>
      <Sheet open={open} close={() => setOpen(false)} title="The whole rig">
        {whole.weakest && <Box>{whole.weakest.says}</Box>}
        {whole.chance && <Outcome chance={whole.chance} fishing={fishing} />}
        <Heading as="h3" fontSize="lg" mt="3">
          Letting go
        </Heading>
        <Box as="ol" ps="5" listStyleType="decimal">
          {whole.cast_off.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </Box>
        <Heading as="h3" fontSize="lg" mt="3">
          To cut
        </Heading>
        {whole.cut.map((x) => (
          <Box key={x.at} mb="1">
            {x.says}
          </Box>
        ))}
        <Evidence
          tag="computed"
          source="line in the knots (drawn up in space where that is worked out, else our estimates), round the objects, and the shortest tails (common practice, no source)"
        />
      </Sheet>
    </Flex>
  );
}

/** In how many of a hundred such rigs it holds, slips or breaks: a bar and the words. */
export function Outcome({ chance, fishing }: { chance: Schemas["Chance"]; fishing: boolean }) {
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
      <Box fontSize="md">
        At this load it {words.join(", ")}
        {chance.by_class ? ", held by judgement, not worked out" : ""}. Where the knots hold, nine in ten bear{" "}
        {force(chance.p5_kn, fishing)} to {force(chance.p95_kn, fishing)}.{" "}
        <Evidence
          tag="computed"
          source="ten thousand draws from the intervals of strength, knot and friction, always with the same numbers"
        />
      </Box>
    </Box>
  );
}
