import { Box, Flex, Table } from "@chakra-ui/react";
import type { Rig, SavedRig } from "../api/client";
import { useCatalogue } from "../api/hooks";
import { Press } from "../ui/button";
import { fieldName, fieldValue } from "../ui/notes";
import { Sheet } from "../ui/sheet";
import { differences } from "./state";

/** A rig that cannot be saved as it is: another was saved meanwhile, or has its name. */
export type Conflict = {
  mine: Rig;
  over: { id: number; revision: number } | undefined;
  kept: SavedRig;
  nameTaken: boolean;
};

const skipped = ["version", "name"];

/** Both versions side by side, and what to do: nothing is saved before that. */
export function ConflictSheet(props: {
  conflict: Conflict;
  settle: (how: "mine" | "theirs" | "both" | undefined) => void;
}) {
  const { conflict: c, settle } = props;
  const fields = useCatalogue().data?.fields;
  const list = differences(c.mine, c.kept.rig).filter((d) => !skipped.includes(d.path));
  const when = new Date(c.kept.changed_at).toLocaleString(undefined, {
    dateStyle: "medium",
    timeStyle: "short",
  });
  const title = c.nameTaken
    ? `Another rig is called “${c.kept.rig.name}”`
    : `“${c.kept.rig.name}” was changed meanwhile`;
  return (
    <Sheet
      open
      close={() => settle(undefined)}
      title={title}
      foot={
        <Flex gap="2" wrap="wrap" justify="flex-end">
          <Press look="bare" onClick={() => settle(undefined)}>
            Not now
          </Press>
          {c.nameTaken ? (
            <Press look="main" onClick={() => settle("both")}>
              Keep both
            </Press>
          ) : (
            <Press onClick={() => settle("theirs")}>Take theirs</Press>
          )}
          <Press look={c.nameTaken ? undefined : "main"} onClick={() => settle("mine")}>
            {c.nameTaken ? "Replace it by mine" : "Keep mine"}
          </Press>
        </Flex>
      }
    >
      <Box data-testid="conflict">
        Saved {when}. Nothing of yours was saved yet, and nothing is lost.
        {list.length === 0 ? (
          <Box mt="2">Both say the same.</Box>
        ) : (
          <Table.Root mt="3">
            <Table.Header>
              <Table.Row>
                <Table.ColumnHeader />
                <Table.ColumnHeader>yours</Table.ColumnHeader>
                <Table.ColumnHeader>{c.nameTaken ? "the other" : "theirs"}</Table.ColumnHeader>
              </Table.Row>
            </Table.Header>
            <Table.Body>
              {list.slice(0, 12).map((d) => (
                <Table.Row key={d.path} borderTop="1px solid" borderColor="rule">
                  <Table.Cell color="quiet">{fieldName(d.path, fields)}</Table.Cell>
                  <Table.Cell>{fieldValue(d.path, d.a, fields)}</Table.Cell>
                  <Table.Cell>{fieldValue(d.path, d.b, fields)}</Table.Cell>
                </Table.Row>
              ))}
            </Table.Body>
          </Table.Root>
        )}
        {list.length > 12 && <Box mt="1">and {list.length - 12} more differences</Box>}
      </Box>
    </Sheet>
  );
}
