import { Box, Flex, Grid, Heading } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Link } from "react-router";
import type { KnotPage } from "../api/client";
import { useCatalogue } from "../api/hooks";
import { q } from "../api/queries";
import { useAddress } from "../ui/address";
import { Press } from "../ui/button";
import { Drawing, type Look } from "../ui/drawing";
import { Evidence, inSpace } from "../ui/evidence";
import { capital, length, range, seconds } from "../ui/format";
import { Hardness } from "../ui/hardness";
import { Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";
import { Pick } from "../ui/pick";

/** Two knots side by side. */
export function CompareView() {
  const catalogue = useCatalogue().data;
  const [params, change] = useAddress();
  const ids = [params.get("a") ?? "bowline", params.get("b") ?? "sheet-bend"] as const;
  const a = useQuery(q.knot(ids[0]));
  const b = useQuery(q.knot(ids[1]));
  const list = [...(catalogue?.knots ?? [])]
    .sort((x, y) => x.name.localeCompare(y.name))
    .map((k) => ({ id: k.id, name: k.name }));
  const material = params.get("in") ?? "polyester";
  return (
    <Page>
      <Title>Two knots compared</Title>
      <Trouble error={a.error ?? b.error} />
      <Grid templateColumns={{ base: "1fr 1fr", md: "1fr 1fr 220px" }} gap="3" mt="3">
        <Pick label="This" value={ids[0]} set={(a) => change({ a })} list={list} />
        <Pick label="or this" value={ids[1]} set={(b) => change({ b })} list={list} />
        <Pick label="in" value={material} set={(v) => change({ in: v })} list={catalogue?.materials ?? []} />
      </Grid>
      {a.data && b.data && catalogue && (
        <Compared
          a={a.data}
          b={b.data}
          material={material}
          tasks={catalogue.tasks}
          mm={Number(params.get("mm")) || 0}
        />
      )}
    </Page>
  );
}

const forMaterial = <T extends { materials?: string[]; tasks?: string[] }>(
  list: T[] | undefined,
  material: string,
) => list?.find((e) => !e.tasks?.length && (!e.materials?.length || e.materials.includes(material)));

type Tasks = { id: string; name: string }[];

function Compared(props: { a: KnotPage; b: KnotPage; material: string; tasks: Tasks; mm: number }) {
  const { a, b, material, tasks, mm } = props;
  const kin = [...a.grows_from, ...a.leads_to].find((r) => r.knot === b.id);
  return (
    <Grid templateColumns="1fr 1fr" columnGap="5" rowGap="1" mt="4" data-testid="compared">
      <Top knot={a} />
      <Top knot={b} />
      {kin && (
        <Card kind="note" gridColumn="1 / -1" mt="2">
          They share their structure: {kin.why}. Teach one from the other.
        </Card>
      )}
      {rows(a, b, material, tasks, mm).map((r) => (
        <Box key={r.name} display="contents">
          <Box
            gridColumn="1 / -1"
            fontSize="sm"
            color="quiet"
            borderTop="1px solid"
            borderColor="rule"
            pt="1.5"
            mt="1.5"
          >
            {r.name}
          </Box>
          <Box minW="0">{r.cell(a)}</Box>
          <Box minW="0">{r.cell(b)}</Box>
        </Box>
      ))}
      <Box gridColumn="1 / -1" mt="4">
        <Press asChild>
          <Link to="/knots">All knots</Link>
        </Press>
      </Box>
    </Grid>
  );
}

function Top({ knot: k }: { knot: KnotPage }) {
  return (
    <Box minW="0">
      <Drawing
        id={k.id}
        name={k.name}
        drawn={k.drawn}
        options={{ look: (k.kind === "terminal" ? "mono" : "laid") as Look }}
        h={{ base: "150px", md: "240px" }}
        p="3"
        bg="sheet"
        border="1.5px solid"
        borderColor="rule"
        borderRadius="md"
      />
      <Heading as="h2" fontSize={{ base: "lg", md: "xl" }} mt="2">
        <Link to={`/knots/${k.id}`}>{k.name}</Link>
      </Heading>
      <Box color="quiet">{k.summary}</Box>
    </Box>
  );
}

/** What is compared, row by row. */
function rows(a: KnotPage, b: KnotPage, material: string, tasks: Tasks, mm: number) {
  const row = (name: string, cell: (k: KnotPage) => ReactNode) => ({ name, cell });
  const shared = tasks.filter((t) => a.tasks[t.id] && b.tasks[t.id]);
  const made = row("Made for", (k) =>
    tasks
      .filter((t) => (k.tasks[t.id]?.fit ?? 0) >= 0.7)
      .map((t) => capital(t.name))
      .join("; "),
  );
  return [
    ...shared.map((t) => row(`To ${t.name}`, (k) => <Suits {...k.tasks[t.id]} />)),
    ...(shared.length === 0 ? [made] : []),
    row("Strength kept", (k) => <Kept knot={k} material={material} />),
    row("Hold", (k) => `${capital(hold(k, material)).replace(/\.$/, "")}.`),
    row("Shaken", (k) => `${capital(k.shake.why)}.`),
    row("Coming off", (k) => k.release.how),
    row("Time, practised", (k) => (
      <Flex gap="2" align="center">
        {range(k.seconds, seconds)}
        <Evidence tag={k.seconds.tag} source={k.seconds.source} />
      </Flex>
    )),
    row("Drawn up", (k) => (
      <Flex gap="2" align="center">
        about {mm ? `${length(k.bulk * mm)} thick in ${length(mm)} line, ` : ""}
        {k.bulk} times its line
        {k.bulk_remembered ? (
          <Evidence tag="computed" source={inSpace.source} />
        ) : (
          <Evidence tag="memory" source="how thick it draws up, our own estimate" />
        )}
      </Flex>
    )),
    row("Hard to learn", (k) => <Hardness of={k.difficulty} />),
    row("Right when", (k) => k.checks.join(" ")),
    row("Goes wrong", (k) => k.faults.map((f) => f.name).join("; ")),
  ];
}

function Suits({ fit = 0, why = "" }: Partial<KnotPage["tasks"][string]>) {
  return (
    <>
      {fit >= 0.7 ? "● " : fit >= 0.4 ? "◐ " : "○ "}
      {capital(why)}.
    </>
  );
}

function Kept({ knot: k, material }: { knot: KnotPage; material: string }) {
  if (k.refuses?.[material]) return <>Not tied in it: {k.refuses[material]}.</>;
  const e = forMaterial(k.efficiency, material);
  if (!e) return <>–</>;
  return (
    <Flex gap="2" align="center" wrap="wrap">
      <Bar low={e.value.low} likely={e.value.likely} high={e.value.high} />
      <strong>
        {range({ ...e.value, tag: e.tag, source: e.source }, (v) => `${Math.round(v * 100)} %`)}
      </strong>{" "}
      then {e.fails}
      <Evidence tag={e.tag} source={e.source} />
    </Flex>
  );
}

function hold(k: KnotPage, material: string): string {
  if (k.network) return "By friction: worked out in the rig, from line and object.";
  const h = forMaterial(k.hold, material);
  return h ? `${h.dry} dry, ${h.wet} wet: ${h.why}` : "–";
}

/** A share of the line's strength, drawn: solid to the low end, hatched to the high one. */
function Bar({ low, likely, high }: { low: number; likely: number; high: number }) {
  return (
    <svg width="100" height="16" viewBox="0 0 100 16" aria-hidden="true">
      <rect x="0.5" y="3" width="99" height="10" rx="5" fill="none" stroke="var(--line)" />
      <rect x="0" y="3" width={high * 100} height="10" rx="5" fill="var(--rope-1-light)" />
      <rect x="0" y="3" width={low * 100} height="10" rx="5" fill="var(--rope-1)" />
      <rect x={likely * 100 - 1} y="0" width="2" height="16" fill="var(--ink)" />
    </svg>
  );
}
