import { Box, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { Attempt } from "../api/client";
import { useCatalogue, useRemoveAttempt, useRestoreAttempt } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { seconds } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Card, Page, Part, Title } from "../ui/page";
import { Select } from "../ui/pick";
import { AttemptDialog, conditions } from "./attempt";

const looks = {
  right: { text: "✓ right", colour: "glass", wash: "glassWash" },
  slow: { text: "◔ slow", colour: "amber", wash: "amberWash" },
  fault: { text: "✕ fault", colour: "flare", wash: "flareWash" },
} as const;

/** The latest attempts, newest first, day by day. */
export function LogView() {
  const attempts = useQuery(q.attempts());
  const knots = useCatalogue().data?.knots ?? [];
  const remove = useRemoveAttempt();
  const restore = useRestoreAttempt();
  const [knot, setKnot] = useState("");
  const [gone, setGone] = useState<Attempt>();
  const name = (id: string) => knots.find((k) => k.id === id)?.name ?? id;
  return (
    <Page maxW="900px">
      <Flex justify="space-between" align="center" wrap="wrap" gap="3">
        <Title>Attempts</Title>
        <Select
          label="Record an attempt at"
          first="Record an attempt at…"
          value=""
          set={setKnot}
          list={knots}
        />
      </Flex>
      <Trouble error={attempts.error ?? remove.error ?? restore.error} />
      {gone && (
        <Card kind="note" mt="3" role="status">
          The attempt of {gone.learner} at the {name(gone.knot).toLowerCase()} is taken back.{" "}
          <Press
            small
            onClick={() => {
              restore.mutate(gone.id);
              setGone(undefined);
            }}
          >
            Bring it back
          </Press>
        </Card>
      )}
      {attempts.data?.attempts.length === 0 && (
        <Box mt="4">No attempts yet. Open a knot, let a learner tie it, and record how it went.</Box>
      )}
      {byDay(attempts.data?.attempts ?? []).map(([day, list]) => (
        <Part key={day} title={day} mt="5">
          {list.map((a) => (
            <Row
              key={a.id}
              attempt={a}
              name={name(a.knot)}
              takeBack={() => remove.mutate(a.id, { onSuccess: () => setGone(a) })}
            />
          ))}
        </Part>
      ))}
      <AttemptDialog knot={knot} close={() => setKnot("")} />
    </Page>
  );
}

/** Attempts by the day on which they were made, in their order. */
function byDay(list: Attempt[]): [string, Attempt[]][] {
  const days = new Map<string, Attempt[]>();
  for (const a of list) {
    const day = new Date(a.at ?? 0).toLocaleDateString(undefined, {
      weekday: "long",
      day: "numeric",
      month: "long",
    });
    days.set(day, [...(days.get(day) ?? []), a]);
  }
  return [...days];
}

function Row({ attempt: a, name, takeBack }: { attempt: Attempt; name: string; takeBack: () => void }) {
  const look = looks[a.outcome];
  return (
    <Flex
      data-attempt={a.id}
      gap="3"
      py="2"
      align="center"
      borderBottom="1px solid"
      borderColor="rule"
      wrap={{ base: "wrap", md: "nowrap" }}
    >
      <Box w="58px" color="quiet">
        {new Date(a.at ?? 0).toLocaleTimeString(undefined, {
          hour: "2-digit",
          minute: "2-digit",
          hour12: false,
        })}
      </Box>
      <Box w="80px" fontWeight="700">
        {a.learner}
      </Box>
      <Box flex="1" minW="150px">
        <Link to={`/knots/${a.knot}`} className="link">
          {name}
        </Link>
        {a.kind === "drill" && " – crossing drill"}
        {a.fault && (
          <Box color="quiet" fontSize="md">
            <FaultName knot={a.knot} code={a.fault} />
          </Box>
        )}
      </Box>
      <Box w="70px" textAlign="right">
        {a.seconds ? seconds(a.seconds) : "–"}
      </Box>
      <Box w="130px">{conditions.find((k) => k.id === a.conditions)?.text}</Box>
      <Box
        px="2"
        py="0.5"
        borderRadius="full"
        bg={look.wash}
        color={look.colour}
        fontWeight="700"
        fontSize="md"
        whiteSpace="nowrap"
        w="82px"
        textAlign="center"
      >
        {look.text}
      </Box>
      <Press
        look="bare"
        aria-label={`Take back the attempt of ${a.learner}`}
        title="Take back"
        onClick={takeBack}
      >
        ↶
      </Press>
    </Flex>
  );
}

/** The fault in words; the log keeps its code. */
function FaultName({ knot, code }: { knot: string; code: string }) {
  const page = useQuery(q.knot(knot));
  return <>{page.data?.faults.find((f) => f.code === code)?.name ?? code}</>;
}
