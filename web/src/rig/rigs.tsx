import { Box, Flex, Grid, Heading, Input } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type { Catalogue, Rig, SavedRig, Schemas } from "../api/client";
import { readRig, useRemoveRig, useSaveRig } from "../api/hooks";
import { q } from "../api/queries";
import { LineSheet } from "../lines/edit";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";
import { Sheet } from "../ui/sheet";
import { lineOf, lineOnly, merge, withLine } from "./document";
import type { Saving } from "./saving";
import type { RigActs } from "./use-rig";

type Props = {
  open: boolean;
  close: () => void;
  acts: RigActs;
  here: Rig;
  joint: number;
  catalogue: Catalogue;
  saving: Saving;
  wrong: (error: unknown) => void;
};

/** All that is done with rigs: name and save this one, open another, begin with a usual one, take in and give out. */
export function RigsSheet(p: Props) {
  const { open, close, acts, catalogue } = p;
  const rigs = useQuery(q.rigs()).data ?? [];
  return (
    <Sheet
      open={open}
      close={close}
      title="Rigs"
      wide
      focus={() => document.querySelector<HTMLElement>("[data-sheet-title]")}
    >
      <This {...p} rigs={rigs} />
      <Kept {...p} rigs={rigs} />
      <Group title="Begin with a usual rig">
        {catalogue.templates.map((t) => (
          <Press
            key={t.id}
            justifyContent="flex-start"
            onClick={() => {
              acts.open(t.rig);
              close();
            }}
          >
            {t.rig.name ?? t.id}
          </Press>
        ))}
      </Group>
      <Locker {...p} />
      <Ranked {...p} />
    </Sheet>
  );
}

function Group({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <Box mt="4" role="group" aria-label={title}>
      <Heading as="h3" fontSize="lg" mb="1">
        {title}
      </Heading>
      <Grid templateColumns="repeat(auto-fill, minmax(min(250px, 100%), 1fr))" gap="2">
        {children}
      </Grid>
    </Box>
  );
}

/** The rig at hand: its name, saving it, giving it out as a file. */
function This({ acts, saving, close, wrong, rigs }: Props & { rigs: SavedRig[] }) {
  const { rig, change, open } = acts;
  const [name, setName] = useState(rig.name ?? "");
  useEffect(() => setName(rig.name ?? ""), [rig.name]);
  const file = useRef<HTMLInputElement>(null);
  const named = { ...rig, name: name.trim() };
  const taken = rigs.find((r) => r.rig.name === named.name && r.id !== acts.from?.id);
  const save = (over: typeof acts.from) => {
    close(); // what stands in the way comes up as a sheet of its own
    void saving.save(named, over);
  };
  return (
    <Box>
      <Box asChild display="block" fontSize="md">
        <label htmlFor="rig-name">Name of the rig</label>
      </Box>
      <Flex gap="2" wrap="wrap" align="center">
        <Input
          id="rig-name"
          aria-label="Name of the rig"
          value={name}
          maxLength={120}
          onChange={(e) => setName(e.target.value)}
          onBlur={() => name !== (rig.name ?? "") && change({ ...rig, name })}
          flex="1"
          minW="220px"
        />
        <Press look="main" onClick={() => save(acts.from)} disabled={saving.saving}>
          Save
        </Press>
        {acts.from && (
          <Press onClick={() => save(undefined)} disabled={saving.saving}>
            Save as another
          </Press>
        )}
      </Flex>
      {taken && (
        <Box color="amber" mt="1">
          Another rig has this name: you are asked before anything is written over it.
        </Box>
      )}
      <Flex gap="2" wrap="wrap" mt="2">
        <Press
          look="bare"
          onClick={() => {
            open({ ...rig, name: `${rig.name || "Rig"}, copy` });
            saving.setSaid("This is a copy");
            close();
          }}
        >
          Work on a copy
        </Press>
        <Press
          look="bare"
          onClick={() => {
            download(named);
            saving.setSaid("Given out as a file");
          }}
        >
          Give it out as a file
        </Press>
        <Press look="bare" onClick={() => file.current?.click()}>
          Take one in from a file
        </Press>
        <input
          ref={file}
          type="file"
          accept="application/json,.json"
          aria-label="Rig to take in"
          hidden
          onChange={async (e) => {
            const f = e.target.files?.[0];
            e.target.value = "";
            if (!f) return;
            wrong(undefined);
            close();
            // The rig on screen stays until the one from the file is known to be sound.
            try {
              open(await readRig(await f.text()));
              saving.setSaid("Taken in");
            } catch (error) {
              wrong(error);
            }
          }}
        />
      </Flex>
    </Box>
  );
}

