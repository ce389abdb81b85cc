import { Box, Flex, Grid } from "@chakra-ui/react";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../api/client";
import { useKept } from "../api/hooks";
import { Press } from "../ui/button";
import { typedNumber } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Typed } from "../ui/pick";
import { Picture } from "../ui/picture";
import { prefs, setPrefs } from "../ui/prefs";
import { Sheet } from "../ui/sheet";
import type { Look } from "./queries";
import { grades, parts } from "./words";

/** A line is run through the hands: a grade for each part, a picture of what is worn, the place of the worst. */
export function LookSheet({ line, close }: { line: Schemas["LockerLine"]; close: () => void }) {
  const [now, set] = useState<{
    by: string;
    grades: Record<string, number>;
    photos: Record<string, number>;
    place: string;
    note: string;
  }>({ by: prefs().name, grades: {}, photos: {}, place: "", note: "" });
  const save = useKept((body: Look) =>
    unwrap(
      api.POST("/api/v1/lines/{id}/looks", {
        params: { path: { id: line.id }, header: { "If-Match": `"${line.revision}"` } },
        body,
      }),
    ),
  );
  const worst = Math.max(-1, ...Object.values(now.grades));
  const send = () => {
    setPrefs({ name: now.by });
    save.mutate(
      {
        by: now.by,
        grades: now.grades,
        photos: Object.keys(now.photos).length > 0 ? now.photos : undefined,
        place_m: now.place ? typedNumber(now.place) : undefined,
        note: now.note || undefined,
      } as Look,
      { onSuccess: close },
    );
  };
  return (
    <Sheet
      open
      firm
      wide
      close={close}
      title={`Look over: ${line.name}`}
      foot={
        <>
          <Press onClick={close}>Leave it</Press>
          <Press look="main" onClick={send} disabled={save.isPending}>
            Keep what I found
          </Press>
        </>
      }
    >
      <Box color="quiet">Run all of it through your hands. Grade what you looked at; leave the rest out.</Box>
      {parts.map((p) => (
        <Flex
          key={p.id}
          role="group"
          aria-label={p.name}
          gap="2"
          align="center"
          wrap="wrap"
          py="2"
          borderTop="1px solid"
          borderColor="rule"
          mt="2"
        >
          <Box w={{ base: "100%", md: "230px" }}>
            <Box fontWeight="700">{p.name}</Box>
            <Box fontSize="sm" color="quiet">
              {p.look}
            </Box>
          </Box>
          <Grid gap="1" templateColumns="repeat(4, 1fr)" w={{ base: "100%", md: "400px" }}>
            {grades.map((name, g) => (
              <Press
                key={name}
                px="1"
                minH="56px"
                minW="0"
                flexDirection="column"
                gap="0"
                lineHeight="1.15"
                aria-pressed={now.grades[p.id] === g}
                onClick={() => {
                  const { [p.id]: had, ...rest } = now.grades;
                  set({ ...now, grades: had === g ? rest : { ...rest, [p.id]: g } });
                }}
              >
                <b>{g}</b>
                <Box as="span" fontSize="15px">
                  {name}
                </Box>
              </Press>
            ))}
          </Grid>
          {now.grades[p.id] !== undefined && (
            <Picture
              of={p.name}
              id={now.photos[p.id]}
              set={(id) => set((n) => ({ ...n, photos: { ...n.photos, [p.id]: id } }))}
            />
          )}
        </Flex>
      ))}
      {worst >= 3 && (
        <Box mt="2" fontWeight="700" color="flare">
          Something on it is to be retired: cut it up today, so that nobody hangs anything on it.
        </Box>
      )}
      <Flex gap="3" mt="3" wrap="wrap">
        <Box w="200px">
          <Typed label="Looked over by" value={now.by} set={(by) => set({ ...now, by })} />
        </Box>
        <Box w="200px">
          <Typed
            label="Worst place, m from its end"
            value={now.place}
            set={(place) => set({ ...now, place })}
          />
        </Box>
        <Box flex="1" minW="200px">
          <Typed label="Note" value={now.note} set={(note) => set({ ...now, note })} />
        </Box>
      </Flex>
      <Box mt="2">
        <Trouble error={save.error} />
      </Box>
    </Sheet>
  );
}
