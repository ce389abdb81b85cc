import { Box, Flex, Grid, Table } from "@chakra-ui/react";
import { useState } from "react";
import { Link } from "react-router";
import type { Catalogue, Schemas } from "../api/client";
import { useCatalogue, useLasting } from "../api/hooks";
import { type HoldQuery, q } from "../api/queries";
import { Press } from "../ui/button";
import { Evidence } from "../ui/evidence";
import { force, short } from "../ui/format";
import { Cautions, Trouble } from "../ui/notes";
import { Page, Title } from "../ui/page";
import { Pick, Typed } from "../ui/pick";

/** A hand force in newtons; friction is not known to more than two figures. */
const newtons = (n: number) => (n < 9950 ? `${short(Number(n.toPrecision(2)))} N` : force(n / 1000, false));

const hand = (n: number | null | undefined) =>
  n === null || n === undefined ? "none holds" : n === 0 ? "locks" : newtons(n);

const first: HoldQuery = {
  hitch: "turns",
  object: "100 mm",
  line: "12 mm",
  material: "polyester",
  surface: "polished-steel",
  wet: true,
  load: "2.4 kN",
  hand: "100 N",
};

/** How many turns, and what hand, hold a load. */
export function HoldView() {
  const catalogue = useCatalogue().data;
  const [query, setQuery] = useState(first);
  const { data, error } = useLasting(q.hold(query));
  const told = ["stored-energy", "memory-figures"];
  return (
    <Page maxW="900px">
      <Title>Turns and hand force</Title>
      <Inputs query={query} set={(part) => setQuery({ ...query, ...part })} catalogue={catalogue} />
      <Box mt="3">
        <Trouble error={error} />
      </Box>
      {data && (
        <Box opacity={error ? 0.45 : 1}>
          <HoldTable
            table={data}
            wet={query.wet}
            counts={catalogue?.hitches.find((h) => h.id === query.hitch)?.counts ?? ""}
          />
        </Box>
      )}
      <Box mt="4">
        <Cautions list={catalogue?.cautions.filter((c) => told.includes(c.id)) ?? []} />
      </Box>
      <Press asChild mt="5" className="no-print">
        <Link to="/jobs">All jobs</Link>
      </Press>
    </Page>
  );
}

const weather = [
  { id: "wet", name: "wet" },
  { id: "dry", name: "dry" },
];

function Inputs(props: {
  query: HoldQuery;
  set: (part: Partial<HoldQuery>) => void;
  catalogue: Catalogue | undefined;
}) {
  const { query: x, set, catalogue } = props;
  return (
    <Grid templateColumns={{ base: "1fr 1fr", md: "2fr 1fr 1fr 1fr" }} gap="3" mt="3">
      <Box gridColumn={{ base: "1 / -1", md: "auto" }}>
        <Pick
          label="Made fast with"
          value={x.hitch}
          set={(hitch) => set({ hitch })}
          list={catalogue?.hitches ?? []}
        />
      </Box>
      <Typed label="Thickness of the object" value={x.object} set={(object) => set({ object })} />
      <Typed label="Line" value={x.line} set={(line) => set({ line })} />
      <Pick
        label="Material"
        value={x.material}
        set={(material) => set({ material })}
        list={catalogue?.materials ?? []}
      />
      <Pick
        label="Surface"
        value={x.surface}
        set={(surface) => set({ surface })}
        list={catalogue?.surfaces ?? []}
      />
      <Pick
        label="Wet or dry"
        value={x.wet ? "wet" : "dry"}
        set={(w) => set({ wet: w === "wet" })}
        list={weather}
      />
      <Typed label="Load" value={x.load} set={(load) => set({ load })} />
      <Typed label="Your hand" value={x.hand} set={(h) => set({ hand: h })} />
    </Grid>
  );
}

function HoldTable({ table, wet, counts }: { table: Schemas["HoldTable"]; wet: boolean; counts: string }) {
  return (
    <>
      <Box className="head" fontSize="xl" mt="2" data-testid="hold">
        {table.says}
      </Box>
      {table.trade && (
        <Box data-testid="trade">
          From use, {wet ? "wet" : "dry"}: <strong>{table.trade.class}</strong> – {table.trade.why}. The
          ranking goes by this, not by the friction below. <Evidence tag={table.trade.tag} />
        </Box>
      )}
      <Table.Root mt="3" fontSize="clamp(14px, 4vw, 17px)">
        <Table.Header>
          <Table.Row>
            <Table.ColumnHeader>{counts}</Table.ColumnHeader>
            {["hand at the lowest friction", "likely", "highest", "locks by itself"].map((head) => (
              <Table.ColumnHeader key={head} textAlign="right">
                {head}
              </Table.ColumnHeader>
            ))}
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {table.rows.map((r) => (
            <Table.Row key={r.n} whiteSpace="nowrap" bg={table.turns === r.n ? "glassWash" : undefined}>
              <Table.Cell fontWeight="700">
                {table.turns === r.n && "✓ "}
                {r.n || "as made"}
              </Table.Cell>
              {[hand(r.lowest_n), hand(r.likely_n), hand(r.highest_n), often(r.locks)].map((text, i) => (
                <Table.Cell key={i} textAlign="right">
                  {text}
                </Table.Cell>
              ))}
            </Table.Row>
          ))}
        </Table.Body>
      </Table.Root>
      <Flex gap="2" mt="2" align="center" wrap="wrap" fontSize="md">
        Friction of this line {table.mu.low}, likely {table.mu.likely}, up to {table.mu.high}
        <Evidence tag={table.mu.tag} source={table.mu.source} />
        hand force
        <Evidence
          tag="computed"
          source="capstan equation and riding-turn theory; each hitch's events are on the page Method"
        />
      </Flex>
    </>
  );
}

const often = (locks: number) => (locks > 0 ? `${Math.round(locks * 100)} in 100` : "never");
