import { Box, Flex, Grid, Table } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../api/client";
import { Press } from "../ui/button";
import { Evidence } from "../ui/evidence";
import { force, typedNumber as number, reach } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Typed } from "../ui/pick";
import { Sheet } from "../ui/sheet";

/** What a trip takes off the spools: leaders made up, tied again, and what is spoilt. */
export function TripSheet({ leaders, close }: { leaders: Schemas["LeaderCard"][]; close: () => void }) {
  const [f, setF] = useState({ days: "2", people: "4", changes: "10", waste: "10" });
  const [of, setOf] = useState<number[]>(leaders.slice(0, 1).map((l) => l.id));
  const set = (part: Partial<typeof f>) => setF((now) => ({ ...now, ...part }));
  const work = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST("/api/v1/leaders/trip", {
          body: {
            days: Math.round(number(f.days)),
            people: Math.round(number(f.people)),
            waste: number(f.waste) / 100,
            items: leaders
              .filter((l) => of.includes(l.id))
              .map((l) => ({
                name: l.name,
                length_m: l.length_m,
                shortest_m: l.shortest_m,
                knot: l.knot,
                line: l.line,
                changes_a_day: number(f.changes),
              })),
          } as Schemas["LeaderTrip"],
        }),
      ),
  });
  return (
    <Sheet
      open
      wide
      close={close}
      title="Line for a trip"
      foot={
        <>
          <Press onClick={close}>Close</Press>
          <Press look="main" disabled={of.length === 0} onClick={() => work.mutate()}>
            Work it out
          </Press>
        </>
      }
    >
      <Grid gap="3" templateColumns={{ base: "1fr 1fr", md: "repeat(4, 1fr)" }}>
        <Typed label="Days" value={f.days} set={(days) => set({ days })} />
        <Typed label="People" value={f.people} set={(people) => set({ people })} />
        <Typed label="Changes a day, each" value={f.changes} set={(changes) => set({ changes })} />
        <Typed label="Spoilt, %" value={f.waste} set={(waste) => set({ waste })} />
      </Grid>
      <Flex gap="2" mt="3" wrap="wrap" role="group" aria-label="Leaders that are used">
        {leaders.length === 0 && <Box color="quiet">Begin a leader first: it says what a change takes.</Box>}
        {leaders.map((l) => (
          <Press
            key={l.id}
            aria-pressed={of.includes(l.id)}
            onClick={() => setOf(of.includes(l.id) ? of.filter((x) => x !== l.id) : [...of, l.id])}
          >
            {l.name}
          </Press>
        ))}
      </Flex>
      <Box mt="2">
        <Trouble error={work.error} />
      </Box>
      {work.data && (
        <Box overflowX="auto" mt="3" data-trip="">
          <Table.Root>
            <Table.Header>
              <Table.Row>
                <Table.ColumnHeader>Leader</Table.ColumnHeader>
                <Table.ColumnHeader>Made up</Table.ColumnHeader>
                <Table.ColumnHeader>Each cut</Table.ColumnHeader>
                <Table.ColumnHeader>Ties</Table.ColumnHeader>
                <Table.ColumnHeader>Off the spool</Table.ColumnHeader>
              </Table.Row>
            </Table.Header>
            <Table.Body>
              {work.data.map((n) => (
                <Table.Row key={n.name}>
                  <Table.Cell>
                    {n.name}, {n.class_kn ? force(n.class_kn, true) : n.material}
                  </Table.Cell>
                  <Table.Cell>{n.leaders}</Table.Cell>
                  <Table.Cell>{reach(n.cut_m)}</Table.Cell>
                  <Table.Cell>{n.ties}</Table.Cell>
                  <Table.Cell fontWeight="700">{reach(n.spool_m)}</Table.Cell>
                </Table.Row>
              ))}
            </Table.Body>
          </Table.Root>
          <Evidence
            tag="computed"
            source="leaders for every tie, each with what both knots take to tie by hand, and the share that is spoilt (ours unless you change it)"
          />
        </Box>
      )}
    </Sheet>
  );
}
