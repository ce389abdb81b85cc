import { chakra, Flex } from "@chakra-ui/react";
import type { Hold } from "../api/client";

const looks = {
  holds: { mark: "M4 12.5l5 5L20 6.5", colour: "glass", wash: "glassWash" },
  marginal: { mark: "M3 14c3-6 6-6 9 0s6 6 9 0", colour: "amber", wash: "amberWash" },
  slips: { mark: "M5 5l14 14M19 5L5 19", colour: "flare", wash: "flareWash" },
} as const;

const Light = chakra("span", { base: { fontWeight: 400 } });

/** Where people depend on a knot nothing is ticked: what use knows of it is a word, no approval. */
const unapproved = { mark: "M5 12h14", colour: "ink", wash: "paper" } as const;

/** Holds, marginal or slips: always a word and a shape, never the colour alone. */
export function Verdict({ when, hold }: { when?: string; hold: Pick<Hold, "class" | "chance"> }) {
  const look = hold.chance == null && hold.class === "holds" ? unapproved : looks[hold.class];
  return (
    <Flex
      display="inline-flex"
      align="center"
      gap="1"
      px="2"
      py="0.5"
      borderRadius="full"
      bg={look.wash}
      color={look.colour}
      fontSize="sm"
      fontWeight="700"
      whiteSpace="nowrap"
      data-hold={hold.class}
    >
      <svg width="15" height="15" viewBox="0 0 24 24" fill="none" aria-hidden="true">
        <path d={look.mark} stroke="currentColor" strokeWidth="3.6" strokeLinecap="round" />
      </svg>
      {when && <Light>{when}</Light>}
      {hold.class}
      {hold.chance != null && hold.class !== "holds" && (
        <Light>{hold.chance < 0.01 ? "under 1" : Math.round(hold.chance * 100)} in 100</Light>
      )}
    </Flex>
  );
}

/** A state as a knot on a line: full holds, half may slip, an arrow running off slips; always with its word. */
export function State({ hold, when }: { hold: Pick<Hold, "class" | "chance">; when: string }) {
  const unmarked = hold.chance == null && hold.class === "holds";
  const colour = unmarked ? "ink" : looks[hold.class].colour;
  const word = { holds: "holds", marginal: "may slip", slips: "slips" }[hold.class];
  return (
    <Flex
      display="inline-flex"
      align="center"
      gap="1.5"
      color={colour}
      fontWeight="700"
      data-hold={hold.class}
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
        {hold.class === "slips" ? (
          <path d="M1 7h17M13 2l6 5-6 5" />
        ) : (
          <>
            <path d="M0 7h22" />
            <circle
              cx="11"
              cy="7"
              r="5"
              fill={unmarked ? "var(--sheet)" : hold.class === "holds" ? "currentColor" : "var(--sheet)"}
            />
            {hold.class === "marginal" && <path d="M11 2a5 5 0 010 10z" fill="currentColor" stroke="none" />}
          </>
        )}
      </svg>
      <Hidden>{when} </Hidden>
      {word}
    </Flex>
  );
}

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
