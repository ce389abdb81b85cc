import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { useCatalogue, useSetBench } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Trouble } from "../ui/notes";
import { Card, Page, Part, Title } from "../ui/page";
import { Typed } from "../ui/pick";
import { BenchNav } from "./nav";
import { Plan } from "./plan";

/** The series of pulls, and what the bench is set to. */
export function BenchView() {
  const { data, error } = useQuery(q.series());
  const pulls = useQuery(q.pulls()).data ?? [];
  const catalogue = useCatalogue().data;
  const [plan, setPlan] = useState<boolean | [string, string]>(false);
  useEffect(() => {
    document.title = "Bench · Oarweed";
  }, []);
  const name = (id: string) => catalogue?.knots.find((k) => k.id === id)?.name ?? id;
  return (
    <Page maxW="1300px">
      <BenchNav />
      <Flex gap="3" align="center" wrap="wrap">
        <Title>Pull bench</Title>
        <Box flex="1" />
        <Press look="main" onClick={() => setPlan(true)}>
          Plan a series
        </Press>
      </Flex>
      <Box color="quiet" mt="1" maxW="70ch">
        Tie two knots, one at each end of one piece, and draw it out until one gives. Pull by pull you learn
        which is stronger in your line, and the choice on the Rig follows.
      </Box>
      <Trouble error={error} />
      <Grid templateColumns="repeat(auto-fill, minmax(min(360px, 100%), 1fr))" gap="3" mt="4">
        {data?.map((s) => {
          const first = s.specimens[0];
          const done = pulls.filter((p) => p.series === s.key).length;
          return (
            <Card key={s.id} kind="link" asChild>
              <Link to={`/bench/${s.id}`} data-series={s.id}>
                <Box className="head" fontSize="lg">
                  {s.name}
                </Box>
                {first && (
                  <Flex align="center" gap="2" my="1">
                    <Drawing id={first.a.knot} name={first.a.knot} drawn w="76px" h="56px" aria-hidden />
                    <Box color="quiet">against</Box>
                    <Drawing id={first.b.knot} name={first.b.knot} drawn w="76px" h="56px" aria-hidden />
                    <Box flex="1" />
                    <Box className="head" fontSize="2xl">
                      {done}
                      <Box as="span" fontSize="md" color="quiet">
                        {" "}
                        of {s.specimens.length}
                      </Box>
                    </Box>
                  </Flex>
                )}
                <Box color="quiet">
                  {first && `${name(first.a.knot)} and ${name(first.b.knot).toLowerCase()}`}
                  {s.from ? ` in ${s.from}` : ""}, {s.wet ? "wet" : "dry"}
                </Box>
              </Link>
            </Card>
          );
        })}
      </Grid>
      {data?.length === 0 && (
        <Card mt="4" maxW="60ch">
          Nothing is planned yet. A spring scale will do: read off the highest load and say which knot gave.
        </Card>
      )}
      <Next plan={(pair) => setPlan(pair)} />
      <Settings />
      {plan && <Plan first={plan === true ? undefined : plan} close={() => setPlan(false)} />}
    </Page>
  );
}

/** What is worth pulling next: what is disputed and not yet told, the nearest to an answer first. */
function Next({ plan }: { plan: (pair: [string, string]) => void }) {
  const { data } = useQuery(q.ledger());
  const open = (data ?? [])
    .filter((c) => c.next)
    .sort((a, b) => (a.next ?? 0) - (b.next ?? 0))
    .slice(0, 3);
  if (open.length === 0) return null;
  return (
    <Part title="Worth pulling next" mt="6">
      <Grid templateColumns="repeat(auto-fill, minmax(min(360px, 100%), 1fr))" gap="3">
        {open.map((c) => (
          <Card key={c.id}>
            <Box fontWeight="700">{c.claim}</Box>
            <Box>{c.says}</Box>
            <Press small mt="2" onClick={() => plan([c.weaker?.knot ?? "", c.stronger?.knot ?? ""])}>
              Pull these two
            </Press>
          </Card>
        ))}
      </Grid>
    </Part>
  );
}

function Settings() {
  const { data } = useQuery(q.bench());
  const [cell, setCell] = useState<string>();
  const save = useSetBench();
  if (!data) return null;
  const change = (part: Partial<Schemas["BenchSettings"]>) => save.mutate({ ...data, ...part });
  return (
    <Part title="Set up" mt="8">
      <Grid gap="3" templateColumns={{ base: "1fr", md: "minmax(0, 360px) auto 1fr" }} alignItems="end">
        <Typed label="Load cell, host:port; empty: none" value={cell ?? data.cell} set={setCell} />
        <Press onClick={() => change({ cell: (cell ?? data.cell).trim() })}>Connect</Press>
        <Flex as="label" gap="3" minH="44px" align="center">
          <input
            type="checkbox"
            checked={!data.out}
            onChange={(e) => change({ out: !e.target.checked })}
            style={{ width: 22, height: 22 }}
          />
          Own pulls count in the choice
        </Flex>
      </Grid>
      <Trouble error={save.error} />
    </Part>
  );
}
