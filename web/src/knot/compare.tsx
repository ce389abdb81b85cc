import { Box, Flex, Grid } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { Link } from "react-router";
import type { KnotPage } from "../api/client";
import { useCatalogue, useKnot } from "../api/hooks";
import { useAddress } from "../ui/address";
import { Press } from "../ui/button";
import { Drawing, type Look } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { capital, range, seconds } from "../ui/format";
import { Hardness } from "../ui/hardness";
import { Trouble } from "../ui/notes";
import { Pick } from "../ui/pick";

/** Two knots side by side. */
export function CompareView() {
  const catalogue = useCatalogue().data;
  const [params, change] = useAddress();
  const ids = [params.get("a") ?? "bowline", params.get("b") ?? "sheet-bend"] as const;
  const a = useKnot(ids[0]);
  const b = useKnot(ids[1]);
  const list = [...(catalogue?.knots ?? [])]
    .sort((x, y) => x.name.localeCompare(y.name))
    .map((k) => ({ id: k.id, name: k.name }));
  const material = params.get("in") ?? "polyester";
  return (
    <Box as="main" w="100%" maxW="1000px" mx="auto" px={{ base: 3, md: 6 }} py="5">
      <Box as="h1" fontSize="30px">
        Two knots compared
      </Box>
      <Trouble error={a.error ?? b.error} />
      <Grid templateColumns={{ base: "1fr 1fr", md: "1fr 1fr 220px" }} gap="3" mt="3">
        <Pick label="This" value={ids[0]} set={(a) => change({ a })} list={list} />
        <Pick label="or this" value={ids[1]} set={(b) => change({ b })} list={list} />
        <Pick
          label="in"
          value={material}
          set={(v) => change({ in: v })}
          list={catalogue?.materials.map((m) => ({ id: m.id, name: m.name })) ?? []}
        />
      </Grid>
      {a.data && b.data && catalogue && (
        <Table a={a.data} b={b.data} material={material} tasks={catalogue.tasks} />
      )}
    </Box>
  );
}

const forMaterial = <T extends { materials?: string[] }>(list: T[] | undefined, material: string) =>
  list?.find((e) => !e.materials?.length || e.materials.includes(material));

function Table(props: { a: KnotPage; b: KnotPage; material: string; tasks: { id: string; name: string }[] }) {
  const { a, b, material, tasks } = props;
  const percent = (v: number) => `${Math.round(v * 100)} %`;
  const kin = [...a.grows_from, ...a.leads_to].find((r) => r.knot === b.id);
  const shared = tasks.filter((t) => a.tasks[t.id] && b.tasks[t.id]);
  const row = (name: string, cell: (k: KnotPage) => ReactNode) => (
    <Box key={name} display="contents">
      <Box
        gridColumn="1 / -1"
        fontSize="14.5px"
        color="quiet"
        borderTop="1px solid"
        borderColor="rule"
        pt="1.5"
        mt="1.5"
      >
        {name}
      </Box>
      <Box minW="0">{cell(a)}</Box>
      <Box minW="0">{cell(b)}</Box>
    </Box>
  );
  const strength = (k: KnotPage) => {
    if (k.refuses?.[material]) return `Not tied in it: ${k.refuses[material]}.`;
    const e = forMaterial(k.efficiency, material);
    if (!e) return "–";
    const figure = { ...e.value, tag: e.tag, source: e.source };
    return (
      <Flex gap="2" align="center" wrap="wrap">
        <Bar low={e.value.low} likely={e.value.likely} high={e.value.high} />
        <strong>{range(figure, percent)}</strong> then {e.fails}
        <Evidence tag={e.tag} source={e.source} />
      </Flex>
    );
  };
  const hold = (k: KnotPage) => {
    if (k.network) return "By friction: worked out in the rig, from line and object.";
    const h = forMaterial(k.hold, material);
    return h ? `${h.dry} dry, ${h.wet} wet: ${h.why}` : "–";
  };
  return (
    <Grid templateColumns="1fr 1fr" columnGap="5" rowGap="1" mt="4" data-testid="compared">
      {[a, b].map((k) => (
        <Box key={k.id} minW="0">
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
            borderRadius="12px"
          />
          <Box as="h2" fontSize={{ base: "20px", md: "24px" }} mt="2">
            <Link to={`/knots/${k.id}`}>{k.name}</Link>
          </Box>
          <Box color="quiet">{k.summary}</Box>
        </Box>
      ))}
      {kin && (
        <Box gridColumn="1 / -1" bg="amberWash" borderRadius="10px" px="4" py="2" mt="2">
          They share their structure: {kin.why}. Teach one from the other.
        </Box>
      )}
      {shared.map((t) =>
        row(`To ${t.name}`, (k) => {
          const suits = k.tasks[t.id];
          return suits ? (
            <>
              {suits.fit >= 0.7 ? "● " : suits.fit >= 0.4 ? "◐ " : "○ "}
              {capital(suits.why)}.
            </>
          ) : null;
        }),
      )}
      {shared.length === 0 &&
        row("Made for", (k) =>
          tasks
            .filter((t) => (k.tasks[t.id]?.fit ?? 0) >= 0.7)
            .map((t) => capital(t.name))
            .join("; "),
        )}
      {row("Strength kept", strength)}
      {row("Hold", (k) => `${capital(hold(k)).replace(/\.$/, "")}.`)}
      {row("Shaken", (k) => `${capital(k.shake.why)}.`)}
      {row("Coming off", (k) => k.release.how)}
      {row("Time, practised", (k) => (
        <Flex gap="2" align="center">
          {range(k.seconds, seconds)}
          <Evidence tag={k.seconds.tag} source={k.seconds.source} />
        </Flex>
      ))}
      {row("Hard to learn", (k) => (
        <Hardness of={k.difficulty} />
      ))}
      {row("Right when", (k) => k.checks.join(" "))}
      {row("Goes wrong", (k) => k.faults.map((f) => f.name).join("; "))}
      <Box gridColumn="1 / -1" mt="4">
        <Link to="/knots">
          <Press as="span">All knots</Press>
        </Link>
      </Box>
    </Grid>
  );
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
