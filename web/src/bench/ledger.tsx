import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import type { Schemas } from "../api/client";
import { q } from "../api/queries";
import { Drawing } from "../ui/drawing";
import { Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";
import { BenchNav } from "./nav";

type Claim = Schemas["LedgerCard"];

const words: Record<Claim["verdict"], { says: string; bg: string; color: string }> = {
  agrees: { says: "your bench agrees", bg: "glassWash", color: "ink" },
  disagrees: { says: "your bench disagrees", bg: "flareWash", color: "ink" },
  "too-few": { says: "not yet told", bg: "paper", color: "quiet" },
};

/** What is said and disputed, beside what one's own bench and class show. */
export function LedgerView() {
  const { data, error } = useQuery(q.ledger());
  useEffect(() => {
    document.title = "What is said · Oarweed";
  }, []);
  return (
    <Page maxW="1400px">
      <BenchNav />
      <Title>What is said, and what your bench shows</Title>
      <Box color="quiet" mt="1">
        Good instructors say both. Common practice, no source: what settles it in your line is pulling it.
      </Box>
      <Trouble error={error} />
      <Grid templateColumns="repeat(auto-fill, minmax(min(420px, 100%), 1fr))" gap="4" mt="4">
        {data?.map((c) => (
          <ClaimCard key={c.id} claim={c} />
        ))}
      </Grid>
    </Page>
  );
}

function ClaimCard({ claim: c }: { claim: Claim }) {
  const w = words[c.verdict];
  const knots = [c.stronger, c.weaker, c.slips].flatMap((e) => (e ? [e.knot] : []));
  return (
    <Card data-claim={c.id} p="4">
      <Flex gap="3">
        <Flex direction="column" gap="1" flex="none">
          {[...new Set(knots)].map((k) => (
            <Drawing key={k} id={k} name={k} drawn w="84px" h="62px" aria-hidden />
          ))}
        </Flex>
        <Box minW="0" flex="1">
          <Box className="head" fontSize="lg" lineHeight="1.25">
            {c.claim}
          </Box>
          <Box mt="1" color="quiet">
            Against: {c.against}
          </Box>
          {c.reference && (
            <Box mt="2" fontSize="md">
              <b>Trade:</b> {c.reference}
            </Box>
          )}
          <Box mt="2" px="3" py="2" borderRadius="sm" bg={w.bg} color={w.color}>
            <Box fontWeight="700">{w.says}</Box>
            {c.says}
          </Box>
          {c.log.map((l) => (
            <Box key={l} mt="1" fontSize="sm" color="quiet">
              {l}
            </Box>
          ))}
        </Box>
      </Flex>
    </Card>
  );
}
