import { useEffect, useState } from "react";
import { conflictOf, type Rig, type SavedRig } from "../api/client";
import { useSaveRig } from "../api/hooks";
import type { Conflict } from "./conflict";
import type { RigActs } from "./use-rig";

export type Saving = ReturnType<typeof useSaving>;

/** Saves a rig over the record it came from, or as a new one; what stands in the way is put to the user. */
export function useSaving(acts: RigActs) {
  const { mutateAsync, isPending, error, reset } = useSaveRig();
  const [said, setSaid] = useState("");
  const [conflict, setConflict] = useState<Conflict>();
  // Said for a while, then the line is free again.
  useEffect(() => {
    if (!said) return;
    const later = setTimeout(() => setSaid(""), 6000);
    return () => clearTimeout(later);
  }, [said]);
  const save = async (rig: Rig, over: { id: number; revision: number } | undefined = acts.from) => {
    setSaid("");
    try {
      const saved = await mutateAsync({ rig, over });
      acts.saved(saved);
      setSaid(over ? "Saved again" : "Saved");
    } catch (e) {
      const c = conflictOf<SavedRig>(e);
      if (c) setConflict({ mine: rig, over, ...c });
    }
  };
  const settle = (how: "mine" | "theirs" | "both" | undefined) => {
    const c = conflict;
    setConflict(undefined);
    reset();
    if (!c || !how) return;
    if (how === "theirs") acts.open(c.kept.rig, c.kept);
    else if (how === "mine") void save(c.mine, { id: c.kept.id, revision: c.kept.revision });
    else void save({ ...c.mine, name: another(c.mine.name ?? "Rig") }, c.over);
  };
  return { save, saving: isPending, said, setSaid, error, conflict, settle };
}

/** "Slip" → "Slip (2)" → "Slip (3)". */
function another(name: string): string {
  const [, base = name, n] = /^(.*) \((\d+)\)$/.exec(name) ?? [];
  return `${base} (${n ? Number(n) + 1 : 2})`;
}
