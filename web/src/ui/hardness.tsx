import { Box } from "@chakra-ui/react";

/** How hard a knot is to learn: five marks, some filled, and said in words. */
export function Hardness({ of }: { of: number }) {
  return (
    <Box fontSize="13px" letterSpacing="2px" color="amber" title={`${of} of 5 hard to learn`}>
      <span aria-hidden>
        {"●".repeat(of)}
        {"○".repeat(5 - of)}
      </span>
      <span style={{ position: "absolute", left: -9999 }}>{of} of 5 hard to learn</span>
    </Box>
  );
}
