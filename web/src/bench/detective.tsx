import { Box, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
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
            <Press
              key={x.id}
              data-seen={x.id}
              aria-pressed={x.id === seen}
              onClick={() => setSeen(x.id)}
              flexDirection="column"
              alignItems="stretch"
              justifyContent="flex-start"
              textAlign="left"
              py="2"
              minH="150px"
            >
              <Break id={x.id} />
              <span>{x.seen}</span>
            </Press>
          ))}
        </Grid>
        <Card p="4" aria-live="polite" data-told="" position={{ lg: "sticky" }} top="3">
          {f ? (
            <>
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
            </>
          ) : (
            "Choose what looks most like the piece in your hand."
          )}
        </Card>
      </Grid>
    </Page>
  );
}
