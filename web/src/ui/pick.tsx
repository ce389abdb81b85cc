import { Field, Input, NativeSelect } from "@chakra-ui/react";
import type { InputHTMLAttributes, ReactNode } from "react";

/** Something to type, with its label and what is wrong with it. */
export function Typed(props: {
  label: string;
  value: string;
  set: (v: string) => void;
  wrong?: string;
  wide?: boolean;
  type?: InputHTMLAttributes<HTMLInputElement>["type"];
}) {
  return (
    <Labelled label={props.label} wrong={props.wrong} wide={props.wide}>
      <Input type={props.type} value={props.value} onChange={(e) => props.set(e.target.value)} />
    </Labelled>
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
    <Labelled label={props.label}>
      <Select wide value={props.value} set={props.set} first={props.any} list={props.list} />
    </Labelled>
  );
}

function Labelled(props: { label: string; wrong?: string; wide?: boolean; children: ReactNode }) {
  return (
    <Field.Root
      invalid={props.wrong !== undefined && props.wrong !== ""}
      gridColumn={props.wide ? { base: "1 / -1", md: "auto" } : undefined}
    >
      <Field.Label>{props.label}</Field.Label>
      {props.children}
      {props.wrong && <Field.ErrorText>{props.wrong}</Field.ErrorText>}
    </Field.Root>
  );
}

/** The list itself. first stands for no choice, or says what the list is for. */
export function Select(props: {
  value: string;
  set: (v: string) => void;
  first?: string;
  list: readonly { id: string; name: string }[];
  label?: string;
  /** As wide as its place. */
  wide?: boolean;
}) {
  const { value, set, first, list, label, wide } = props;
  return (
    <NativeSelect.Root w={wide ? "100%" : undefined}>
      <NativeSelect.Field aria-label={label} value={value} onChange={(e) => set(e.currentTarget.value)}>
        {first !== undefined && <option value="">{first}</option>}
        {list.map((o) => (
          <option key={o.id} value={o.id}>
            {o.name}
          </option>
        ))}
      </NativeSelect.Field>
      <NativeSelect.Indicator />
    </NativeSelect.Root>
  );
}
