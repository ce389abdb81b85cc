import { Box, chakra, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { KnotPage, Schemas } from "../api/client";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { FaultDrawing, Svg } from "../ui/drawing";
import { prefs } from "../ui/prefs";
import type { Try } from "./round";

type Outcome = Schemas["PracticeAttempt"]["outcome"];

/** What is wrong, touched on the drawing or in the list beside it. */
export function FaultPicker(p: {
  who: string;
  knot: KnotPage;
  now: Try | undefined;
  set: (outcome: Outcome, fault: string) => void;
  back: () => void;
  close: () => void;
}) {
  const { who, knot, now, set, back, close } = p;
  const [over, setOver] = useState("");
  return (
    <Box
      position="fixed"
      insetX="0"
      bottom="0"
      zIndex="10"
      bg="sheet"
      borderTop="3px solid"
      borderColor="flare"
      role="dialog"
      aria-label={`${who}: what is wrong`}
      maxH="86vh"
      overflowY="auto"
      data-testid="fault"
    >
      <Box maxW="760px" mx="auto" p="3">
        <Flex align="center" gap="2">
          <Box flex="1" fontSize="18px">
            <strong>{who}:</strong> touch what is wrong
          </Box>
          <Press look="bare" onClick={close} minW="44px" aria-label="Close">
            ✕
          </Press>
        </Flex>
        <Grid templateColumns="minmax(0, 1fr) minmax(0, 1.1fr)" gap="3" mt="1">
          <Touched knot={knot} over={over} pick={(code) => set("fault", code)} hover={setOver} />
          <Flex direction="column" gap="2">
            {knot.faults.map((f) => (
              <Choice
                key={f.code}
                type="button"
                on={now?.fault === f.code || over === f.code}
                onClick={() => set("fault", f.code)}
                onMouseEnter={() => setOver(f.code)}
                onMouseLeave={() => setOver("")}
              >
                {f.drawing && (
                  <FaultDrawing
                    id={f.drawing}
                    look="laid"
                    left={prefs().hand === "left"}
                    w="56px"
                    h="48px"
                    flex="none"
                    aria-hidden
                  />
                )}
                <Box minW="0">
                  <Box fontWeight="700">{f.name}</Box>
                  <Box fontSize="14px" color="quiet" lineHeight="1.2">
                    {f.looks}
                  </Box>
                </Box>
              </Choice>
            ))}
          </Flex>
        </Grid>
        <Flex gap="2" mt="3" wrap="wrap">
          <Press onClick={() => set("slow", "")}>◔ Right, but slow</Press>
          {now?.outcome === "fault" && <Press onClick={() => set("right", "")}>✓ Right after all</Press>}
          {now && <Press onClick={back}>↶ Not tied yet</Press>}
        </Flex>
      </Box>
    </Box>
  );
}

const Choice = chakra("button", {
  base: {
    display: "flex",
    gap: "2",
    alignItems: "center",
    minH: "48px",
    px: "2",
    py: "1",
    textAlign: "left",
    border: "1.5px solid",
    borderColor: "ink",
    borderRadius: "sm",
    bg: "sheet",
    cursor: "pointer",
    fontSize: "16px",
    lineHeight: "1.2",
  },
  variants: { on: { true: { bg: "flareWash", borderColor: "flare" } } },
});

/** The drawing with a ring at every fault that has its place on it. */
function Touched(p: {
  knot: KnotPage;
  over: string;
  pick: (code: string) => void;
  hover: (code: string) => void;
}) {
  const { knot, over, pick, hover } = p;
  const text = useQuery(q.drawing(knot.id, { look: "laid" })).data;
  const [, x = 0, y = 0, w = 1, h = 1] = (
    /viewBox="([-\d.]+) ([-\d.]+) ([\d.]+) ([\d.]+)"/.exec(text ?? "") ?? []
  ).map(Number);
  const places = knot.faults.flatMap((f) => {
    const at = knot.fault_places[f.code];
    const [px, py] = at ? [((at[0] ?? 0) - x) / w, ((at[1] ?? 0) - y) / h] : [-1, -1];
    return px > 0 && px < 1 && py > 0 && py < 1 ? [{ code: f.code, name: f.name, px, py }] : [];
  });
  return (
    <Box
      position="relative"
      alignSelf="start"
      w="100%"
      maxW="300px"
      mx="auto"
      aspectRatio={`${w} / ${h}`}
      maxH="46vh"
    >
      <Svg text={text} w="100%" h="100%" />
      {places.map((f) => (
        <Ring
          key={f.code}
          type="button"
          aria-label={f.name}
          title={f.name}
          on={over === f.code}
          left={`${100 * f.px}%`}
          top={`${100 * f.py}%`}
          onClick={() => pick(f.code)}
          onMouseEnter={() => hover(f.code)}
          onMouseLeave={() => hover("")}
        />
      ))}
    </Box>
  );
}

const Ring = chakra("button", {
  base: {
    position: "absolute",
    w: "46px",
    h: "46px",
    margin: "-23px 0 0 -23px",
    borderRadius: "full",
    border: "3px dashed",
    borderColor: "flare",
    cursor: "pointer",
  },
  variants: { on: { true: { borderStyle: "solid", bg: "rgb(179 39 15 / 18%)" } } },
});
