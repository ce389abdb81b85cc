import { Dialog, Portal } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { Press } from "./button";

/** A sheet laid over the page, with its title and a way out. */
export function Sheet(props: {
  open: boolean;
  close: () => void;
  title: string;
  wide?: boolean;
  children: ReactNode;
}) {
  const { open, close, title, wide, children } = props;
  return (
    <Dialog.Root open={open} onOpenChange={(e) => !e.open && close()} size={wide ? "xl" : undefined}>
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content bg="sheet" color="ink" mx="2" maxW={wide ? "900px" : undefined}>
            <Dialog.Header>
              <Dialog.Title>{title}</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>{children}</Dialog.Body>
            <Dialog.Footer>
              <Press onClick={close}>Close</Press>
            </Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
