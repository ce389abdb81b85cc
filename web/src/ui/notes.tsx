import { Box, Flex } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { memo } from "react";
import { ApiError, type Schemas } from "../api/client";
import { q } from "../api/queries";
import { Card } from "./page";

function Mark({ kind }: { kind: "warn" | "lock" }) {
  return (
    <svg width="18" height="18" viewBox="0 0 24 24" aria-hidden="true" className="mark">
      <path
        d="M12 2.5L23 21.5H1z"
        fill="none"
        stroke="currentColor"
        strokeWidth="2.4"
        strokeLinejoin="round"
      />
      <path
        d={kind === "lock" ? "M8.5 18h7v-5h-7z" : "M12 9v6M12 17.4v.8"}
        stroke="currentColor"
        strokeWidth="2.4"
      />
    </svg>
  );
}

/** Cautions, beside what they concern. */
export const Cautions = memo(
  CautionList,
  (a, b) => a.list.length === b.list.length && a.list.every((c, i) => c.id === b.list[i]?.id),
);

function CautionList({ list }: { list: Schemas["RigCaution"][] }) {
  return (
    <Flex direction="column" gap="2" role="note" aria-label="Cautions">
      {list.map((c) => (
        <Flex
          key={c.id}
          gap="2"
          fontSize="sm"
          color={c.locked ? "flare" : "ink"}
          bg={c.locked ? "flareWash" : "transparent"}
          border={c.locked ? "2px solid" : "none"}
          borderColor="flare"
          borderRadius="sm"
          p={c.locked ? "3" : "0"}
          fontWeight={c.locked ? 700 : 400}
        >
          <Mark kind={c.locked ? "lock" : "warn"} />
          <span>{c.text}</span>
        </Flex>
      ))}
    </Flex>
  );
}

/** A flag about one knot in this rig. */
export function Flag({ text }: { text: string }) {
  return (
    <Flex gap="2" bg="amberWash" color="ink" borderRadius="sm" px="3" py="1.5" fontSize="md">
      <Box color="amber">
        <Mark kind="warn" />
      </Box>
      <span>{text}</span>
    </Flex>
  );
}

/** An error in plain words, field by field, with what would put it right. */
export function Trouble({ error }: { error: unknown }) {
  const fields = useQueryClient().getQueryData(q.catalogue().queryKey)?.fields;
  if (!error) return null;
  const problem = error instanceof ApiError ? error.problem : undefined;
  return (
    <Card kind="warn" role="alert">
      <strong>{problem?.detail ?? (error instanceof Error ? error.message : String(error))}</strong>
      {problem?.fields?.map((f) => (
        <Box key={f.field + f.message} mt="1">
          {f.field && <span>{fieldName(f.field, fields)}: </span>}
          {f.message}
          {f.fix && ` – ${f.fix}`}
        </Box>
      ))}
    </Card>
  );
}

/** What the screens call the figures of a job, whose names in the API say little. */
const called: Record<string, string> = {
  loa: "length over all",
  area: "area to the wind",
  object: "thickness of the object",
  hand: "your hand",
  class: "line class",
  people: "people on the line",
  speed: "drift",
  learner_id: "learner",
};

/** The place of a field in a document, taken apart, and its row in the table. */
function rowOf(path: string, fields: Schemas["RigField"][]) {
  const words = path.replace(/^rig\./, "").split(".");
  const json = words.at(-1) ?? "";
  const part = words.length > 1 ? (words.at(-2) ?? "") : "rig";
  return { words, json, part, row: fields.find((f) => f.json === json && f.part === part) };
}

/** What a field holds, in words, or with its unit. */
export function fieldValue(path: string, value: unknown, fields: Schemas["RigField"][] = []): string {
  if (value === undefined || value === "") return "–";
  if (typeof value === "object") return "another part";
  if (typeof value === "boolean") return value ? "yes" : "no";
  const { row } = rowOf(path, fields);
  const word = row?.values?.find((v) => v.id === String(value))?.name;
  return word ?? (row?.unit ? `${value} ${row.unit}` : String(value));
}

/** "chain[0].line.diameter_mm" → "other line, diameter", by the names in the table of fields. */
export function fieldName(path: string, fields: Schemas["RigField"][] = []): string {
  const { words, json, part, row } = rowOf(path, fields);
  const name = row?.name ?? called[json] ?? json.replace(/_(mm|m|kn)$/, "").replace(/_/g, " ");
  if (part === "rig" || words.length === 1) return name.replace(/^chain.*/, "chain");
  return `${path.startsWith("chain[0].line") ? "other line" : part.replace(/\[.*/, "")}, ${name}`;
}
