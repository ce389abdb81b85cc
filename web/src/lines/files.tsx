import { Box, Flex, Input } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../api/client";
import { useKept } from "../api/hooks";
import { coded } from "../bench/save";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";
import { Sheet } from "../ui/sheet";
import type { FileKind } from "./queries";

/** Records out as a file and in from one: looked at before anything is kept. */
export function Files({ kind }: { kind: FileKind }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Press onClick={() => setOpen(true)}>Files</Press>
      {open && <FileSheet kind={kind} close={() => setOpen(false)} />}
    </>
  );
}

function FileSheet({ kind, close }: { kind: FileKind; close: () => void }) {
  const [data, setData] = useState("");
  const send = (preview: boolean, file: string) =>
    unwrap(
      api.POST("/api/v1/files/{kind}", {
        params: { path: { kind }, query: { preview } },
        body: { data: file } as Schemas["Table"],
      }),
    );
  const look = useMutation({ mutationFn: (file: string) => send(true, file) });
  const take = useKept(() => send(false, data));
  const seen = take.data ?? look.data;
  return (
    <Sheet
      open
      firm
      close={close}
      title="Out to a file, in from one"
      foot={
        <>
          <Press onClick={close}>Close</Press>
          {!take.data && (
            <Press
              look="main"
              disabled={!look.data || look.data.new === 0 || take.isPending}
              onClick={() => take.mutate(undefined)}
            >
              {look.data ? `Take ${look.data.new} in` : "Take them in"}
            </Press>
          )}
        </>
      }
    >
      <Box className="head" fontSize="lg">
        Out
      </Box>
      <Flex gap="2" mt="1" wrap="wrap">
        <Press asChild>
          <a href={`/api/v1/files/${kind}/table.csv`} download={`${kind}.csv`}>
            As a table (CSV)
          </a>
        </Press>
        <Press asChild>
          <a href={`/api/v1/files/${kind}/records.json`} download={`${kind}.json`}>
            Whole (JSON)
          </a>
        </Press>
      </Flex>
      <Box className="head" fontSize="lg" mt="4">
        In
      </Box>
      <Box color="quiet" mb="1">
        A table (CSV, XLSX) with the same columns, or a whole file. All of it is taken, or nothing.
      </Box>
      <Input
        type="file"
        accept=".csv,.xlsx,.json"
        aria-label="File to take in"
        onChange={async (e) => {
          const file = e.target.files?.[0];
          if (!file) return;
          take.reset();
          const text = await coded(file);
          setData(text);
          look.mutate(text);
        }}
      />
      <Box mt="3">
        <Trouble error={look.error ?? take.error} />
      </Box>
      {seen && (
        <Box mt="2" role="status" data-taken="">
          <Box fontWeight="700">{seen.says}</Box>
          {seen.names.length > 0 && <Box>{seen.names.join(" · ")}</Box>}
          {seen.unknown.length > 0 && (
            <Box color="amber">Columns that are not read: {seen.unknown.join(", ")}.</Box>
          )}
        </Box>
      )}
    </Sheet>
  );
}
