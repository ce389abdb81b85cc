import { Box, VisuallyHidden } from "@chakra-ui/react";

/** How hard a knot is to learn: five marks, some filled, and said in words. */
export function Hardness({ of }: { of: number }) {
  return (
    <Box fontSize="xs" letterSpacing="2px" color="amber" title={`${of} of 5 hard to learn`}>
      <span aria-hidden>
        {"●".repeat(of)}
        {"○".repeat(5 - of)}
      </span>
      <VisuallyHidden>{of} of 5 hard to learn</VisuallyHidden>
    </Box>
  );
}
