import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../api/client";
import { useKept } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { typedNumber } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Typed } from "../ui/pick";
import { Sheet } from "../ui/sheet";

type Result = Schemas["BenchProof"]["result"];

const results: { id: Result; name: string; says: string }[] = [
  { id: "passed", name: "Passed", says: "nothing moved" },
  { id: "crept", name: "Crept", says: "the end drew in" },
  { id: "broke", name: "Broke", says: "it parted or slipped out" },
];

/** A proof pull of the knot just tied, in two touches; what earlier ones showed stands beside it. */
export function Proof({ knot }: { knot: string }) {
  const [open, setOpen] = useState(false);
  const [load, setLoad] = useState("");
  const list = useQuery(q.proofs()).data?.filter((p) => p.knot === knot) ?? [];
  const save = useKept((body: Schemas["BenchProof"]) => unwrap(api.POST("/api/v1/proofs", { body })));
  const keep = (result: Result) => {
    const body = { knot, result, load_kn: typedNumber(load) || undefined };
    save.mutate(body as Schemas["BenchProof"], { onSuccess: () => setOpen(false) });
  };
  return (
    <>
      <Press onClick={() => setOpen(true)}>Proof pull</Press>
      {list.length > 0 && (
        <Flex align="center" color="quiet" data-proofs="">
          {results
            .map((r) => ({ ...r, n: list.filter((p) => p.result === r.id).length }))
            .filter((r) => r.n > 0)
            .map((r) => `${r.name.toLowerCase()} ${r.n}`)
            .join(", ")}
        </Flex>
      )}
      <Sheet open={open} close={() => setOpen(false)} title="Proof pull">
        <Box mb="3">
          Draw it nearly to breaking, slowly, with eye protection and nobody in line; a join under tension
          too. What happened?
        </Box>
        <Grid templateColumns="repeat(3, 1fr)" gap="2">
          {results.map((r) => (
            <Press
              key={r.id}
              minH="84px"
              flexDirection="column"
              look={r.id === "passed" ? "main" : undefined}
              onClick={() => keep(r.id)}
            >
              <b>{r.name}</b>
              <Box as="span" fontSize="sm">
                {r.says}
              </Box>
            </Press>
          ))}
        </Grid>
        <Box mt="3" maxW="240px">
          <Typed label="Drawn to, kN, if it was read" value={load} set={setLoad} />
        </Box>
        <Trouble error={save.error} />
      </Sheet>
    </>
  );
}
