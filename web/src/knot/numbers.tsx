import { Box, Flex } from "@chakra-ui/react";
import type { KnotPage, Schemas } from "../api/client";
import { useCatalogue } from "../api/hooks";
import { Evidence, inSpace } from "../ui/evidence";
import { range, seconds } from "../ui/format";

type Names = (id: string) => string;

function materials(e: { materials?: string[] }, name: Names): string {
  return e.materials?.length ? ` in ${e.materials.map(name).join(", ")}` : "";
}

/** The figures of a knot, each with its evidence. */
export function Numbers({ knot }: { knot: KnotPage }) {
  const catalogue = useCatalogue().data;
  const name: Names = (id) => catalogue?.materials.find((m) => m.id === id)?.name ?? id;
  const row = (
    name: string,
    value: string,
    figure?: { tag: Schemas["EvidenceFigure"]["tag"]; source?: string },
  ) => (
    <Flex key={name} py="0.5" gap="2" align="center" borderTop="1px solid" borderColor="rule">
      <Box flex="1">{name}</Box>
      <Box fontWeight="700" whiteSpace="nowrap">
        {value}
      </Box>
      <Box w="100px">{figure && <Evidence tag={figure.tag} source={figure.source} />}</Box>
    </Flex>
  );
  const percent = (v: number) => `${Math.round(v * 100)} %`;
  return (
    <>
      {knot.efficiency.map((e) =>
        row(
          `Strength kept${materials(e, name)}`,
          range({ ...e.value, tag: e.tag, source: e.source }, percent),
          {
            tag: e.tag,
            source: e.source,
          },
        ),
      )}
      {knot.hold?.map((h) =>
        row(`Hold${materials(h, name)}: dry, wet`, h.dry === h.wet ? h.dry : `${h.dry}, ${h.wet}`, {
          tag: h.tag,
          source: h.why,
        }),
      )}
      {knot.network &&
        row("Hold", "by friction", {
          tag: "computed",
          source: "worked out in the rig from line, object and friction (riding-turn theory)",
        })}
      {row(
        "Tail",
        range(knot.tail, (v) => `${v} diameters`),
        knot.tail,
      )}
      {knot.snug &&
        row(
          "Line in the knot",
          `${knot.snug.ropes.map((r) => Math.round(r.consumed_d)).join(" and ")} diameters`,
          inSpace,
        )}
      {knot.snug
        ? row(
            "Drawn up, in diameters",
            `${knot.snug.bulk_d.across.toFixed(1)} by ${knot.snug.bulk_d.flat.toFixed(1)}, ${knot.snug.bulk_d.along.toFixed(1)} long`,
            inSpace,
          )
        : null}
      {row("Time, practised", range(knot.seconds, seconds), knot.seconds)}
      {row("Hard to learn", `${knot.difficulty} of 5`, { tag: "trade", source: "our own judgement" })}
      {row("Easy to check", `${knot.inspect} of 5`, { tag: "trade", source: "our own judgement" })}
      {knot.wraps &&
        row(
          "Wraps",
          knot.wraps.rules
            .map((r) => (r.up_to_lb ? `${r.n} to ${r.up_to_lb} lb` : `${r.n} above`))
            .join(", "),
          knot.wraps.loss,
        )}
      <Box borderTop="1px solid" borderColor="rule" pt="1">
        <strong>Coming off:</strong> {knot.release.how}
      </Box>
    </>
  );
}
