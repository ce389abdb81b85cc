import { Box, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { q } from "../api/queries";
import { Svg } from "./drawing";
import { Paper } from "./paper";

/** A label to print: what it is, the code that stays, what is to be known beside it, and the QR that opens its page for now. */
export function Label(p: { what: string; code: string; to: string; lines: string[]; close: () => void }) {
  const qr = useQuery(q.qr(`${location.origin}${p.to}`)).data;
  return (
    <Paper name="label" close={p.close}>
      <Flex gap="4" border="2px solid black" borderRadius="8px" p="4" w="400px" align="center">
        <Svg text={qr} w="120px" h="120px" flex="none" />
        <Box>
          <Box className="head" fontSize="18px">
            {p.what}
          </Box>
          <Box className="head" fontSize="28px">
            {p.code}
          </Box>
          {p.lines.map((l) => (
            <Box key={l}>{l}</Box>
          ))}
        </Box>
      </Flex>
      <Box mt="3" fontSize="14px">
        The code holds wherever Oarweed is reached: type it into Find.
      </Box>
    </Paper>
  );
}
