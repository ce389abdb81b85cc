import { Box, Flex, Grid } from "@chakra-ui/react";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { Catalogue, Rig, Schemas } from "../api/client";
import { useCatalogue, useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { phrases } from "../rig/phrases";
import { Sentence } from "../rig/sentence";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { Cautions, Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";
import { HoldView } from "./hold";
import { SoftShackle } from "./shackle";

/** Sums that are jobs too. */
const sums = [
  {
    id: "turns",
    name: "Turns and hand force",
    when: "How many turns, eights or twists hold a load, and what the hand still has to hold.",
  },
  {
    id: "soft-shackle",
    name: "Make a soft shackle",
    when: "Clamp and stopper out of one short cord: which go together.",
  },
];

/** Jobs that are more than a knot. */
export function JobList() {
  const { data, error } = useCatalogue();
  return (
    <Page>
      <Title>Jobs</Title>
      <Trouble error={error} />
      <Grid templateColumns="repeat(auto-fill, minmax(min(300px, 100%), 1fr))" gap="3" mt="3">
        {data &&
          [...data.procedures, ...sums].map((p) => (
            <Card key={p.id} kind="link" p="4" asChild>
              <Link to={`/jobs/${p.id}`}>
                <Box className="head" fontSize="lg">
                  {p.name}
                </Box>
                <Box color="quiet">{p.when}</Box>
              </Link>
            </Card>
          ))}
      </Grid>
    </Page>
  );
}

/** One job, step by step, with what is worked out for the lines at hand. */
export function JobView() {
  const { id = "" } = useParams();
  const catalogue = useCatalogue().data;
  if (id === "soft-shackle") return <SoftShackle />;
  if (id === "turns") return <HoldView />;
  if (!catalogue) return <Box p="6">Loading…</Box>;
  return <Job key={id} id={id} catalogue={catalogue} />;
}

function Job({ id, catalogue }: { id: string; catalogue: Catalogue }) {
  const needs = catalogue.procedures.find((p) => p.id === id)?.needs;
  const start = catalogue.templates.find((t) => needs && t.rig.chain[1]?.joint?.task === needs)?.rig;
  const [rig, setRig] = useState<Rig | undefined>(start);
  const { data: card, error } = useLasting(q.card(id, rig));
  return (
    <Page maxW="860px">
      <Trouble error={error} />
      {card && (
        <>
          <Title>{card.name}</Title>
          <Box color="quiet" mb="3">
            {card.when}
          </Box>
          {card.cautions.length > 0 && (
            <Card kind="warn" mb="4">
              <Cautions list={card.cautions} />
            </Card>
          )}
          {rig && (
            <Card mb="4">
              <Sentence parts={words(phrases(rig, catalogue))} change={setRig} />
            </Card>
          )}
          <Flex as="ol" direction="column" gap="3" listStyleType="none">
            {card.steps.map((s, i) => (
              <Step key={s.says} step={s} n={i + 1} />
            ))}
          </Flex>
          <Notes list={card.notes} />
          <Press asChild mt="5" className="no-print">
            <Link to="/jobs">All jobs</Link>
          </Press>
        </>
      )}
    </Page>
  );
}

function Step({ step: s, n }: { step: Schemas["TradeProcedureStep"]; n: number }) {
  return (
    <Card asChild display="flex" gap="4" alignItems="center">
      <li>
        <Box className="head" fontSize="3xl" color="amber" minW="32px" textAlign="center">
          {n}
        </Box>
        <Box flex="1" fontSize={{ base: "base", md: "lg" }}>
          {s.says}
        </Box>
        {s.knot && (
          <Link to={`/knots/${s.knot}`} aria-label="See the knot">
            <Drawing id={s.knot} name={s.knot} drawn w="88px" h="76px" />
          </Link>
        )}
      </li>
    </Card>
  );
}

function Notes({ list }: { list: string[] }) {
  if (list.length === 0) return null;
  return (
    <Card kind="note" mt="4" data-testid="notes">
      {list.map((n) => (
        <Box key={n} py="0.5">
          {n}
        </Box>
      ))}
      <Evidence
        tag="computed"
        source="riding-turn theory and the capstan equation at the lowest friction expected; friction from memory"
      />
    </Card>
  );
}

/** The words of the sentence that a job needs: the two lines, wet or dry, the load. */
function words(p: ReturnType<typeof phrases>) {
  return [
    "The loaded line is ",
    p.other_size,
    " ",
    p.other_kind,
    ", the other ",
    p.line_size,
    " ",
    p.line_kind,
    ", ",
    p.wet,
    ", and the load is ",
    p.load,
    ".",
  ].filter((x) => x !== undefined);
}
