import { chakra, Flex } from "@chakra-ui/react";
import { memo } from "react";
import type { Hold } from "../api/client";

const looks = {
  holds: { colour: "glass" },
  marginal: { colour: "amber" },
  slips: { colour: "flare" },
} as const;

/** A state as a knot on a line: full holds, half may slip, an arrow running off slips; always with its word. */
export const State = ({ hold, when }: { hold: Pick<Hold, "class" | "chance">; when: string }) => (
  <Word state={hold.class} unmarked={hold.chance == null && hold.class === "holds"} when={when} />
);

/** Drawn anew only when the word is another, not for every figure behind it. */
const Word = memo(function Word(p: { state: Hold["class"]; unmarked: boolean; when: string }) {
  const { state, unmarked, when } = p;
  const colour = unmarked ? "ink" : looks[state].colour;
  const word = { holds: "holds", marginal: "may slip", slips: "slips" }[state];
  return (
    <Flex
      display="inline-flex"
      align="center"
      gap="1.5"
      color={colour}
      fontWeight="700"
      data-hold={state}
      whiteSpace="nowrap"
    >
      <svg
        width="22"
        height="14"
        viewBox="0 0 22 14"
        aria-hidden="true"
        fill="none"
        stroke="currentColor"
        strokeWidth="2.2"
      >
        {state === "slips" ? (
          <path d="M1 7h17M13 2l6 5-6 5" />
        ) : (
          <>
            <path d="M0 7h22" />
            <circle
              cx="11"
              cy="7"
              r="5"
              fill={unmarked ? "var(--sheet)" : state === "holds" ? "currentColor" : "var(--sheet)"}
            />
            {state === "marginal" && <path d="M11 2a5 5 0 010 10z" fill="currentColor" stroke="none" />}
          </>
        )}
      </svg>
      <Hidden>{when} </Hidden>
      {word}
    </Flex>
  );
});

/** For those who hear the page. */
const Hidden = chakra("span", {
  base: {
    position: "absolute",
    w: "1px",
    h: "1px",
    overflow: "hidden",
    clipPath: "inset(50%)",
    whiteSpace: "pre",
  },
});
