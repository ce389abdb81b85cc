import { Box, Flex } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { createPortal } from "react-dom";
import { Press } from "./button";

/** What is printed, over everything else until it is closed; on paper it is alone. */
export function Paper({ name, close, children }: { name: string; close: () => void; children: ReactNode }) {
  return createPortal(
    <Box
      position="fixed"
      inset="0"
      bg="white"
      color="black"
      zIndex="30"
      overflowY="auto"
      p="6"
      data-testid={name}
      className="only-on-paper"
    >
      <Flex className="no-print" gap="2" mb="4">
        <Press look="main" onClick={() => print()}>
          Print
        </Press>
        <Press onClick={close}>Close</Press>
      </Flex>
      {children}
    </Box>,
    document.body,
  );
}
