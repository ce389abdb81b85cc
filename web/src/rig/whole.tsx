import { Box, Grid, Heading } from "@chakra-ui/react";
import type { Schemas } from "../api/client";
import { Evidence } from "../ui/evidence";
import { force, range } from "../ui/format";

type Whole = Schemas["RigAnswer"];

/** What the whole rig can bear, where it gives way, how to let it go, what to cut. */
export function WholeRig({ whole, fishing }: { whole: Whole; fishing: boolean }) {
  const c = whole.chance;
  const short = whole.lines.find((l) => l.utilisation > 1);
  const enough = whole.margin >= 1 && !short;
  const word = enough
    ? "✓ enough"
    : whole.margin < 1
      ? `▲ thin: at its worst less than twice the load, ${force(2 * whole.rig.peak_kn, fishing)}`
      : `▲ short: the new ${short?.name} bears less than ${force(whole.needed_kn, fishing)}`;
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
        <Heading as="h2" fontSize="lg">
          The whole rig
        </Heading>
        {whole.weakest && <Box data-testid="weakest">{whole.weakest.says}</Box>}
        {whole.capacity_kn && (
          <Box mt="1">
            Bears <strong>{range(whole.capacity_kn, (v) => force(v, fishing))}</strong>{" "}
            <Evidence tag={whole.capacity_kn.tag} source={whole.capacity_kn.source} />{" "}
            {whole.rig.consequence === "person" ? (
              <Box as="span" fontWeight="700">
                Approve it yourself, under your own rules.
              </Box>
            ) : (
              <Box as="span" fontWeight="700" color={enough ? "glass" : "amber"}>
                {word}
              </Box>
            )}
          </Box>
        )}
        {c && <Outcome chance={c} fishing={fishing} />}
      </Box>
      <Box>
        <Heading as="h2" fontSize="lg">
          Letting go
        </Heading>
        <Box as="ol" ps="5" listStyleType="decimal">
          {whole.cast_off.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </Box>
      </Box>
      <Box>
        <Heading as="h2" fontSize="lg">
          To cut
        </Heading>
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
        {chance.by_class ? ", hold by class" : ""}. Where the knots hold, nine in ten bear{" "}
        {force(chance.p5_kn, fishing)} to {force(chance.p95_kn, fishing)}.{" "}
        <Evidence
          tag="computed"
          source="ten thousand draws from the intervals of strength, knot and friction, always with the same numbers"
        />
      </Box>
    </Box>
  );
}
