import { Box, chakra, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import type { Catalogue, Rig, SavedRig } from "../api/client";
import { conflictOf } from "../api/client";
import { useSaveRig } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";
import { Select } from "../ui/pick";
import { type Conflict, ConflictSheet } from "./conflict";
import { encode } from "./document";
import { More } from "./more";
import type { RigActs } from "./use-rig";

type Props = { acts: RigActs; here: Rig; catalogue: Catalogue; text: string };

/** Which rig this is, where to begin, saving it, and sending it on. */
export function Bar({ acts, here, catalogue, text }: Props) {
  const { rig, change, open } = acts;
  const rigs = useQuery(q.rigs()).data ?? [];
  const { save, saving, said, setSaid, error, conflict, settle } = useSaving(acts);
  const [trouble, setTrouble] = useState<unknown>();
  const [more, setMore] = useState(false);
  const [name, setName] = useName(acts);
  const copy = async (what: string, words: string) => {
    try {
      await navigator.clipboard.writeText(words);
      setSaid(`${what} copied`);
    } catch {
      // Without a secure context there is no clipboard: it can still be copied by hand.
      window.prompt(`Copy the ${what.toLowerCase()}:`, words);
    }
  };
  return (
    <Box className="no-print" px={{ base: 3, md: 6 }} py="1.5" fontSize="md">
      <Flex gap="2" align="center" wrap="wrap">
        <NameField
          className="head"
          value={name}
          aria-label="Name of the rig"
          placeholder="Name this rig"
          maxLength={120}
          onChange={(e) => setName(e.target.value)}
          onBlur={() => name !== (rig.name ?? "") && change({ ...rig, name })}
          css={{ width: `min(${Math.max(16, name.length + 2)}ch, 88vw)` }}
        />
        <Select
          plain
          label="Begin with a usual rig"
          first="Begin with…"
          value=""
          list={catalogue.templates.map((t) => ({ id: t.id, name: t.rig.name ?? t.id }))}
          set={(id) => {
            const t = catalogue.templates.find((x) => x.id === id);
            if (t) open(t.rig);
          }}
        />
        <Select
          plain
          label="Open a saved rig"
          first="Open…"
          value=""
          list={rigs.map((r) => ({ id: String(r.id), name: r.rig.name ?? "" }))}
          set={(id) => {
            const r = rigs.find((x) => String(x.id) === id);
            if (r) open(r.rig, r);
          }}
        />
        <Press look="bare" onClick={() => void save({ ...rig, name: name.trim() })} disabled={saving}>
          Save
        </Press>
        <Press look="bare" onClick={acts.undo} disabled={!acts.canUndo}>
          Undo
        </Press>
        <Press
          look="bare"
          onClick={acts.redo}
          disabled={!acts.canRedo}
          display={{ base: "none", sm: "inline-flex" }}
        >
          Redo
        </Press>
        <Press look="bare" onClick={() => void copy("Link", `${location.origin}/?rig=${encode(rig)}`)}>
          Copy link
        </Press>
        <Press look="bare" aria-expanded={more} onClick={() => setMore(!more)}>
          More
        </Press>
        <Box role="status" color="glass" fontWeight="700">
          {said}
        </Box>
        {acts.unsaved && (
          <Box color="quiet" data-testid="unsaved">
            ● not saved
          </Box>
        )}
      </Flex>
      {more && (
        <More
          acts={acts}
          here={here}
          catalogue={catalogue}
          said={setSaid}
          wrong={setTrouble}
          copySentence={() => void copy("Sentence", text)}
        />
      )}
      {!conflict && <Trouble error={error} />}
      {trouble ? (
        <>
          <Trouble error={trouble} />
          <Box mt="1">The rig below is the one from before. Nothing was lost.</Box>
        </>
      ) : null}
      {conflict && <ConflictSheet conflict={conflict} settle={settle} />}
    </Box>
  );
}

const NameField = chakra("input", {
  base: { minH: "44px", fontSize: "lg", bg: "transparent", borderBottom: "2px dotted", borderColor: "rule" },
});

/** The name as typed here, which the rig takes over when it is done. */
function useName({ rig }: RigActs) {
  const [name, setName] = useState(rig.name ?? "");
  useEffect(() => setName(rig.name ?? ""), [rig.name]);
  return [name, setName] as const;
}

/** Saves a rig over the record it came from, or as a new one; what stands in the way is put to the user. */
function useSaving(acts: RigActs) {
  const { mutateAsync, isPending, error, reset } = useSaveRig();
  const [said, setSaid] = useState("");
  const [conflict, setConflict] = useState<Conflict>();
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
