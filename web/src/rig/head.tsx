import { Box, chakra, Flex } from "@chakra-ui/react";
import { lazy, Suspense, useEffect, useMemo, useState } from "react";
import { createPortal } from "react-dom";
import type { Catalogue, Rig } from "../api/client";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";
import { useOnce } from "../ui/once";
import { ConflictSheet } from "./conflict";
import { RigsSheet } from "./rigs";
import { useSaving } from "./saving";
import type { RigActs } from "./use-rig";

const SendSheet = lazy(() => import("./send").then((m) => ({ default: m.SendSheet })));

type Props = { acts: RigActs; here: Rig; joint: number; catalogue: Catalogue; text: string };

/** What belongs to the rig in the head of the page: its name, which opens all that is done with rigs; undo, redo, send. */
export function RigHead({ acts, here, joint, catalogue, text }: Props) {
  const saving = useSaving(acts);
  const [trouble, setTrouble] = useState<unknown>();
  const [rigs, setRigs] = useState(false);
  const [send, setSend] = useState(false);
  const opened = useOnce(rigs);
  const name = acts.rig.name || "Name this rig";
  const { unsaved, undo, redo, canUndo, canRedo } = acts;
  // It stands in two places, and is the same while a value is dragged.
  const controls = useMemo(
    () => (
      <>
        <Name type="button" onClick={() => setRigs(true)} aria-haspopup="dialog" data-testid="rig-name">
          <Box as="span" truncate>
            {name}
          </Box>
          <span aria-hidden>▾</span>
        </Name>
        {unsaved && (
          <Box
            as="span"
            fontSize="sm"
            whiteSpace="nowrap"
            data-testid="unsaved"
            title="Changes are kept on this device, and not yet saved"
          >
            ● <Wide>not saved</Wide>
          </Box>
        )}
        <Press look="head" minW="44px" onClick={undo} disabled={!canUndo} aria-label="Undo" title="Undo">
          ↶
        </Press>
        <Press look="head" minW="44px" onClick={redo} disabled={!canRedo} aria-label="Redo" title="Redo">
          ↷
        </Press>
        <Press look="amber" onClick={() => setSend(true)}>
          Send
        </Press>
      </>
    ),
    [name, unsaved, undo, redo, canUndo, canRedo],
  );
  return (
    <>
      <InHead>{controls}</InHead>
      <Flex
        className="no-print"
        display={{ base: "flex", lg: "none" }}
        align="center"
        gap="1"
        px="2"
        minH="48px"
        bg="kelp"
        color="kelpInk"
        borderTop="1px solid"
        borderColor="glass"
      >
        {controls}
      </Flex>
      <Box role="status" color="glass" fontWeight="700" px={{ base: "3", md: "6" }} className="no-print">
        {saving.said}
      </Box>
      {!saving.conflict && Boolean(saving.error ?? trouble) && (
        <Box px={{ base: "3", md: "6" }} py="2">
          <Trouble error={saving.error} />
          {trouble ? (
            <>
              <Trouble error={trouble} />
              <Box mt="1">The rig below is the one from before. Nothing was lost.</Box>
            </>
          ) : null}
        </Box>
      )}
      {saving.conflict && <ConflictSheet conflict={saving.conflict} settle={saving.settle} />}
      {opened && (
        <RigsSheet
          open={rigs}
          close={() => setRigs(false)}
          acts={acts}
          here={here}
          joint={joint}
          catalogue={catalogue}
          saving={saving}
          wrong={setTrouble}
        />
      )}
      {send && (
        <Suspense fallback={null}>
          <SendSheet close={() => setSend(false)} rig={acts.rig} here={here} text={text} />
        </Suspense>
      )}
    </>
  );
}

const Wide = chakra("span", { base: { display: { base: "none", xl: "inline" } } });

const Name = chakra("button", {
  base: {
    display: "flex",
    alignItems: "center",
    gap: "2",
    minW: "0",
    maxW: { base: "none", lg: "230px", xl: "300px" },
    flex: { base: "1", lg: "0 1 auto" },
    h: "44px",
    px: "3",
    borderRadius: "sm",
    bg: "rgb(255 255 255 / 14%)",
    fontWeight: 700,
    cursor: "pointer",
    textAlign: "left",
    _hover: { bg: "glass" },
  },
});

/** Puts what belongs to this view into the head of the page, where there is room. */
function InHead({ children }: { children: React.ReactNode }) {
  const [slot, setSlot] = useState<HTMLElement | null>(null);
  useEffect(() => setSlot(document.getElementById("head-slot")), []);
  return slot && createPortal(children, slot);
}
