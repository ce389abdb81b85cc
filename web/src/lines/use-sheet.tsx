import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, unwrap } from "../api/client";
import { useCatalogue, useKept } from "../api/hooks";
import { Press } from "../ui/button";
import { typedNumber as number } from "../ui/format";
import { newKey } from "../ui/key";
import { Trouble } from "../ui/notes";
import { Pick, Typed } from "../ui/pick";
import { Picture } from "../ui/picture";
import { Sheet } from "../ui/sheet";
import { lq, type Outcome, type Use } from "./queries";
import { outcomes } from "./words";

/** What was rigged where, and what came of it. */
export function UseSheet(p: { line?: string; knot?: string; rig?: string; close: () => void }) {
  const locker = useQuery(lq.locker()).data ?? [];
  const knots = useCatalogue().data?.knots ?? [];
  const [key] = useState(newKey);
  const [f, setF] = useState({
    where: "",
    rig: p.rig ?? "",
    line: p.line ?? "",
    other: "",
    knot: p.knot ?? "",
    outcome: "held" as Outcome,
    at: "",
    hours: "",
    place: "",
    wind: "",
    note: "",
    photo: 0,
  });
  const set = (part: Partial<typeof f>) => setF((now) => ({ ...now, ...part }));
  const save = useKept((body: Use) => unwrap(api.POST("/api/v1/uses", { body })));
  const send = () =>
    save.mutate(
      {
        key,
        where: f.where,
        rig: f.rig || undefined,
        line: f.line || undefined,
        other: f.other || undefined,
        knot: f.knot || undefined,
        outcome: f.outcome,
        at: f.at ? new Date(f.at).toISOString() : undefined,
        hours: f.hours ? number(f.hours) : undefined,
        place_m: f.place ? number(f.place) : undefined,
        wind_kn: f.wind ? number(f.wind) : undefined,
        note: f.note || undefined,
        photo: f.photo || undefined,
      } as Use,
      { onSuccess: p.close },
    );
  const lines = locker.map((l) => ({ id: l.code ?? "", name: l.name }));
  return (
    <Sheet
      open
      firm
      wide
      close={p.close}
      title="A use, for the log"
      foot={
        <>
          <Press onClick={p.close}>Leave it</Press>
          <Press look="main" onClick={send} disabled={save.isPending}>
            Log it
          </Press>
        </>
      }
    >
      <Flex gap="2" wrap="wrap" role="group" aria-label="What happened">
        {outcomes.map((o) => (
          <Press key={o.id} aria-pressed={f.outcome === o.id} onClick={() => set({ outcome: o.id })}>
            <span aria-hidden="true">{o.sign}</span> {o.name}
          </Press>
        ))}
      </Flex>
      <Grid gap="3" mt="3" templateColumns={{ base: "1fr", sm: "1fr 1fr", md: "1fr 1fr 1fr" }}>
        <Typed label="Where" value={f.where} set={(where) => set({ where })} />
        <Pick
          label="Line"
          any="no line of the locker"
          value={f.line}
          set={(line) => set({ line })}
          list={lines}
        />
        <Pick
          label="Knot"
          any="none, or not known"
          value={f.knot}
          set={(knot) => set({ knot })}
          list={knots}
        />
        {f.line && (
          <Pick
            label="Joined to"
            any="nothing"
            value={f.other}
            set={(other) => set({ other })}
            list={lines.filter((l) => l.id !== f.line)}
          />
        )}
        <Typed label="What it was, in words" value={f.rig} set={(rig) => set({ rig })} />
        <Typed label="When" type="datetime-local" value={f.at} set={(at) => set({ at })} />
        <Typed label="Hours in use" value={f.hours} set={(hours) => set({ hours })} />
        <Typed label="Place on the line, m" value={f.place} set={(place) => set({ place })} />
        <Typed label="Wind, knots" value={f.wind} set={(wind) => set({ wind })} />
        <Typed label="Note" value={f.note} set={(note) => set({ note })} />
      </Grid>
      <Box mt="3">
        <Picture of="it" id={f.photo || undefined} set={(photo) => set({ photo })} />
      </Box>
      <Box mt="2">
        <Trouble error={save.error} />
      </Box>
    </Sheet>
  );
}
