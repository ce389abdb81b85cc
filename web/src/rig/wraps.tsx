import { Box, Flex } from "@chakra-ui/react";
import type { Choice } from "../api/client";
import { Press } from "../ui/button";
import { Evidence } from "../ui/evidence";

/** How many wraps a fishing knot is tied with, and what each one short of the rule costs. */
export function Wraps({
  choice: c,
  set,
  bare,
  setBare,
}: {
  choice: Choice;
  set: (wraps: number) => void;
  /** The finishing wraps are left out. */
  bare: boolean;
  setBare: (bare: boolean) => void;
}) {
  if (!c.wraps) return null;
  const rule = c.wraps + (c.wraps_short ?? 0);
  const loss = c.per_wrap;
  const cost = loss && `${Math.round(100 * loss.low)} to ${Math.round(100 * loss.high)} %`;
  return (
    <Flex
      align="center"
      gap="2"
      wrap={{ base: "wrap", md: "nowrap" }}
      fontSize="15px"
      lineHeight="1.25"
      data-testid="wraps"
    >
      <strong>Wraps:</strong>
      <Press small aria-label="One wrap less" disabled={c.wraps <= 1} onClick={() => set((c.wraps ?? 1) - 1)}>
        −
      </Press>
      <Box minW="24px" textAlign="center" fontWeight="700">
        {c.wraps}
      </Box>
      <Press
        small
        aria-label="One wrap more"
        disabled={c.wraps >= 40}
        onClick={() => set((c.wraps ?? 1) + 1)}
      >
        +
      </Press>
      <Box flex="1" minW={{ base: "100%", md: "0" }}>
        {c.wraps_short ? `${rule} for this line; ` : c.wraps > rule ? "" : "as many as this line asks for; "}
        each one missing costs {cost} of the strength.
        {c.wraps_other ? ` The thicker line gets ${c.wraps_other}.` : ""}
        <Evidence bare tag="trade" source="common practice and memory; see the numbers of the knot" />
      </Box>
      {c.finish && (
        <Press small aria-pressed={!bare} onClick={() => setBare(!bare)}>
          {bare ? "Finishing wraps: none" : "Finishing wraps: two"}
        </Press>
      )}
    </Flex>
  );
}
