import { Box } from "@chakra-ui/react";
import { type ReactNode, useId } from "react";

/** How a field to type in or choose from looks. */
export const control = {
  minHeight: 44,
  width: "100%",
  padding: "0 10px",
  border: "1.5px solid var(--ink)",
  borderRadius: 8,
  background: "var(--sheet)",
} as const;

/** A labelled field. */
export function Field(props: { label: string; wide?: boolean; children: (id: string) => ReactNode }) {
  const id = useId();
  return (
    <Box gridColumn={props.wide ? { base: "1 / -1", md: "auto" } : undefined} minW="0">
      <label htmlFor={id} style={{ fontSize: 15 }}>
        {props.label}
      </label>
      {props.children(id)}
    </Box>
  );
}

/** A choice out of a list, with "any" first. */
export function Pick(props: {
  label: string;
  value: string;
  set: (v: string) => void;
  any?: string;
  list: { id: string; name: string }[];
}) {
  return (
    <Field label={props.label}>
      {(id) => (
        <select id={id} value={props.value} onChange={(e) => props.set(e.target.value)} style={control}>
          {props.any && <option value="">{props.any}</option>}
          {props.list.map((o) => (
            <option key={o.id} value={o.id}>
              {o.name}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}
