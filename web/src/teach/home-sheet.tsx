import { Box, Flex } from "@chakra-ui/react";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Paper } from "../ui/paper";

const repeats = 20;

/** A sheet to take home: each knot that is due, twenty boxes to tick, sitting down and wet. */
export function HomeSheet({ name, due }: { name: string; due: Schemas["DueKnot"][] }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Press disabled={due.length === 0} onClick={() => setOpen(true)}>
        Sheet to take home
      </Press>
      {open && (
        <Paper name="home-sheet" close={() => setOpen(false)}>
          <Box className="head" fontSize="24px">
            {name}: twenty of each
          </Box>
          <Box>Sitting down first. Tick each one. Then five wet, or in gloves.</Box>
          {due.slice(0, 6).map((d) => (
            <Flex key={d.knot} gap="4" mt="4" align="center" css={{ breakInside: "avoid" }}>
              <Drawing id={d.knot} name={d.name} drawn w="120px" h="100px" flex="none" />
              <Box>
                <Box className="head" fontSize="18px">
                  {d.name}
                </Box>
                <Flex wrap="wrap" gap="1" mt="1" maxW="420px">
                  {Array.from({ length: repeats }, (_, i) => (
                    <Box
                      key={`${d.knot}-${i + 1}`}
                      w="28px"
                      h="28px"
                      border="1.5px solid black"
                      fontSize="11px"
                      color="#777"
                      pl="1"
                    >
                      {i + 1}
                    </Box>
                  ))}
                  <Box w="16px" />
                  {Array.from({ length: 5 }, (_, i) => (
                    <Box
                      key={`${d.knot}-wet-${i + 1}`}
                      w="28px"
                      h="28px"
                      border="1.5px dashed black"
                      fontSize="11px"
                      color="#777"
                      pl="1"
                    >
                      wet
                    </Box>
                  ))}
                </Flex>
              </Box>
            </Flex>
          ))}
        </Paper>
      )}
    </>
  );
}
