import { Box, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../api/client";
import { useKept } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Svg } from "../ui/drawing";
import { Trouble } from "../ui/notes";
import { Sheet } from "../ui/sheet";

/** Learners' phones: a code and a QR with which they join, until the lesson ends. */
export function Phones({ group }: { group: string }) {
  const [open, setOpen] = useState(false);
  const session = useQuery(q.session()).data;
  const [made, setMade] = useState<Schemas["Join"]>();
  const add = useKept((minutes: number) =>
    unwrap(api.POST("/api/v1/joins", { body: { group: group || undefined, minutes } })),
  );
  const end = useKept((id: number) => unwrap(api.DELETE("/api/v1/joins/{id}", { params: { path: { id } } })));
  const joins = useQuery({ ...q.joins(), enabled: open && session?.role === "instructor" }).data ?? [];
  const link = made?.code ? `${location.origin}/join?code=${made.code}` : "";
  const code = useQuery({ ...q.qr(link), enabled: link !== "" }).data;
  return (
    <>
      <Press onClick={() => setOpen(true)}>Their phones</Press>
      <Sheet open={open} close={() => setOpen(false)} title="Learners' phones">
        {session?.role === "open" ? (
          <Box>
            Learners' phones can join when the server listens on the boat's network: start it with{" "}
            <code>--addr 0.0.0.0:8080</code>. Then you sign in with a passphrase, and they join with a code.
          </Box>
        ) : (
          <>
            <Box>
              With a code of the lesson a phone gets its learner's own list, showing, drills and tries of his
              own, and nothing of others. It ends with the lesson.
            </Box>
            {made?.code ? (
              <Flex gap="5" mt="3" align="center" wrap="wrap" data-testid="join">
                <Svg text={code} w="220px" h="220px" bg="white" p="2" />
                <Box>
                  <Box className="head" fontSize="48px" letterSpacing="2px" data-code={made.code}>
                    {made.code}
                  </Box>
                  {location.host}/join
                  <Box color="quiet">
                    until{" "}
                    {new Date(made.expires).toLocaleTimeString(undefined, {
                      hour: "2-digit",
                      minute: "2-digit",
                      hour12: false,
                    })}
                  </Box>
                </Box>
              </Flex>
            ) : (
              <Flex gap="2" mt="3" wrap="wrap">
                {[60, 120, 240].map((m) => (
                  <Press key={m} onClick={() => add.mutate(m, { onSuccess: setMade })}>
                    A code for {m / 60} h
                  </Press>
                ))}
              </Flex>
            )}
            {joins.map((j) => (
              <Flex key={j.id} align="center" gap="3" mt="2">
                <Box flex="1">
                  A code{j.group ? ` for ${j.group}` : ""} holds until{" "}
                  {new Date(j.expires).toLocaleTimeString(undefined, {
                    hour: "2-digit",
                    minute: "2-digit",
                    hour12: false,
                  })}
                </Box>
                <Press small onClick={() => end.mutate(j.id, { onSuccess: () => setMade(undefined) })}>
                  End it
                </Press>
              </Flex>
            ))}
            <Trouble error={add.error ?? end.error} />
          </>
        )}
      </Sheet>
    </>
  );
}
