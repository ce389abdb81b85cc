import { Box, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import type { KnotPage } from "../api/client";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { type Look, Svg } from "../ui/drawing";
import { Part } from "../ui/page";

const SnugView = lazy(() => import("./snug").then((m) => ({ default: m.SnugView })));

/** How a knot looks once it is drawn up, and the way into the hand. Nothing where that is not computed. */
export function DrawnUp({ knot, left, look }: { knot: KnotPage; left: boolean; look: Look }) {
  const [held, setHeld] = useState(false);
  const { data } = useQuery({
    ...q.snugFigure(knot.id, { left, look, checks: true }),
    enabled: Boolean(knot.snug) && !held,
  });
  if (!knot.snug) return null;
  return (
    <Part title="So it looks drawn up">
      {held ? (
        <Suspense fallback={<Box p="4">Loading…</Box>}>
          <SnugView id={knot.id} name={knot.name} left={left} look={look} />
        </Suspense>
      ) : (
        <>
          <Svg text={data} h="210px" w="100%" />
          <Flex align="center" gap="3" mt="1" className="no-print">
            <Press small flex="none" onClick={() => setHeld(true)}>
              Take it in the hand
            </Press>
            <Box fontSize="sm" color="quiet">
              Numbers: where each check looks. Computed in space for smooth rope that does not squeeze.
            </Box>
          </Flex>
        </>
      )}
    </Part>
  );
}
