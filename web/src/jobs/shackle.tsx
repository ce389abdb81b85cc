import { Box, chakra, Flex, Input, Table } from "@chakra-ui/react";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { useCatalogue, useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { length, seconds } from "../ui/format";
import { Cautions, Trouble } from "../ui/notes";
import { Page, Title } from "../ui/page";

const mark = { holds: "✓", marginal: "▲", "pulls through": "✕" } as const;
const tint = { holds: "glassWash", marginal: "amberWash", "pulls through": "flareWash" } as const;

type Clamp = Schemas["ShackleClamp"];

/** Every clamp with every stopper: which go together. */
export function SoftShackle() {
  const [typed, setTyped] = useState("6 mm");
  const { data, error } = useLasting(q.shackle(typed));
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
      <Cord mt="3">
        Cord
        <Input value={typed} onChange={(e) => setTyped(e.target.value)} w="110px" />
        <Evidence
          tag="memory"
          source="openings and bulks are our own estimates, from memory: pull yours before you trust it"
        />
      </Cord>
      <Box mt="2">
        <Trouble error={error} />
      </Box>
      {data && <Matrix rows={data.rows} />}
      <Press asChild mt="5" className="no-print">
        <Link to="/jobs">All jobs</Link>
      </Press>
    </Page>
  );
}

const Cord = chakra("label", { base: { display: "flex", gap: "3", alignItems: "center" } });

function Matrix({ rows }: { rows: Clamp[] }) {
  const knots = useCatalogue().data?.knots;
  return (
    <Box overflowX="auto" mt="3">
      <Table.Root className="matrix" data-testid="shackle" borderCollapse="separate" borderSpacing="6px">
        <Table.Header>
          <Table.Row>
            <Table.ColumnHeader>Clamp ↓ Stopper →</Table.ColumnHeader>
            {rows[0]?.cells.map((c) => (
              <Table.ColumnHeader key={c.knot} fontSize="md">
                {c.name}
                <Box fontWeight="400">{length(c.bulk_mm)}</Box>
              </Table.ColumnHeader>
            ))}
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {rows.map((r) => (
            <Row key={r.knot} clamp={r} drawn={knots?.find((k) => k.id === r.knot)?.drawn ?? true} />
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

function Row({ clamp: r, drawn }: { clamp: Clamp; drawn: boolean }) {
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
              {seconds(c.seconds)}, {length(c.cord_m * 1000)} of cord
            </div>
            {c.first && <div>{c.first}</div>}
          </Box>
        </Table.Cell>
      ))}
    </Table.Row>
  );
}
