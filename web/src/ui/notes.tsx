import { Box, Flex } from "@chakra-ui/react";
import { memo } from "react";
import { ApiError, type Schemas } from "../api/client";

function Mark({ kind }: { kind: "warn" | "lock" }) {
  return (
    <svg width="18" height="18" viewBox="0 0 24 24" aria-hidden="true" style={{ flex: "none", marginTop: 3 }}>
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
          fontSize="14.5px"
          color={c.locked ? "flare" : "ink"}
          bg={c.locked ? "flareWash" : "transparent"}
          border={c.locked ? "2px solid" : "none"}
          borderColor="flare"
          borderRadius="8px"
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
    <Flex gap="2" bg="amberWash" color="ink" borderRadius="8px" px="3" py="1.5" fontSize="15px">
      <Box color="amber">
        <Mark kind="warn" />
      </Box>
      <span>{text}</span>
    </Flex>
  );
}

/** An error in plain words, field by field, with what would put it right. */
export function Trouble({ error }: { error: unknown }) {
  if (!error) return null;
  const problem = error instanceof ApiError ? error.problem : undefined;
  return (
    <Box
      role="alert"
      bg="flareWash"
      border="2px solid"
      borderColor="flare"
      borderRadius="8px"
      p="3"
      fontSize="15.5px"
    >
      <strong>{problem?.detail ?? (error instanceof Error ? error.message : String(error))}</strong>
      {problem?.fields?.map((f) => (
        <Box key={f.field + f.message} mt="1">
          {f.field && <span>{fieldName(f.field)}: </span>}
          {f.message}
          {f.fix && ` – ${f.fix}`}
        </Box>
      ))}
    </Box>
  );
}

/** What the screens call the fields whose names say little. */
const called: Record<string, string> = {
  loa: "length over all",
  area: "area to the wind",
  object: "thickness of the object",
  hand: "your hand",
  class: "line class",
  people: "people on the line",
  speed: "drift",
};

/** "chain[2].line.diameter_mm" → "line, diameter". */
export function fieldName(path: string): string {
  if (called[path]) return called[path];
  return path
    .replace(/^chain\[0\]\.line/, "other line")
    .replace(/chain\[\d+\]\./g, "")
    .replace(/^rig\./, "")
    .replace(/_(mm|m|kn|id)\b/g, "")
    .replace(/_/g, " ")
    .replace(/\./g, ", ");
}
