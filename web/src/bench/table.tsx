import { Box, Input, Table } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../api/client";
import { useKept } from "../api/hooks";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";
import { Sheet } from "../ui/sheet";
import { coded } from "./save";
import { outcomes, wheres } from "./words";

/** Results from a table: looked at line by line before anything is kept. */
export function Results({ series, close }: { series: number; close: () => void }) {
  const [data, setData] = useState("");
  const send = (preview: boolean, file: string) =>
    unwrap(
      api.POST("/api/v1/series/{id}/results", {
        params: { path: { id: series }, query: { preview } },
        body: { data: file } as Schemas["Table"],
      }),
    );
  const look = useMutation({ mutationFn: (file: string) => send(true, file) });
  const take = useKept(() => send(false, data));
  const seen = look.data;
  const wrong = seen?.lines.filter((l) => l.wrong).length ?? 0;
  return (
    <Sheet
      open
      wide
      firm
      close={close}
      title="Results from a table"
      foot={
        <>
          <Press onClick={close}>Leave it</Press>
          <Press
            look="main"
            disabled={!seen || seen.added === 0 || take.isPending}
            onClick={() => take.mutate(undefined, { onSuccess: close })}
          >
            {seen ? `Take ${seen.added}` : "Take them"}
          </Press>
        </>
      }
    >
      <Input
        type="file"
        accept=".csv,.xlsx"
        aria-label="Table of results"
        onChange={async (e) => {
          const file = e.target.files?.[0];
          if (!file) return;
          const text = await coded(file);
          setData(text);
          look.mutate(text);
        }}
      />
      <Trouble error={look.error ?? take.error} />
      {seen && (
        <>
          <Box mt="3">
            {seen.added} new, {seen.there} kept before, {wrong} that cannot be taken.
          </Box>
          <Box overflow="auto" maxH="340px" mt="2">
            <Table.Root>
              <Table.Body>
                {seen.lines.map((l) => (
                  <Table.Row key={l.line} color={l.wrong ? "flare" : undefined}>
                    <Table.Cell>{l.line}</Table.Cell>
                    {l.wrong ? (
                      <Table.Cell colSpan={4}>{l.wrong}</Table.Cell>
                    ) : (
                      <>
                        <Table.Cell>{l.a}</Table.Cell>
                        <Table.Cell>{l.b}</Table.Cell>
                        <Table.Cell>{l.load_kn.toPrecision(4)} kN</Table.Cell>
                        <Table.Cell>
                          {outcomes.find((o) => o.id === l.outcome)?.name},{" "}
                          {wheres.find((w) => w.id === l.where)?.name.toLowerCase()}
                        </Table.Cell>
                      </>
                    )}
                  </Table.Row>
                ))}
              </Table.Body>
            </Table.Root>
          </Box>
        </>
      )}
    </Sheet>
  );
}
