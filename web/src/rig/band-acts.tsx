import { chakra, Popover, Portal } from "@chakra-ui/react";
import { useState } from "react";
import type { Rig } from "../api/client";
import { Press } from "../ui/button";
import * as doc from "./document";

/** A round + on the rope: what can be done to the chain at this place. */
export function Acts(p: {
  at: number;
  rig: Rig;
  change: (rig: Rig, at: number) => void;
  fishing: boolean;
  left: string;
  top: string;
  named: string;
  plus?: boolean;
}) {
  const { at, rig, change, fishing } = p;
  const [open, setOpen] = useState(false);
  const here = rig.chain[at];
  const to = (next: Rig, place: number) => {
    setOpen(false);
    change(next, Math.max(0, Math.min(place, next.chain.length - 1)));
  };
  const last = rig.chain.length - 1;
  const acts: [string, () => void][] = [];
  if (here?.line) {
    acts.push(["Add a line", () => to(doc.addLine(rig, at, fishing ? "leader" : "extend"), at + 1)]);
    if (at === last || at === 0)
      acts.push(["Add a fitting", () => to(doc.addFitting(rig), at === 0 ? 1 : at + 1)]);
    if (rig.chain[at + 2]?.line) acts.push(["Move it on", () => to(doc.move(rig, at, 1), at + 3)]);
    if (rig.chain[at - 2]?.line) acts.push(["Move it back", () => to(doc.move(rig, at, -1), at - 1)]);
  }
  if (last > 2) {
    acts.push(["Turn the rig round", () => to(doc.turnRound(rig), last - at)]);
    if (doc.remove(rig, at) !== rig)
      acts.push([
        `Remove the ${here?.line ? "line" : "fitting"}`,
        () => to(doc.remove(rig, at), Math.max(1, at - 1)),
      ]);
  }
  if (acts.length === 0) return null;
  return (
    <Popover.Root open={open} onOpenChange={(e) => setOpen(e.open)} lazyMount unmountOnExit>
      <Popover.Trigger asChild>
        <RoundButton
          type="button"
          className="no-print"
          left={p.left}
          top={p.top}
          ml={p.plus ? "-22px" : undefined}
          aria-label={p.named}
          data-acts={at}
        >
          <span aria-hidden>{p.plus ? "+" : "⋯"}</span>
        </RoundButton>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content>
            <Popover.Body display="flex" flexDirection="column" gap="2">
              {acts.map(([name, does]) => (
                <Press key={name} onClick={does}>
                  {name}
                </Press>
              ))}
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}

/** Drawn 30 px across, pressed on 44. */
const RoundButton = chakra("button", {
  base: {
    position: "absolute",
    w: "44px",
    h: "44px",
    display: "grid",
    placeItems: "center",
    cursor: "pointer",
    zIndex: 2,
    "& span": {
      display: "grid",
      placeItems: "center",
      w: "30px",
      h: "30px",
      borderRadius: "full",
      border: "2px solid var(--ink)",
      bg: "sheet",
      fontSize: "20px",
      lineHeight: "1",
      fontWeight: 700,
    },
    "&:hover span": { bg: "amberWash" },
  },
});
