import { Box, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { Link } from "react-router";
import type { Attempt } from "../api/client";
import { useAttempts, useCatalogue, useKnot, useRemoveAttempt } from "../api/hooks";
import { Press } from "../ui/button";
import { seconds } from "../ui/format";
import { Trouble } from "../ui/notes";
import { AttemptDialog, conditions } from "./attempt";

const looks = {
  right: { text: "✓ right", colour: "glass", wash: "glassWash" },
  slow: { text: "◔ slow", colour: "amber", wash: "amberWash" },
  fault: { text: "✕ fault", colour: "flare", wash: "flareWash" },
} as const;

/** The latest attempts, newest first, day by day. */
export function LogView() {
  const attempts = useAttempts();
  const catalogue = useCatalogue();
  const remove = useRemoveAttempt();
  const [knot, setKnot] = useState("");
  const name = (id: string) => catalogue.data?.knots.find((k) => k.id === id)?.name ?? id;
  const days = new Map<string, Attempt[]>();
  for (const a of attempts.data ?? []) {
    const day = new Date(a.at).toLocaleDateString(undefined, {
      weekday: "long",
      day: "numeric",
      month: "long",
    });
    days.set(day, [...(days.get(day) ?? []), a]);
  }
  return (
    <Box as="main" w="100%" maxW="900px" mx="auto" px={{ base: 3, md: 6 }} py="5">
      <Flex justify="space-between" align="center" wrap="wrap" gap="3">
        <Box as="h1" fontSize="30px">
          Attempts
        </Box>
        <select
          aria-label="Record an attempt at"
          value=""
          onChange={(e) => setKnot(e.target.value)}
          style={{
            minHeight: 44,
            padding: "0 12px",
            borderRadius: 8,
            border: "1.5px solid var(--ink)",
            background: "var(--sheet)",
          }}
        >
          <option value="">Record an attempt at…</option>
          {catalogue.data?.knots.map((k) => (
            <option key={k.id} value={k.id}>
              {k.name}
            </option>
          ))}
        </select>
      </Flex>
      <Trouble error={attempts.error ?? remove.error} />
      {attempts.data?.length === 0 && (
        <Box mt="4">No attempts yet. Open a knot, let a learner tie it, and record how it went.</Box>
      )}
      {[...days].map(([day, list]) => (
        <Box key={day} mt="5">
          <Box as="h2" fontSize="18px" mb="1">
            {day}
          </Box>
          {list.map((a) => {
            const look = looks[a.outcome];
            const condition = conditions.find((k) => k.id === a.conditions)?.text;
            return (
              <Flex
                key={a.id}
                data-attempt={a.id}
                gap="3"
                py="2"
                align="center"
                borderBottom="1px solid"
                borderColor="rule"
                wrap={{ base: "wrap", md: "nowrap" }}
              >
                <Box w="58px" color="quiet">
                  {new Date(a.at).toLocaleTimeString(undefined, {
                    hour: "2-digit",
                    minute: "2-digit",
                    hour12: false,
                  })}
                </Box>
                <Box w="80px" fontWeight="700">
                  {a.learner}
                </Box>
                <Box flex="1" minW="150px">
                  <Link to={`/knots/${a.knot}`} style={{ textDecoration: "underline" }}>
                    {name(a.knot)}
                  </Link>
                  {a.kind === "drill" && " – crossing drill"}
                  {a.fault && (
                    <Box color="quiet" fontSize="15px">
                      <FaultName knot={a.knot} code={a.fault} />
                    </Box>
                  )}
                </Box>
                <Box w="70px" textAlign="right">
                  {a.seconds ? seconds(a.seconds) : "–"}
                </Box>
                <Box w="130px">{condition}</Box>
                <Box
                  px="2"
                  py="0.5"
                  borderRadius="full"
                  bg={look.wash}
                  color={look.colour}
                  fontWeight="700"
                  fontSize="15px"
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
                  onClick={() => remove.mutate(a.id)}
                >
                  ↶
                </Press>
              </Flex>
            );
          })}
        </Box>
      ))}
      <AttemptDialog knot={knot} close={() => setKnot("")} />
    </Box>
  );
}

/** The fault in words; the log keeps its code. */
function FaultName({ knot, code }: { knot: string; code: string }) {
  const page = useKnot(knot);
  return <>{page.data?.faults.find((f) => f.code === code)?.name ?? code}</>;
}
