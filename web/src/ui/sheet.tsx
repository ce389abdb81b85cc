import { Dialog, Portal } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { Press } from "./button";

/** A sheet laid over the page, with its title and a way out. */
export function Sheet(props: {
  open: boolean;
  close: () => void;
  title: string;
  wide?: boolean;
  /** Only its own buttons and Escape close it: what is in it would be a loss. */
  firm?: boolean;
  /** In place of the one button to close it. */
  foot?: ReactNode;
  /** Where the focus goes first; the first control by itself. */
  focus?: () => HTMLElement | null;
  children: ReactNode;
}) {
  const { open, close, title, wide, firm, foot, focus, children } = props;
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(e) => !e.open && close()}
      lazyMount
      unmountOnExit
      closeOnInteractOutside={!firm}
      initialFocusEl={focus}
    >
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content maxW={wide ? "900px" : undefined}>
            <Dialog.Header>
              <Dialog.Title tabIndex={-1} data-sheet-title="">
                {title}
              </Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>{children}</Dialog.Body>
            <Dialog.Footer>{foot ?? <Press onClick={close}>Close</Press>}</Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
