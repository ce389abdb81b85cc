import { Box } from "@chakra-ui/react";
import type { KeyboardEvent } from "react";
import type { Rig } from "../api/client";
import { Editor, typedAhead } from "./editor";
import type { Phrase } from "./phrases";

type Props = { parts: (string | Phrase)[]; change: (rig: Rig) => void };

/** The rig in one plain sentence; every underlined phrase is the control of what it says. */
export function Sentence({ parts, change }: Props) {
  const walk = (e: KeyboardEvent<HTMLElement>) => {
    const step = { ArrowRight: 1, ArrowLeft: -1 }[e.key];
    const all = [...e.currentTarget.querySelectorAll<HTMLElement>(".phrase")];
    const at = all.indexOf(document.activeElement as HTMLElement);
    if (at < 0) return;
    if (step) {
      e.preventDefault();
      all[(at + step + all.length) % all.length]?.focus();
    } else if (/^[0-9.]$/.test(e.key)) {
      e.preventDefault();
      typedAhead.text = e.key; // type to change
      all[at]?.click();
    }
  };
  return (
    <Box
      as="p"
      aria-label="The rig in words"
      onKeyDown={walk}
      fontSize={{ base: "18px", md: "20.5px" }}
      lineHeight="1.6"
      data-testid="sentence"
    >
      {parts.map((p, i) =>
        typeof p === "string" ? (
          <span key={`${i}${p}`}>{p}</span>
        ) : (
          <Editor key={p.id} phrase={p} change={change} title={p.label} inSentence />
        ),
      )}
    </Box>
  );
}
