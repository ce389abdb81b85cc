import { Box, chakra, Flex, Input, Table } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { useCatalogue, useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Evidence, Sign } from "../ui/evidence";
import { force, length, range, reach, seconds, times } from "../ui/format";
import { Cautions, Trouble } from "../ui/notes";
import { Page, Title } from "../ui/page";
import { Select } from "../ui/pick";
import { Pictured } from "../ui/pictured";

const mark = { holds: "✓", marginal: "▲", "pulls through": "✕" } as const;
const tint = { holds: "glassWash", marginal: "amberWash", "pulls through": "flareWash" } as const;

type Clamp = Schemas["ShackleClamp"];

/** Every clamp with every stopper: which go together. */
export function SoftShackle() {
  const [typed, setTyped] = useState({ diameter: "6 mm", material: "hmpe", clear: "100 mm", load: "" });
  const [pair, setPair] = useState<{ clamp: string; stopper: string }>();
  const { data, error } = useLasting(q.shackle({ ...typed, ...pair }));
  const materials = useCatalogue().data?.materials ?? [];
  const set = (part: Partial<typeof typed>) => setTyped({ ...typed, ...part });
  return (
    <Page maxW="1160px">
      <Title>Soft shackle</Title>
      <Box color="quiet">
        A clamp closes on the tails, a stopper keeps them from running out. The stopper must be a fifth
        bulkier than the clamp leaves open.
      </Box>
      {data && (
        <Box mt="3">
          <Cautions list={data.cautions} />
        </Box>
      )}
      <Flex mt="3" gap="4" wrap="wrap" align="center">
        <Cord>
          Cord
          <Input value={typed.diameter} onChange={(e) => set({ diameter: e.target.value })} w="90px" />
        </Cord>
        <Cord>
          of
          <Select
            label="Material of the cord"
            value={typed.material}
            set={(material) => set({ material })}
            list={materials.filter((m) => !m.unknotted && !m.fishing)}
          />
        </Cord>
        <Cord>
          Clear inside
          <Input value={typed.clear} onChange={(e) => set({ clear: e.target.value })} w="100px" />
        </Cord>
        <Cord>
          Load
          <Input
            value={typed.load}
            placeholder="none given"
            onChange={(e) => set({ load: e.target.value })}
            w="120px"
          />
        </Cord>
        <Evidence
          tag="memory"
          source="openings and bulks are our own estimates, from memory: pull yours before you trust it"
        />
      </Flex>
      {data && (
        <Box mt="2">
          One part of this cord bears {range(data.cord_kn, (kN) => force(kN, false))}, wet; four parts bear in
          a closed shackle, at the weaker of its two knots.
          <Evidence tag={data.cord_kn.tag} source={data.cord_kn.source} />
        </Box>
      )}
      <Box mt="2">
        <Trouble error={error} />
      </Box>
      {data && <Matrix rows={data.rows} pair={pair} choose={setPair} />}
      {data?.tying && <Tying tying={data.tying} />}
      <Press asChild mt="5" className="no-print">
        <Link to="/jobs">All jobs</Link>
      </Press>
    </Page>
  );
}

const Cord = chakra("label", { base: { display: "flex", gap: "3", alignItems: "center" } });

type Choice = {
  pair: { clamp: string; stopper: string } | undefined;
  choose: (pair: { clamp: string; stopper: string }) => void;
};

function Matrix({ rows, ...choice }: { rows: Clamp[] } & Choice) {
  const knots = useCatalogue().data?.knots;
  return (
    <Box overflowX="auto" mt="3">
      <Table.Root className="matrix" data-testid="shackle" borderCollapse="separate" borderSpacing="6px">
        <Table.Header>
          <Table.Row>
            <Table.ColumnHeader>Clamp ↓ Stopper →</Table.ColumnHeader>
            {rows[0]?.cells.map((c) => (
              <Table.ColumnHeader key={c.knot} fontSize="md">
                <Link to={`/knots/${c.knot}`} className="link">
                  {c.name}
                </Link>
                <Box fontWeight="400">{length(c.bulk_mm)}</Box>
              </Table.ColumnHeader>
            ))}
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {rows.map((r) => (
            <Row
              key={r.knot}
              clamp={r}
              drawn={knots?.find((k) => k.id === r.knot)?.drawn ?? true}
              {...choice}
            />
          ))}
        </Table.Body>
      </Table.Root>
      {rows
        .filter((r) => r.never)
        .map((r) => (
          <Box key={r.knot} mt="2">
            <strong>{r.name}:</strong> {r.never}
          </Box>
        ))}
    </Box>
  );
}

function Row({ clamp: r, drawn, pair, choose }: { clamp: Clamp; drawn: boolean } & Choice) {
  return (
    <Table.Row>
      <Table.ColumnHeader scope="row" fontWeight="400" minW="150px" p="0">
        <Flex align="center" gap="2">
          <Drawing id={r.knot} name={r.name} drawn={drawn} w="64px" h="54px" flex="none" />
          <Box>
            <Link to={`/knots/${r.knot}`} className="link strong">
              {r.name}
            </Link>
            <Box fontSize="sm">leaves {length(r.opening_mm)}</Box>
          </Box>
        </Flex>
      </Table.ColumnHeader>
      {r.cells.map((c) => (
        <Table.Cell
          key={c.knot}
          title={c.says}
          data-column={`${c.name}, ${length(c.bulk_mm)}`}
          p="0"
          verticalAlign="top"
        >
          <Box bg={tint[c.word]} borderRadius="sm" p="2" minH="64px" fontSize="sm" data-word={c.word}>
            <strong>
              {mark[c.word]} {c.word}
            </strong>
            <div>
              {seconds(c.seconds)}; cut {reach(c.cut_m)}
            </div>
            <div>
              bears {range(c.capacity_kn, (kN) => force(kN, false))} <Sign tag={c.capacity_kn.tag} />
              {c.times ? `, ${times(c.times)} × the load` : ""}
            </div>
            {c.first && <div>{c.first}</div>}
            {c.word !== "pulls through" && (
              <Press
                small
                look="bare"
                ms="-2"
                aria-label={`How ${r.name.toLowerCase()} with ${c.name.toLowerCase()} is tied`}
                aria-pressed={pair?.clamp === r.knot && pair.stopper === c.knot}
                onClick={() => choose({ clamp: r.knot, stopper: c.knot })}
              >
                Tie it
              </Press>
            )}
          </Box>
        </Table.Cell>
      ))}
    </Table.Row>
  );
}

/** One shackle, from cord to test. */
function Tying({ tying: t }: { tying: Schemas["ShackleTying"] }) {
  const to = useRef<HTMLDivElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another pair brings it into sight anew
  useEffect(() => {
    to.current?.scrollIntoView({ block: "start", behavior: "smooth" });
  }, [t.clamp, t.stopper]);
  return (
    <Box ref={to} mt="5" data-testid="tying" scrollMarginTop="16">
      <Box as="h2" className="head" fontSize="2xl">
        {t.clamp_name}, {t.stopper_name.toLowerCase()}
      </Box>
      <Box color="quiet">
        {t.stopper_first
          ? "In cord this thick the stoppers are tied first."
          : "The clamp first, both tails through it, then the stopper."}
      </Box>
      <Box mt="3">
        <Pictured
          steps={t.steps.map((s) => ({ says: s.says, knot: s.knot, options: { step: s.step, way: s.way } }))}
        />
      </Box>
    </Box>
  );
}
