import { Box, Flex, Input } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Rig } from "../api/client";
import { useAddInspection } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { newKey } from "../ui/key";
import { Trouble } from "../ui/notes";

const said = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

/** Two look over a knot that somebody depends on, and their names and times are kept. It approves nothing. */
export function Inspection({ rig, knot }: { rig: Rig; knot: string }) {
  const [first, setFirst] = useState("");
  const [second, setSecond] = useState("");
  const [key, setKey] = useState(newKey);
  const add = useAddInspection();
  const list = useQuery(q.inspections()).data?.filter((i) => i.knot === knot) ?? [];
  const record = () =>
    add.mutate(
      { key, rig, knot, first: { name: first }, second: { name: second } },
      {
        onSuccess: () => {
          setFirst("");
          setSecond("");
          setKey(newKey());
        },
      },
    );
  return (
    <Box mt="3" pt="3" borderTop="1.5px dashed" borderColor="rule" data-testid="inspection">
      <strong>Looked over by two</strong>, before the weight comes on: knot, backup, harness, hardware. Both
      say so aloud.
      <form
        onSubmit={(e) => {
          e.preventDefault();
          record();
        }}
      >
        <Flex gap="2" mt="2" wrap="wrap" className="no-print">
          <Input
            flex="1"
            minW="140px"
            placeholder="Who ties or goes"
            aria-label="Who ties or goes"
            value={first}
            onChange={(e) => setFirst(e.target.value)}
          />
          <Input
            flex="1"
            minW="140px"
            placeholder="Who checks"
            aria-label="Who checks"
            value={second}
            onChange={(e) => setSecond(e.target.value)}
          />
          <Press type="submit" disabled={add.isPending}>
            Record both
          </Press>
        </Flex>
      </form>
      <Trouble error={add.error} />
      {list.slice(0, 3).map((i) => (
        <Box key={i.id} fontSize="md" mt="1">
          {i.first.name} and {i.second.name}, {said.format(new Date(i.received_at ?? 0))}
        </Box>
      ))}
    </Box>
  );
}
