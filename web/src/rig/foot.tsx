import { Box, chakra } from "@chakra-ui/react";
import { memo, useState } from "react";
import type { Answer, Choice } from "../api/client";
import { Drawing, type Look } from "../ui/drawing";
import { Sign } from "../ui/evidence";
import { Sheet } from "../ui/sheet";
import { State } from "../ui/verdict";
import { halves, Ranks } from "./ranks";
import type { DrawnAs } from "./scene";

/** On a phone: the knot that is chosen, fixed at the foot; it changes under the finger and opens the list. */
export const Foot = memo(function Foot(p: {
  answer: Answer;
  selected: Choice | undefined;
  select: (knot: string) => void;
  look: Look;
  drawnOn?: DrawnAs;
}) {
  const { answer, selected: c, select, look } = p;
  const [open, setOpen] = useState(false);
  const place = answer.ranked.findIndex((x) => x.knot === c?.knot) + 1;
  const others = answer.ranked.length - 1;
  return (
    <>
      <Bar
        type="button"
        className="no-print"
        onClick={() => setOpen(true)}
        aria-label="All knots that will do"
        data-testid="foot"
      >
        {c ? (
          <>
            <Box position="relative" w="54px" h="54px" bg="#fffdf6" borderRadius="sm" flex="none">
              <Drawing
                id={c.knot}
                name={c.name}
                drawn={c.drawn}
                options={{ look, on: p.drawnOn }}
                w="54px"
                h="54px"
                aria-hidden
              />
              <Place>{place}</Place>
            </Box>
            <Box flex="1" minW="0" textAlign="left">
              <Box fontWeight="700" truncate>
                {c.name}
              </Box>
              <Box fontSize="15px" css={{ "& [data-hold]": { color: "inherit" } }}>
                {answer.rig.dry ? "dry " : "wet "}
                <State hold={answer.rig.dry ? c.dry : c.wet} when="" /> &nbsp;{halves(c.strength.times)} ×{" "}
                <Box as="span" css={{ "& [role=img]": { color: "inherit" } }}>
                  <Sign tag={c.strength.capacity_kn.tag} />
                </Box>
              </Box>
            </Box>
            <Box fontSize="15px" textAlign="center">
              <span aria-hidden>⌃</span>
              <br />
              {others > 0 ? `${others} more` : "why"}
            </Box>
          </>
        ) : (
          <Box fontWeight="700">✕ No knot here does this</Box>
        )}
      </Bar>
      <Sheet open={open} close={() => setOpen(false)} title="Knots that will do">
        <Ranks
          answer={answer}
          look={look}
          drawnOn={p.drawnOn}
          selected={c}
          select={(knot) => {
            select(knot);
            setOpen(false);
          }}
        />
      </Sheet>
    </>
  );
});

const Bar = chakra("button", {
  base: {
    display: { base: "flex", md: "none" },
    "@media (max-height: 500px)": { display: "flex" },
    position: "fixed",
    left: "0",
    right: "0",
    bottom: "0",
    zIndex: 5,
    minH: "72px",
    alignItems: "center",
    gap: "3",
    px: "3",
    bg: "kelp",
    color: "kelpInk",
    borderTop: "4px solid #e2a03c",
    cursor: "pointer",
  },
});

const Place = chakra("span", {
  base: {
    position: "absolute",
    left: "-6px",
    top: "-6px",
    w: "24px",
    h: "24px",
    borderRadius: "full",
    bg: "#e2a03c",
    color: "#10231d",
    fontWeight: 700,
    fontSize: "15px",
    display: "grid",
    placeItems: "center",
  },
});
