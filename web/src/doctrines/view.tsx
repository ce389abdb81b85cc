import { Box, chakra, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { conflictOf } from "../api/client";
import { useTeach } from "../api/hooks";
import { q } from "../api/queries";
import { Drawing } from "../ui/drawing";
import { Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";

/** Where practitioners disagree: the instructor says what he teaches. */
export function DoctrinesView() {
  const { data, error, refetch } = useQuery(q.doctrines());
  const teach = useTeach();
  const changed = conflictOf(teach.error);
  const choose = (question: string, doctrine: string, usual: boolean) => {
    if (!data) return;
    const { [question]: _, ...others } = data.chosen;
    teach.mutate(
      { chosen: usual ? others : { ...others, [question]: doctrine }, revision: data.revision },
      { onError: () => void refetch() },
    );
  };
  return (
    <Page maxW="1680px">
      <Title>What you teach</Title>
      <Box color="quiet" mt="1">
        Good instructors differ on these. Your choice shows in steps, checks, faults, turns, wraps and the
        ranking. Common practice, no source.
      </Box>
      <Trouble
        error={
          changed
            ? new Error("Somebody chose otherwise meanwhile. Below is what is taught now: choose again.")
            : (error ?? teach.error)
        }
      />
      <Grid templateColumns="repeat(auto-fill, minmax(min(540px, 100%), 1fr))" gap="4" mt="4">
        {data?.questions.map((x) => (
          <Question
            key={x.id}
            question={x}
            chosen={data.chosen[x.id] ?? x.doctrines[0]?.id}
            choose={choose}
          />
        ))}
      </Grid>
    </Page>
  );
}

const Radio = chakra("input", { base: { w: "22px", h: "22px", accentColor: "var(--glass)", flex: "none" } });

function Question(props: {
  question: Schemas["KnotQuestion"];
  chosen: string | undefined;
  choose: (question: string, doctrine: string, usual: boolean) => void;
}) {
  const { question, chosen, choose } = props;
  return (
    <Card
      asChild
      p="4"
      display="grid"
      gridTemplateColumns={{ base: "84px minmax(0, 1fr)", md: "150px minmax(0, 1fr)" }}
      columnGap="4"
      alignContent="start"
    >
      <fieldset data-question={question.id}>
        <Box as="legend" className="head" fontSize="lg" float="left" gridColumn="1 / -1" mb="1">
          {question.question}
        </Box>
        <Link to={`/knots/${question.shows}`} aria-label="See the knot as you teach it">
          <Drawing
            id={question.shows}
            name={question.shows}
            drawn
            h={{ base: "84px", md: "150px" }}
            aria-hidden
          />
        </Link>
        <Box>
          {question.doctrines.map((d, i) => (
            <Flex
              as="label"
              key={d.id}
              gap="3"
              px="3"
              py="2"
              mt="1.5"
              minH="44px"
              align="center"
              bg={d.id === chosen ? "glassWash" : "sheet"}
              border="1.5px solid"
              borderColor={d.id === chosen ? "glass" : "rule"}
              borderRadius="md"
              cursor="pointer"
            >
              <Radio
                type="radio"
                name={question.id}
                checked={d.id === chosen}
                onChange={() => choose(question.id, d.id, i === 0)}
              />
              <Box>
                <Box fontWeight="700">
                  {d.name}
                  {i === 0 && (
                    <Box as="span" fontWeight="400" color="quiet">
                      {" "}
                      · usual
                    </Box>
                  )}
                </Box>
                <Box fontSize="md">{d.why}</Box>
              </Box>
            </Flex>
          ))}
        </Box>
      </fieldset>
    </Card>
  );
}