/** The rigs that are kept; one that is removed can be brought back at once. */
function Kept({ acts, close, rigs }: Props & { rigs: SavedRig[] }) {
  const remove = useRemoveRig();
  const restore = useSaveRig();
  const [gone, setGone] = useState<SavedRig>();
  return (
    <>
      <Group title="Saved rigs">
        {rigs.length === 0 && <Box color="quiet">None yet. Save this one, and it stands here.</Box>}
        {rigs.map((r) => (
          <Flex key={r.id} gap="1">
            <Press
              flex="1"
              minW="0"
              justifyContent="flex-start"
              aria-current={acts.from?.id === r.id}
              onClick={() => {
                acts.open(r.rig, r);
                close();
              }}
            >
              {acts.from?.id === r.id ? "● " : ""}
              {r.rig.name || "without a name"}
            </Press>
            <Press
              look="bare"
              aria-label={`Remove ${r.rig.name}`}
              onClick={() =>
                remove.mutate(r.id, {
                  onSuccess: () => {
                    setGone(r);
                    if (acts.from?.id === r.id) acts.open(acts.rig); // it is nobody's record now
                  },
                })
              }
            >
              ✕
            </Press>
          </Flex>
        ))}
      </Group>
      <Trouble error={remove.error ?? restore.error} />
      {gone && (
        <Flex role="status" align="center" gap="2" mt="2">
          {gone.rig.name} is removed.
          <Press
            small
            onClick={() => restore.mutate({ rig: gone.rig }, { onSuccess: () => setGone(undefined) })}
          >
            Bring it back
          </Press>
        </Flex>
      )}
    </>
  );
}

function Locker({ acts, here, joint, close }: Props) {
  const lines = useQuery(q.lines()).data ?? [];
  const [putting, setPutting] = useState(false);
  const now = lineOf(here);
  const take = (l: Schemas["LockerLine"]) => {
    acts.change(merge(acts.rig, joint, withLine(here, lineOnly(l))));
    close();
  };
  return (
    <Group title="A line from the locker for this joint">
      {lines
        .filter((l) => !l.retired)
        .map((l) => (
          <Press
            key={l.id}
            justifyContent="flex-start"
            aria-pressed={Boolean(l.code) && now.own === l.code}
            onClick={() => take(l)}
          >
            {l.name}
          </Press>
        ))}
      {!now.own && (
        <Press look="bare" justifyContent="flex-start" onClick={() => setPutting(true)}>
          Put this line into the locker
        </Press>
      )}
      {putting && (
        <LineSheet from={{ ...now, length_m: undefined }} close={() => setPutting(false)} kept={take} />
      )}
    </Group>
  );
}

function Ranked({ acts, catalogue }: Props) {
  const { rig, change } = acts;
  return (
    <Group title="Rank for">
      {["", ...Object.keys(catalogue.weights)].map((w) => (
        <Press
          key={w}
          justifyContent="flex-start"
          aria-pressed={(rig.weights ?? "") === w}
          onClick={() => change({ ...rig, weights: w || undefined })}
        >
          {w === "" ? "the task, as usual" : w.replace("-", ", ")}
        </Press>
      ))}
    </Group>
  );
}

function download(rig: Rig) {
  const a = document.createElement("a");
  a.href = URL.createObjectURL(new Blob([JSON.stringify(rig, null, 2)], { type: "application/json" }));
  a.download = `${(rig.name || "rig").replace(/[^\p{L}\p{N}]+/gu, "-")}.json`;
  a.click();
  URL.revokeObjectURL(a.href);
}
