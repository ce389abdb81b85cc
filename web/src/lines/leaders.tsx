import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../api/client";
import { useCatalogue, useKept } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { typedNumber as number, poundsPerKN } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";
import { Pick, Typed } from "../ui/pick";
import { Sheet } from "../ui/sheet";
import { Files } from "./files";
import { LinesNav } from "./nav";
import { lq } from "./queries";
import { TripSheet } from "./trip";

const pounds = (lb: string) => Math.round((1e4 * number(lb)) / poundsPerKN) / 1e4;

type Left = Schemas["LeaderCard"];
type Book = Schemas["LeaderBook"];

/** Leaders in use: what each change takes, how many are left, when the next is due. */
export function LeadersView() {
  const { data, error } = useQuery(q.leaders());
  const [plan, setPlan] = useState(false);
  const [trip, setTrip] = useState(false);
  return (
    <Page maxW="1200px">
      <LinesNav />
      <Flex gap="3" align="center" wrap="wrap">
        <Title>Leaders</Title>
        <Box flex="1" />
        <Files kind="leaders" />
        <Press onClick={() => setTrip(true)}>Line for a trip</Press>
        <Press look="main" onClick={() => setPlan(true)}>
          A new leader
        </Press>
      </Flex>
      <Box color="quiet" mt="1" maxW="66ch">
        Every knot that is cut off and tied again takes a piece of the leader. Touch once for each change.
      </Box>
      <Trouble error={error} />
      <Grid templateColumns="repeat(auto-fill, minmax(min(340px, 100%), 1fr))" gap="4" mt="4">
        {data?.map((l) => (
          <LeaderCard key={l.id} leader={l} />
        ))}
      </Grid>
      {data?.length === 0 && <Card mt="3">None is in use yet.</Card>}
      {plan && <Plan close={() => setPlan(false)} />}
      {trip && <TripSheet leaders={data ?? []} close={() => setTrip(false)} />}
    </Page>
  );
}

function LeaderCard({ leader: l }: { leader: Left }) {
  const save = useKept((b: Book) =>
    unwrap(
      api.PUT("/api/v1/leaders/{id}", {
        params: { path: { id: b.id }, header: { "If-Match": `"${b.revision}"` } },
        body: b,
      }),
    ),
  );
  const tippet = useKept((id: number) =>
    unwrap(api.POST("/api/v1/leaders/{id}/tippet", { params: { path: { id } } })),
  );
  const remove = useKept((id: number) =>
    unwrap(api.DELETE("/api/v1/leaders/{id}", { params: { path: { id } } })),
  );
  const book = (part: Partial<Book>): Book =>
    ({
      id: l.id,
      revision: l.revision,
      name: l.name,
      length_m: l.length_m,
      shortest_m: l.shortest_m,
      knot: l.knot,
      line: l.line,
      changes: l.changes,
      lost_m: l.lost_m,
      action_m: l.action_m,
      sections: l.sections,
      begun: l.begun,
      own: l.own,
      ...part,
    }) as Book;
  return (
    <Card
      p="4"
      data-leader={l.name}
      borderColor={l.low ? "flare" : "rule"}
      borderWidth={l.low ? "2px" : "1.5px"}
    >
      <Flex gap="3" align="center">
        <Box flex="1" minW="0">
          <Box className="head" fontSize="lg">
            {l.name}
          </Box>
          <Box color="quiet">
            {l.knot_name}, {l.now_m.toFixed(2)} m of {l.length_m} m
            {l.spool_name ? `, from ${l.spool_name}` : ""}
          </Box>
        </Box>
        <Drawing id={l.knot} name={l.knot_name} drawn w="84px" h="56px" aria-hidden />
      </Flex>
      <Taper leader={l} />
      <Flex align="center" gap="4" mt="1">
        <Box className="head" fontSize="52px" lineHeight="1" color={l.low ? "flare" : "ink"} data-left="">
          {l.changes_left}
        </Box>
        <Box flex="1">
          {l.says.map((s) => (
            <Box key={s}>{s}</Box>
          ))}
          <Evidence tag={l.tag} source="what the knot and its trimmed end hold of the line" />
        </Box>
      </Flex>
      <Flex gap="2" mt="3" wrap="wrap">
        <Press look="main" flex="1" onClick={() => save.mutate(book({ changes: (l.changes ?? 0) + 1 }))}>
          Tied again
        </Press>
        <Press
          disabled={!l.changes}
          onClick={() => save.mutate(book({ changes: Math.max(0, (l.changes ?? 0) - 1) }))}
        >
          Take one back
        </Press>
        <Press onClick={() => save.mutate(book({ lost_m: Math.round(100 * ((l.lost_m ?? 0) + 0.1)) / 100 }))}>
          10 cm spoilt
        </Press>
        {l.add_m > 0 && <Press onClick={() => tippet.mutate(l.id)}>New tippet on</Press>}
        <Press look="bare" onClick={() => remove.mutate(l.id)}>
          Done with it
        </Press>
      </Flex>
      <Trouble error={save.error ?? tippet.error ?? remove.error} />
    </Card>
  );
}

/** The leader to scale: its sections from the reel down, what is left of the last, and where it becomes too short. */
function Taper({ leader: l }: { leader: Left }) {
  const above = (l.sections ?? []).map((s) => s.length_m);
  const whole = above.reduce((a, b) => a + b, 0) + l.length_m;
  const x = (m: number) => 8 + (284 * m) / whole;
  const from = whole - l.length_m;
  const colour = l.low ? "var(--flare)" : "var(--glass)";
  let at = 0;
  return (
    <svg viewBox="0 0 300 34" width="100%" aria-hidden="true">
      {above.map((m, i) => {
        const [a, b] = [at, at + m];
        at = b;
        return (
          <path
            key={a}
            d={`M${x(a)} 15H${x(b)}`}
            stroke="var(--rope-1-edge)"
            strokeWidth={10 - (4 * i) / Math.max(1, above.length)}
          />
        );
      })}
      <path d={`M${x(from)} 15H${x(whole)}`} stroke="var(--line)" strokeWidth="3" strokeDasharray="4 5" />
      <path
        d={`M${x(from)} 15H${x(from + Math.max(0, l.now_m))}`}
        stroke={colour}
        strokeWidth="5"
        strokeLinecap="round"
      />
      {above.map((_, i) => {
        const join = above.slice(0, i + 1).reduce((a, b) => a + b, 0);
        return (
          <circle
            key={join}
            cx={x(join)}
            cy="15"
            r="6"
            fill="var(--rope-1)"
            stroke="var(--rope-1-edge)"
            strokeWidth="2"
          />
        );
      })}
      <path
        d={`M${x(from + l.shortest_m)} 5V25`}
        stroke="var(--flare)"
        strokeWidth="2.4"
        strokeLinecap="round"
      />
      {l.action_m ? (
        <path
          d={`M${x(from + l.action_m)} 7V23`}
          stroke="var(--amber)"
          strokeWidth="2.4"
          strokeDasharray="3 2"
        />
      ) : null}
      <circle
        cx={x(from + Math.max(0, l.now_m))}
        cy="15"
        r="7"
        fill="var(--rope-1)"
        stroke="var(--rope-1-edge)"
        strokeWidth="2"
      />
    </svg>
  );
}

function Plan({ close }: { close: () => void }) {
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
