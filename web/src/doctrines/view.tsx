import { Box, chakra, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { conflictOf } from "../api/client";
import { useTeach } from "../api/hooks";
import { q } from "../api/queries";
import { Trouble } from "../ui/notes";
import { Page, Title } from "../ui/page";

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
    <Page maxW="900px">
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
      {data?.questions.map((x) => (
        <Question key={x.id} question={x} chosen={data.chosen[x.id] ?? x.doctrines[0]?.id} choose={choose} />
      ))}
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
    <Box as="fieldset" mt="6" border="none" p="0" data-question={question.id}>
      <Box as="legend" className="head" fontSize="lg" mb="1">
        {question.question}
      </Box>
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
  );
}
