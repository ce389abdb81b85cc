import { Box, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Fragment, useEffect, useState } from "react";
import type { Schemas } from "../api/client";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";
import { Break } from "./break";
import { BenchNav } from "./nav";

/** What is seen after something gave: the likely cause, how to prove it, what to do. */
export function DetectiveView() {
  const { data, error } = useQuery(q.failures());
  const [seen, setSeen] = useState<string>();
  useEffect(() => {
    document.title = "What a break tells · Oarweed";
  }, []);
  const f = data?.find((x) => x.id === seen);
  return (
    <Page maxW="1300px">
      <BenchNav />
      <Title>What do you see?</Title>
      <Trouble error={error} />
      <Grid
        templateColumns={{ base: "1fr", lg: "minmax(0, 1fr) minmax(0, 460px)" }}
        gap="5"
        mt="4"
        alignItems="start"
      >
        <Grid templateColumns="repeat(auto-fill, minmax(min(230px, 100%), 1fr))" gap="3">
          {data?.map((x) => (
            <Fragment key={x.id}>
              <Press
                data-seen={x.id}
                aria-pressed={x.id === seen}
                onClick={() => setSeen(x.id)}
                flexDirection="column"
                alignItems="stretch"
                justifyContent="flex-start"
                textAlign="left"
                py="2"
                minH={{ base: "110px", lg: "150px" }}
              >
                <Break id={x.id} />
                <span>{x.seen}</span>
              </Press>
              {/* On a phone it is told right beneath what was touched. */}
              {x.id === seen && (
                <Box display={{ base: "block", lg: "none" }}>
                  <Told failure={x} />
                </Box>
              )}
            </Fragment>
          ))}
        </Grid>
        <Box
          display={{ base: "none", lg: "block" }}
          position="sticky"
          top="3"
          aria-live="polite"
          data-told=""
        >
          {f ? <Told failure={f} /> : <Card p="4">Choose what looks most like the piece in your hand.</Card>}
        </Box>
      </Grid>
    </Page>
  );
}

function Told({ failure: f }: { failure: Schemas["BenchFailure"] }) {
  return (
    <Card p="4">
      <Box className="head" fontSize="xl">
        {f.seen}
      </Box>
      {[
        ["Most likely", f.cause],
        ["Prove it", f.prove],
        ["Then", f.cure],
      ].map(([name, text]) => (
        <Box key={name} mt="3">
          <Box fontWeight="700">{name}</Box>
          {text}
        </Box>
      ))}
      <Box mt="3" fontSize="sm" color="quiet">
        Common practice, no source.
      </Box>
    </Card>
  );
}
