import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../api/client";
import { useCatalogue, useKept } from "../api/hooks";
import { Press } from "../ui/button";
import { typedNumber as number, poundsPerKN } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Pick, Typed } from "../ui/pick";
import { Sheet } from "../ui/sheet";
import { lq } from "./queries";

type Book = Schemas["LeaderBook"];

const pounds = (lb: string) => Math.round((1e4 * number(lb)) / poundsPerKN) / 1e4;

/** A leader is begun: its length, its knot, its line, and the sections above it. */
export function LeaderPlan({ close }: { close: () => void }) {
  const catalogue = useCatalogue().data;
  const [f, setF] = useState({
    name: "",
    length: "2.7",
    shortest: "2",
    knot: "non-slip-loop",
    material: "fluorocarbon",
    lb: "16",
    action: "",
    spool: "",
  });
  const [above, setAbove] = useState<{ length: string; lb: string }[]>([]);
  const spools = (useQuery(lq.locker()).data ?? []).filter((l) => l.label_kn && !l.retired);
  const set = (part: Partial<typeof f>) => setF((now) => ({ ...now, ...part }));
  const save = useKept((body: Book) => unwrap(api.POST("/api/v1/leaders", { body })));
  const send = () =>
    save.mutate(
      {
        id: 0,
        revision: 0,
        name: f.name,
        length_m: number(f.length),
        shortest_m: number(f.shortest),
        knot: f.knot,
        line: { material: f.material, label_kn: pounds(f.lb) },
        action_m: f.action ? number(f.action) : undefined,
        own: f.spool || undefined,
        sections:
          above.length > 0
            ? above.map((s) => ({
                length_m: number(s.length),
                knot: "double-uni",
                line: { material: "mono", label_kn: pounds(s.lb) },
              }))
            : undefined,
      } as Book,
      { onSuccess: close },
    );
  return (
    <Sheet
      open
      firm
      close={close}
      title="A new leader"
      foot={
        <>
          <Press onClick={close}>Close</Press>
          <Press look="main" onClick={send} disabled={save.isPending}>
            Begin it
          </Press>
        </>
      }
    >
      <Grid gap="3" templateColumns={{ base: "1fr", md: "1fr 1fr" }}>
        <Typed label="Name" value={f.name} set={(name) => set({ name })} />
        <Pick
          label="Knot that is tied again"
          value={f.knot}
          set={(knot) => set({ knot })}
          list={catalogue?.knots.map((k) => ({ id: k.id, name: k.name })) ?? []}
        />
        <Typed label="Length, m" value={f.length} set={(length) => set({ length })} />
        <Typed label="Too short below, m" value={f.shortest} set={(shortest) => set({ shortest })} />
        <Pick
          label="Line of"
          value={f.material}
          set={(m) => set({ material: m })}
          list={catalogue?.materials.filter((m) => m.fishing).map((m) => ({ id: m.id, name: m.name })) ?? []}
        />
        <Typed label="Strength on its label, lb" value={f.lb} set={(lb) => set({ lb })} />
        <Typed label="Its action changes below, m" value={f.action} set={(action) => set({ action })} />
        <Pick
          label="Cut from"
          any="no spool of the locker"
          value={f.spool}
          set={(spool) => {
            const l = spools.find((x) => x.code === spool);
            set({
              spool,
              ...(l
                ? { material: l.material, lb: String(Math.round(10 * (l.label_kn ?? 0) * poundsPerKN) / 10) }
                : {}),
            });
          }}
          list={spools.map((l) => ({ id: l.code ?? "", name: l.name }))}
        />
      </Grid>
      <Box mt="3" fontWeight="700">
        Sections above it, from the reel down
      </Box>
      {above.map((s, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a section has no name but its place.
        <Flex key={i} gap="2" mt="1" align="end">
          <Typed
            label={`Section ${i + 1}, m`}
            value={s.length}
            set={(length) => setAbove(above.map((x, k) => (k === i ? { ...x, length } : x)))}
          />
          <Typed
            label="lb"
            value={s.lb}
            set={(lb) => setAbove(above.map((x, k) => (k === i ? { ...x, lb } : x)))}
          />
          <Press look="bare" onClick={() => setAbove(above.filter((_, k) => k !== i))}>
            Remove
          </Press>
        </Flex>
      ))}
      <Press small mt="1" onClick={() => setAbove([...above, { length: "0.9", lb: "30" }])}>
        Add a section
      </Press>
      <Trouble error={save.error} />
    </Sheet>
  );
}
