import { Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useRef } from "react";
import type { Catalogue, Rig } from "../api/client";
import { readRig } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Select } from "../ui/pick";
import { lineOnly, merge, withLine } from "./document";
import type { RigActs } from "./use-rig";

/** What is not wanted every day: the locker, the weights, copies and files. */
export function More(props: {
  acts: RigActs;
  here: Rig;
  catalogue: Catalogue;
  said: (what: string) => void;
  wrong: (error: unknown) => void;
  copySentence: () => void;
}) {
  const { acts, here, catalogue, said, wrong, copySentence } = props;
  const { rig, change, open } = acts;
  const lines = useQuery(q.lines()).data ?? [];
  const file = useRef<HTMLInputElement>(null);
  // The rig on screen stays until the one from the file is known to be sound.
  const take = async (f: File | undefined) => {
    if (!f) return;
    wrong(undefined);
    try {
      open(await readRig(await f.text()));
      said("Imported");
    } catch (e) {
      wrong(e);
    }
  };
  return (
    <Flex gap="2" align="center" wrap="wrap">
      <Select
        plain
        label="Use a line from the locker"
        first="Locker…"
        value=""
        list={lines.map((l) => ({ id: String(l.id), name: l.name }))}
        set={(id) => {
          const l = lines.find((x) => String(x.id) === id);
          if (l) change(merge(rig, jointPlace(rig, here), withLine(here, lineOnly(l))));
        }}
      />
      <span>
        Rank for{" "}
        <Select
          plain
          label="Rank for"
          first="the task"
          value={rig.weights ?? ""}
          list={Object.keys(catalogue.weights).map((w) => ({ id: w, name: w.replace("-", ", ") }))}
          set={(w) => change({ ...rig, weights: w || undefined })}
        />
      </span>
      <Press
        look="bare"
        onClick={() => {
          open({ ...rig, name: `${rig.name || "Rig"}, copy` });
          said("This is a copy");
        }}
      >
        Duplicate
      </Press>
      <Press
        look="bare"
        onClick={() => {
          download(rig);
          said("Exported");
        }}
      >
        Export
      </Press>
      <Press look="bare" onClick={() => file.current?.click()}>
        Import
      </Press>
      <input
        ref={file}
        type="file"
        accept="application/json,.json"
        aria-label="Rig to import"
        hidden
        onChange={(e) => {
          void take(e.target.files?.[0]);
          e.target.value = "";
        }}
      />
      <Press look="bare" onClick={copySentence}>
        Copy sentence
      </Press>
    </Flex>
  );
}

function download(rig: Rig) {
  const a = document.createElement("a");
  a.href = URL.createObjectURL(new Blob([JSON.stringify(rig, null, 2)], { type: "application/json" }));
  a.download = `${(rig.name || "rig").replace(/[^\p{L}\p{N}]+/gu, "-")}.json`;
  a.click();
  URL.revokeObjectURL(a.href);
}

/** Where in the chain the part that is looked at has its joint. */
const jointPlace = (rig: Rig, here: Rig) => rig.chain.indexOf(here.chain[1] as Rig["chain"][number]);
