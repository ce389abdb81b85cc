import { Box, Flex } from "@chakra-ui/react";
import { FaultDrawing } from "../ui/drawing";

/** How a loop goes on, right and wrong, drawn on what it is made fast to. */
export function Threads({ on, says }: { on: string; says: string[] }) {
  return (
    <Box data-threads={on}>
      <Flex gap="3">
        {[true, false].map((right) => (
          <Box
            key={String(right)}
            flex="1"
            border="2px solid"
            borderColor={right ? "glass" : "flare"}
            borderRadius="md"
            p="2"
          >
            {on === "pylon" ? (
              <>
                <FaultDrawing id={right ? "take-off-right" : "take-off-wrong"} look="braid" bare h="120px" />
                <Box textAlign="right" color="quiet" fontSize="sm">
                  to the rider →
                </Box>
              </>
            ) : (
              <Scene on={on} right={right} />
            )}
            <Box fontWeight="700" color={right ? "glass" : "flare"} textAlign="center">
              {right ? "✓ stays on" : "✕ drops off"}
            </Box>
          </Box>
        ))}
      </Flex>
      {says.map((s) => (
        <Flex key={s} gap="2" mt="1">
          <Box aria-hidden="true">•</Box>
          <Box>{s}</Box>
        </Flex>
      ))}
    </Box>
  );
}

const iron = { fill: "none", stroke: "var(--object-edge)", strokeLinecap: "round" as const };

function Scene({ on, right }: { on: string; right: boolean }) {
  const words = {
    tower: right
      ? "The loop lies round the neck below the knob and the line leaves level, to the rider"
      : "The line pulls upward and lifts the loop over the knob",
    hook: right
      ? "The line leaves away from the opening of the hook, across its back"
      : "The line leaves across the opening of the hook and draws the loop out of it",
    eye: right
      ? "The loop is passed through the eye and the line through the loop; it leaves straight to the rider"
      : "The loop is only pushed through the eye, and comes out again when it is slack",
  }[on];
  return (
    <svg viewBox="0 0 200 120" width="100%" role="img" aria-label={words}>
      {on === "tower" && (
        <>
          <path d="M120 118V60" {...iron} stroke="var(--object)" strokeWidth="22" />
          <path d="M109 118V66M131 118V66" {...iron} strokeWidth="2" />
          <ellipse
            cx="120"
            cy="44"
            rx="24"
            ry="14"
            fill="var(--object)"
            stroke="var(--object-edge)"
            strokeWidth="2"
          />
          {right ? (
            <Rope d="M8 84H104M108 78C104 94 134 94 134 80C134 70 110 70 106 78" />
          ) : (
            <Rope d="M8 10L100 34M100 34C104 60 140 62 142 44C142 30 112 24 100 34" />
          )}
        </>
      )}
      {on === "hook" && (
        <>
          <path d="M186 62H150C96 62 96 18 132 18C150 18 156 30 154 40" {...iron} strokeWidth="13" />
          <path
            d="M186 62H150C96 62 96 18 132 18C150 18 156 30 154 40"
            {...iron}
            stroke="var(--object)"
            strokeWidth="9"
          />
          {right ? (
            <Rope d="M8 44H94M98 36C110 32 122 36 122 44C122 54 108 56 98 50" />
          ) : (
            <Rope d="M196 26H168M166 20C154 18 144 22 144 28C144 36 156 36 166 32" />
          )}
        </>
      )}
      {on === "eye" && (
        <>
          <path d="M112 118V58A22 22 0 01156 58V118" {...iron} strokeWidth="14" />
          <path d="M112 118V58A22 22 0 01156 58V118" {...iron} stroke="var(--object)" strokeWidth="9" />
          {right ? (
            <Rope d="M8 78H92M96 70C110 62 126 64 126 78C126 92 108 92 96 86" />
          ) : (
            <Rope d="M8 74H104C136 74 136 92 104 88H8" />
          )}
        </>
      )}
      <path
        d="M30 108H10M16 102L8 108L16 114"
        fill="none"
        stroke="var(--amber)"
        strokeWidth="3"
        strokeLinecap="round"
      />
      <text x="36" y="113" fontSize="13" fill="var(--quiet)">
        rider
      </text>
    </svg>
  );
}

const Rope = ({ d }: { d: string }) => (
  <g fill="none" strokeLinecap="round">
    <path d={d} stroke="var(--rope-1-edge)" strokeWidth="8" />
    <path d={d} stroke="var(--rope-1)" strokeWidth="5" />
  </g>
);
