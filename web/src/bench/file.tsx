import { Box, Flex, Input } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../api/client";
import { Press } from "../ui/button";
import { newKey } from "../ui/key";
import { Trouble } from "../ui/notes";
import { Select } from "../ui/pick";
import { Sheet } from "../ui/sheet";
import { Plot } from "./plot";
import { coded } from "./save";

type Read = Schemas["ReadTrace"];
type Columns = Schemas["BenchColumns"];

/** A trace from a file: looked at before anything is kept. */
export function TraceFile(props: { close: () => void; taken: (key: string, read: Read) => void }) {
  const [data, setData] = useState("");
  const preview = useMutation({
    mutationFn: (how: { data: string; how?: Columns }) =>
      unwrap(api.POST("/api/v1/bench/traces/preview", { body: how as Schemas["TraceFile"] })),
  });
  const take = useMutation({
    mutationFn: async () => {
      const key = newKey();
      const read = await unwrap(
        api.PUT("/api/v1/bench/pulls/{key}/readings", {
          params: { path: { key } },
          body: { data, how: preview.data?.columns } as Schemas["TraceFile"],
        }),
      );
      return { key, read };
    },
    onSuccess: ({ key, read }) => props.taken(key, read),
  });
  const choose = async (file: File | undefined) => {
    if (!file) return;
    const text = await coded(file);
    setData(text);
    preview.mutate({ data: text });
  };
  const read = preview.data;
  const change = (part: Partial<Columns>) =>
    read && preview.mutate({ data, how: { ...read.columns, ...part, guessed: undefined } as Columns });
  return (
    <Sheet
      open
      wide
      firm
      close={props.close}
      title="A trace from a file"
      foot={
        <>
          <Press onClick={props.close}>Leave it</Press>
          <Press look="main" disabled={!read || take.isPending} onClick={() => take.mutate()}>
            Take these readings
          </Press>
        </>
      }
    >
      <Input
        type="file"
        accept=".csv,.txt,.tsv,text/*"
        aria-label="File of readings"
        onChange={(e) => void choose(e.target.files?.[0])}
      />
      <Trouble error={preview.error ?? take.error} />
      {read && (
        <>
          <Box mt="3">
            {read.readings.toLocaleString()} readings, time in column {read.columns.time}, force in column{" "}
            {read.columns.force}, {read.columns.decimal_comma ? "decimal commas" : "decimal points"}.
          </Box>
          {read.guessed.map((g) => (
            <Box key={g} color="amber" fontWeight="700">
              {g}
            </Box>
          ))}
          <Flex gap="3" mt="2" wrap="wrap">
            <Select
              label="Unit of time"
              value={read.columns.time_unit}
              set={(time_unit) => change({ time_unit })}
              list={["s", "ms", "min"].map((id) => ({ id, name: `time in ${id}` }))}
            />
            <Select
              label="Unit of force"
              value={read.columns.force_unit.toLowerCase()}
              set={(force_unit) => change({ force_unit })}
              list={["kn", "n", "kgf", "lbf"].map((id) => ({
                id,
                name: `force in ${id === "kn" ? "kN" : id === "n" ? "N" : id}`,
              }))}
            />
          </Flex>
          {read.twice && (
            <Box mt="2" color="flare" fontWeight="700">
              {read.twice.says}
            </Box>
          )}
          <Plot
            mt="3"
            h="240px"
            main={{ s: read.t_s, kN: read.load_kn }}
            marks={read.marks.break ? [{ ...read.marks.break, name: "break" }] : []}
            label="The trace in the file"
          />
        </>
      )}
    </Sheet>
  );
}
