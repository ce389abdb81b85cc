import { Box, Field, Flex, Grid, Textarea } from "@chakra-ui/react";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../api/client";
import { useKept } from "../api/hooks";
import { Press } from "../ui/button";
import { typedNumber as number } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Typed } from "../ui/pick";
import { Sheet } from "../ui/sheet";
import { SlipGauge } from "./gauge";
import { gave, type Outcome, outcomes, type Where, wheres } from "./words";

export type Draft = Pick<
  Schemas["BenchPull"],
  "key" | "series" | "a" | "b" | "source" | "outcome" | "where" | "gap" | "noted"
> & { peak: string; at?: string };

/** Says what happened in a pull, and keeps it. */
export function Record(props: {
  draft: Draft;
  names: [string, string];
  close: () => void;
  /** Throws the readings away. */
  discard?: () => void;
}) {
  const { draft, names, close, discard } = props;
  const [outcome, setOutcome] = useState<Outcome>(draft.outcome);
  const [where, setWhere] = useState<Where | undefined>(draft.where);
  const [peak, setPeak] = useState(draft.peak);
  const [creep, setCreep] = useState<[string, string]>(["", ""]);
  const [note, setNote] = useState("");
  const [gauge, setGauge] = useState<number>();
  const save = useKept((body: Schemas["BenchPull"]) => unwrap(api.POST("/api/v1/pulls", { body })));
  const send = () => {
    const { peak: _, ...rest } = draft;
    const body = {
      ...rest,
      id: 0,
      revision: 0,
      outcome,
      where: gave(outcome) || (outcome === "caught" && where) ? where : undefined,
      peak_kn: number(peak),
      creep_a_mm: creep[0].trim() ? number(creep[0]) : undefined,
      creep_b_mm: creep[1].trim() ? number(creep[1]) : undefined,
      note: note.trim() || undefined,
    } as Schemas["BenchPull"];
    save.mutate(body, { onSuccess: close });
  };
  const called = (id: Where) => {
    const n = id.endsWith("a") && id !== "line" ? names[0] : id.endsWith("b") ? names[1] : undefined;
    const says = wheres.find((w) => w.id === id)?.name ?? id;
    return n ? `${says}: ${n}` : says;
  };
  return (
    <Sheet
      open
      wide
      firm
      close={close}
      title="What happened?"
      foot={
        <>
          {discard && (
            <Press look="bare" onClick={discard}>
              Throw the readings away
            </Press>
          )}
          <Press onClick={close}>Later</Press>
          <Press look="main" onClick={send} disabled={save.isPending}>
            Keep this pull
          </Press>
        </>
      }
    >
      <Flex gap="2" wrap="wrap" role="group" aria-label="What happened">
        {outcomes.map((o) => (
          <Press key={o.id} aria-pressed={outcome === o.id} onClick={() => setOutcome(o.id)}>
            {o.name}
          </Press>
        ))}
      </Flex>
      {(gave(outcome) || outcome === "caught") && (
        <>
          <Box mt="4" mb="1" fontWeight="700">
            {outcome === "caught" ? "Where it gave in the end, if it did" : "Where?"}
          </Box>
          <Grid
            gap="2"
            templateColumns="repeat(auto-fill, minmax(190px, 1fr))"
            role="group"
            aria-label="Where"
          >
            {wheres.map((w) => (
              <Press
                key={w.id}
                aria-pressed={where === w.id}
                onClick={() => setWhere(where === w.id ? undefined : w.id)}
              >
                {called(w.id)}
              </Press>
            ))}
          </Grid>
        </>
      )}
      <Grid mt="4" gap="3" templateColumns={{ base: "1fr", md: "repeat(3, 1fr)" }}>
        <Typed label="Highest load, kN" value={peak} set={setPeak} />
        <Typed label="Mark crept at A, mm" value={creep[0]} set={(v) => setCreep([v, creep[1]])} />
        <Typed label="Mark crept at B, mm" value={creep[1]} set={(v) => setCreep([creep[0], v])} />
      </Grid>
      <Flex mt="1" gap="3" wrap="wrap">
        {(["A", "B"] as const).map((end, i) => (
          <Press key={end} small look="bare" onClick={() => setGauge(i)}>
            {end} out of two photographs
          </Press>
        ))}
      </Flex>
      <Box mt="3">
        <Field.Root>
          <Field.Label>Note</Field.Label>
          <Textarea
            value={note}
            onChange={(e) => setNote(e.target.value)}
            rows={2}
            w="100%"
            px="2"
            border="1.5px solid"
            borderColor="ink"
            borderRadius="sm"
          />
        </Field.Root>
      </Box>
      {draft.gap && (
        <Box mt="2" color="flare">
          The connection was lost for a while: readings are missing in between.
        </Box>
      )}
      <Trouble error={save.error} />
      {gauge !== undefined && (
        <SlipGauge
          close={() => setGauge(undefined)}
          found={(mm) => {
            setCreep(gauge === 0 ? [String(mm), creep[1]] : [creep[0], String(mm)]);
            setGauge(undefined);
          }}
        />
      )}
    </Sheet>
  );
}
