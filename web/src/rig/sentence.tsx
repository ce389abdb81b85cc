import { Box, chakra } from "@chakra-ui/react";
import { Fragment, type KeyboardEvent } from "react";
import type { Rig } from "../api/client";
import { Editor, typedAhead } from "./editor";
import type { Phrase } from "./phrase";

type Props = {
  parts: (string | Phrase)[];
  change: (rig: Rig) => void;
  /** Opens the sheet that works out the load; its sign stands behind the load. */
  workOut?: () => void;
};

/** The rig in one plain sentence; every underlined phrase is the control of what it says. */
export function Sentence({ parts, change, workOut }: Props) {
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
      fontSize={{ base: "17px", md: "18.5px" }}
      lineHeight={{ base: "1.95", md: "1.8" }}
      data-testid="sentence"
    >
      {parts.map((p, i) =>
        typeof p === "string" ? (
          // A stop or a comma stays with the phrase before it.
          <span key={`${i}${p}`}>{/^[.,;]/.test(p) ? `\u2060${p}` : p}</span>
        ) : (
          <Fragment key={p.id}>
            <Editor phrase={p} change={change} title={p.label} inSentence />
            {p.id === "load" && workOut && (
              <WorkOut
                type="button"
                className="no-print"
                onClick={workOut}
                aria-label="Work out the load"
                title="Work out the load"
              >
                <svg
                  width="20"
                  height="20"
                  viewBox="0 0 20 20"
                  fill="none"
                  stroke="currentColor"
                  strokeWidth="1.8"
                  aria-hidden="true"
                >
                  <path d="M3 15a8 8 0 1114 0M10 13l4-6" strokeLinecap="round" />
                </svg>
              </WorkOut>
            )}
          </Fragment>
        ),
      )}
    </Box>
  );
}

/** A small gauge behind the load; pressed on more than is drawn. */
const WorkOut = chakra("button", {
  base: {
    display: "inline-flex",
    alignItems: "center",
    justifyContent: "center",
    w: "32px",
    h: "24px",
    mx: "1",
    verticalAlign: "middle",
    border: "1.5px solid",
    borderColor: "glass",
    borderRadius: "6px",
    color: "glass",
    cursor: "pointer",
    position: "relative",
    _after: { content: '""', position: "absolute", inset: "-9px -7px" },
    _hover: { bg: "amberWash" },
  },
});
