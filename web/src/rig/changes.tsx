import { Box, chakra, Flex, Grid } from "@chakra-ui/react";
import { memo, useState } from "react";
import type { Catalogue, Rig } from "../api/client";
import { useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { withChange } from "./document";

/** The three nearest things that would change the choice, each a button that sets them; the rest on request. */
export const Changes = memo(function Changes(p: {
  rig: Rig;
  catalogue: Catalogue;
  change: (rig: Rig) => void;
}) {
  const { rig, catalogue, change } = p;
  const list = useLasting(q.changes(rig)).data?.changes;
  const [all, setAll] = useState(false);
  if (!list) return <Box minH="96px" />;
  const shown = all ? list : list.filter((c) => c.near).toSorted((a, b) => (a.near ?? 0) - (b.near ?? 0));
  return (
    <Box data-testid="changes" minH="96px">
      <Flex fontWeight="700" fontSize="16px" align="center" h="34px">
        What would change this{" "}
        <Evidence
          bare
          tag="computed"
          source="every number turned eightfold up and down until another knot comes first, every condition turned once"
        />
        {list.length > 3 && (
          <Press look="bare" small onClick={() => setAll(!all)} aria-expanded={all}>
            {all ? "three" : `all ${list.length}`}
          </Press>
        )}
      </Flex>
      {list.length === 0 && <Box>Nothing within eight times up or down.</Box>}
      <Grid templateColumns={{ base: "1fr", lg: "1fr 1fr 1fr" }} gap="2" mt="1">
        {shown.map((c) => (
          <One
            key={c.when}
            type="button"
            title={c.says}
            onClick={() => change(withChange(rig, c, catalogue))}
          >
            {c.knot && (
              <Drawing
                id={c.knot}
                name={c.name}
                drawn={catalogue.knots.find((k) => k.id === c.knot)?.drawn ?? true}
                w="48px"
                h="44px"
                flex="none"
                fontSize="xs"
                aria-hidden
              />
            )}
            <Box minW="0" lineHeight="1.25">
              {c.when}:<Box fontWeight="700">{c.name ? c.name.toLowerCase() : "no knot here"}</Box>
            </Box>
          </One>
        ))}
      </Grid>
    </Box>
  );
});

const One = chakra("button", {
  base: {
    display: "flex",
    alignItems: "center",
    gap: "2",
    minH: "56px",
    px: "2",
    py: "1",
    bg: "glassWash",
    border: "1.5px solid",
    borderColor: "glass",
    borderRadius: "sm",
    textAlign: "left",
    fontSize: "15px",
    cursor: "pointer",
    _hover: { bg: "amberWash" },
  },
});
