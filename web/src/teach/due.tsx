import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { api, type Schemas, unwrap } from "../api/client";
import { useKept } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { Trouble } from "../ui/notes";
import { Card, Page, Part, Title } from "../ui/page";
import { Select } from "../ui/pick";
import { TeachNav } from "./nav";

type Due = Schemas["DueKnot"];

/** What should be tied again, by learner, the most urgent first; and calendars of it. */
export function DueView() {
  const { data, error } = useQuery(q.due());
  useEffect(() => {
    document.title = "Due · Oarweed";
  }, []);
  const people = [...new Set((data ?? []).map((d) => d.learner))];
  return (
    <Page maxW="1300px">
      <TeachNav />
      <Flex mt="3" align="baseline" gap="3" wrap="wrap">
        <Title>{data ? (data.length === 0 ? "Nothing is due" : `${data.length} to tie again`) : "Due"}</Title>
        <Box color="quiet">
          by how well each is remembered
          <Evidence
            tag="published"
            source="FSRS-6, an open spaced-repetition scheduler, with its published default weights; they were fitted to cards on a screen, not to knots"
          />
        </Box>
      </Flex>
      <Trouble error={error} />
      {data?.length === 0 && (
        <Box mt="3">
          A knot comes back when it is likely to have been forgotten by one in ten, sooner after a fault.
        </Box>
      )}
      <Grid templateColumns="repeat(auto-fill, minmax(min(360px, 100%), 1fr))" gap="4" mt="3">
        {people.map((name) => (
          <OfOne key={name} name={name} list={(data ?? []).filter((d) => d.learner === name)} />
        ))}
      </Grid>
      <Calendars />
    </Page>
  );
}

export function OfOne({ name, list }: { name: string; list: Due[] }) {
  return (
    <Card p="3" data-due={name}>
      <Box asChild className="head" fontSize="lg">
        <h2>
          <Link to={`/teach/people/${list[0]?.learner_id}`}>{name}</Link>
        </h2>
      </Box>
      <DueRows list={list} />
    </Card>
  );
}

/** Rows of what is due, each leading to its knot. */
export function DueRows({ list }: { list: Due[] }) {
  return (
    <Box as="ul" listStyleType="none">
      {list.map((d) => (
        <Box as="li" key={d.knot}>
          <Box asChild display="flex" gap="3" alignItems="center" minH="56px">
            <Link to={`/knots/${d.knot}`}>
              <Drawing id={d.knot} name={d.name} drawn w="56px" h="48px" flex="none" aria-hidden />
              <Box lineHeight="1.2">
                <Box fontWeight="700">{d.name}</Box>
                <Box color={d.repeated ? "flare" : "quiet"} fontSize="15px">
                  {d.repeated ? "⚑ " : ""}
                  {d.says}
                </Box>
              </Box>
            </Link>
          </Box>
        </Box>
      ))}
    </Box>
  );
}

/** Secret addresses that somebody's calendar reads; each can be withdrawn. */
function Calendars() {
  const feeds = useQuery(q.feeds()).data ?? [];
  const learners = useQuery(q.learners()).data ?? [];
  const [made, setMade] = useState<Schemas["Feed"]>();
  const add = useKept((learner_id: number) =>
    unwrap(api.POST("/api/v1/feeds", { body: { learner_id: learner_id || undefined } })),
  );
  const withdraw = useKept((id: number) =>
    unwrap(api.DELETE("/api/v1/feeds/{id}", { params: { path: { id } } })),
  );
  const whose = (f: Schemas["Feed"]) =>
    f.learner_id
      ? (learners.find((l) => l.id === f.learner_id)?.name ?? "a learner")
      : "everybody, and the lessons";
  return (
    <Part title="In a calendar" mt="8">
      <Box color="quiet" maxW="60ch">
        A calendar program can read what is due at an address that nobody can guess. Whoever has it can read
        it: give it to one person, and withdraw it when it is no longer wanted.
      </Box>
      <Flex gap="2" wrap="wrap" mt="2">
        <Press onClick={() => add.mutate(0, { onSuccess: setMade })}>Address for all and the lessons</Press>
        {learners.length > 0 && (
          <Select
            label="Address for one learner"
            first="Address for one learner…"
            value=""
            set={(id) => id && add.mutate(Number(id), { onSuccess: setMade })}
            list={learners.map((l) => ({ id: String(l.id), name: l.name }))}
          />
        )}
      </Flex>
      <Trouble error={add.error ?? withdraw.error} />
      {made?.path && (
        <Card kind="note" mt="2" role="status" data-testid="feed">
          Shown once: <code>{`${location.origin}${made.path}`}</code>
        </Card>
      )}
      {feeds.map((f) => (
        <Flex key={f.id} align="center" gap="3" mt="1">
          <Box flex="1">
            For {whose(f)}, since {new Date(f.made).toLocaleDateString()}
          </Box>
          <Press small onClick={() => withdraw.mutate(f.id, { onSuccess: () => setMade(undefined) })}>
            Withdraw
          </Press>
        </Flex>
      ))}
    </Part>
  );
}
