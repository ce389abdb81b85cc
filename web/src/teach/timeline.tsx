import { Box, Flex } from "@chakra-ui/react";
import type { Catalogue, Schemas } from "../api/client";

type Block = Schemas["LessonBlock"];

export const kinds: Record<Block["kind"], string> = {
  begin: "begin",
  demonstrate: "show it whole",
  follow: "step by step",
  repeat: "each repeats",
  check: "look at each",
  break: "break",
  wet: "wet round",
  test: "test, no help",
  end: "end",
};

const fill: Partial<Record<Block["kind"], string>> = {
  demonstrate: "var(--rope-1)",
  follow: "var(--rope-1-light)",
  repeat: "var(--glass-wash)",
  check: "var(--rope-2-light)",
  break: "transparent",
  wet: "var(--rope-2)",
  test: "var(--amber-wash)",
};

/** The lesson to scale: every block as long as it lasts, the knots beneath. */
export function Timeline({
  blocks,
  total,
  catalogue,
  at,
}: {
  blocks: Block[];
  total: number;
  catalogue: Catalogue;
  at?: number;
}) {
  const used = blocks.reduce((a, b) => a + b.minutes, 0);
  const whole = Math.max(total, used);
  const groups: { knot: string; minutes: number }[] = [];
  for (const b of blocks) {
    const last = groups.at(-1);
    if (last && last.knot === (b.knot ?? "")) last.minutes += b.minutes;
    else groups.push({ knot: b.knot ?? "", minutes: b.minutes });
  }
  const name = (id: string) => catalogue.knots.find((k) => k.id === id)?.name ?? "";
  return (
    <Box mt="2" overflowX="auto" role="region" aria-label="The lesson to scale" tabIndex={0}>
      <Box
        role="img"
        aria-label={blocks
          .map((b) => `${b.knot ? `${name(b.knot)}, ` : ""}${kinds[b.kind]} ${b.minutes} minutes`)
          .join("; ")}
      >
        <Flex
          h="46px"
          minW="560px"
          border="1.5px solid"
          borderColor="ink"
          borderRadius="sm"
          overflow="hidden"
        >
          {blocks.map((b, i) => (
            <Box
              key={`${i} ${b.kind}`}
              flex={`${b.minutes} 0 0`}
              minW="0"
              bg={fill[b.kind] ?? "var(--object-light)"}
              borderRight="1px solid"
              borderColor="ink"
              outline={i === at ? "3px solid var(--flare)" : undefined}
              outlineOffset="-3px"
              fontSize="12px"
              color="#10231d"
              px="1"
              overflow="hidden"
              lineHeight="1.1"
              pt="1"
              title={`${kinds[b.kind]}, ${b.minutes} min`}
            >
              {b.minutes / whole > 0.045 ? kinds[b.kind] : ""}
            </Box>
          ))}
          {used < total && (
            <Box
              flex={`${total - used} 0 0`}
              bg="repeating-linear-gradient(45deg, transparent 0 6px, var(--line) 6px 7px)"
              title={`${total - used} min left`}
            />
          )}
        </Flex>
        <Flex minW="560px">
          {groups.map((g, i) => (
            <Box
              key={`${i} ${g.knot}`}
              flex={`${g.minutes} 0 0`}
              minW="0"
              fontSize="14px"
              textAlign="center"
              truncate
              px="1"
            >
              {name(g.knot)}
            </Box>
          ))}
          {used < total && <Box flex={`${total - used} 0 0`} />}
        </Flex>
      </Box>
    </Box>
  );
}
