import { Box } from "@chakra-ui/react";
import type { Rig } from "../api/client";
import { Sheet } from "../ui/sheet";

export function SendSheet({ close, text }: { close: () => void; rig: Rig; here: Rig; text: string }) {
  return (
    <Sheet open close={close} title="Send this answer">
      <Box>{text}</Box>
    </Sheet>
  );
}
