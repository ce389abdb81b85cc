import { Box, Flex } from "@chakra-ui/react";
import type { ReactNode } from "react";
import type { DrawingOptions } from "../api/queries";
import { Drawing } from "./drawing";

/** One step in words, under the picture that shows it; no knot: in words alone. */
export type PicturedStep = { says: string; knot?: string; name?: string; options?: DrawingOptions };

/** Steps side by side, numbered; one below the other on a phone. */
export function Pictured({
  steps,
  word = (says) => says,
}: {
  steps: PicturedStep[];
  word?: (says: string) => ReactNode;
}) {
  return (
    <Flex as="ol" gap="4" wrap="wrap" listStyleType="none">
      {steps.map((s, i) => (
        <Box as="li" key={`${i}-${s.says}`} w={{ base: "100%", md: "205px" }}>
          {s.knot && <Drawing id={s.knot} name={s.name ?? s.knot} drawn options={s.options} h="140px" />}
          <Box as="span" fontWeight="700" me="1">
            {i + 1}
          </Box>
          {word(s.says)}
        </Box>
      ))}
    </Flex>
  );
}
