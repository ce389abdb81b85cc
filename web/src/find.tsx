import { Box, chakra, Flex, Input } from "@chakra-ui/react";
import Fuse from "fuse.js";
import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import type { Catalogue } from "./api/client";
import { useCatalogue } from "./api/hooks";
import { encode, firstRig, sound, withTask } from "./rig/document";
import { atHand } from "./rig/state";
import { capital } from "./ui/format";
import { Sheet } from "./ui/sheet";

type Entry = {
  kind: "Knot" | "To do" | "Job" | "Fault";
  name: string;
  also: string;
  says: string;
  to: string;
};

/** Apostrophes are typed in three ways, and often left out; numbers are written out or not. */
const plain = (text: string) => text.toLowerCase().replace(/[’'`´]/g, "");

function entries(c: Catalogue): Entry[] {
  const rig = atHand(sound);
  const single = rig.chain.length === 3 ? rig : firstRig;
  return [
    ...c.knots.map((k) => ({
      kind: "Knot" as const,
      name: k.name,
      also: k.also?.join(", ") ?? "",
      says: k.summary,
      to: `/knots/${k.id}`,
    })),
    ...c.tasks.map((t) => ({
      kind: "To do" as const,
      name: capital(t.name),
      also: t.also?.join(", ") ?? "",
      says: `${t.group}: which knot for it`,
      to: `/?rig=${encode(withTask(single, t, c))}`,
    })),
    ...c.procedures.map((p) => ({
      kind: "Job" as const,
      name: p.name,
      also: c.tasks.find((t) => t.id === p.needs)?.also?.join(", ") ?? "",
      says: p.when,
      to: `/jobs/${p.id}`,
    })),
    ...c.knots.flatMap((k) =>
      k.faults.map((f) => ({
        kind: "Fault" as const,
        name: f,
        also: k.name,
        says: `goes wrong with the ${k.name.toLowerCase()}`,
        to: `/knots/${k.id}`,
      })),
    ),
  ];
}

/** Everything by any of its names, however it is spelt. */
/** Where a code on a label leads; empty if it is none. */
function labelled(typed: string): string {
  const code = typed.replaceAll(/[\s-]/g, "").toUpperCase();
  if (/^L[0-9A-HJKMNP-TV-Z]{7}$/.test(code)) return `/lines/${code.slice(0, 7)}-${code.slice(7)}`;
  return /^G[0-9A-Z]{4,9}$/.test(code) && /\d/.test(code) ? `/g/${encodeURIComponent(typed.trim())}` : "";
}

export function FindSheet({ close }: { close: () => void }) {
  const catalogue = useCatalogue().data;
  const go = useNavigate();
  const [typed, setTyped] = useState("");
  const fuse = useMemo(
    () =>
      catalogue &&
      new Fuse(
        entries(catalogue).map((e) => ({
          ...e,
          sought: plain(e.name),
          others: plain(e.also),
          words: plain(e.says),
        })),
        {
          keys: [
            { name: "sought", weight: 3 },
            { name: "others", weight: 2 },
            { name: "words", weight: 0.6 },
          ],
          threshold: 0.34,
          ignoreLocation: true,
          ignoreFieldNorm: true,
        },
      ),
    [catalogue],
  );
  const found = typed.trim()
    ? (fuse?.search(plain(typed.trim()), { limit: 12 }) ?? []).map((x) => x.item)
    : [];
  // The code on the label of a thing or of a line.
  const label = labelled(typed);
  const open = (e: Entry) => {
    close();
    go(e.to);
  };
  return (
    <Sheet open close={close} title="Find">
      <Input
        type="search"
        autoFocus
        placeholder="a knot by any name, what it has to do, a job, a fault"
        aria-label="What to find"
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        onKeyDown={(e) => {
          const [first] = found;
          if (e.key === "Enter" && label) {
            close();
            go(label);
            return;
          }
          if (e.key === "Enter" && first) open(first);
        }}
      />
      {!typed.trim() && (
        <Row
          type="button"
          onClick={() => {
            close();
            go("/knots/name");
          }}
        >
          <Box>
            <strong>Name what you tied</strong>
            <Box fontSize="sm">Trace it over a photo, and be told which knot it is</Box>
          </Box>
        </Row>
      )}
      {label && (
        <Row
          type="button"
          onClick={() => {
            close();
            go(label);
          }}
        >
          <strong>The thing with the label {typed.trim().toUpperCase()}</strong>
        </Row>
      )}
      <Flex as="ul" direction="column" mt="2" listStyleType="none" data-testid="found" aria-live="polite">
        {found.map((e) => (
          <li key={`${e.kind} ${e.name} ${e.to}`}>
            <Row type="button" onClick={() => open(e)} data-found={`${e.kind} ${e.name}`}>
              <Box as="span" color="quiet" fontSize="sm" w="52px" flex="none">
                {e.kind}
              </Box>
              <Box>
                <strong>{e.name}</strong>
                {e.also && e.kind !== "Fault" && (
                  <Box as="span" color="quiet">
                    {" "}
                    also {e.also}
                  </Box>
                )}
                <Box fontSize="sm">{e.says}</Box>
              </Box>
            </Row>
          </li>
        ))}
      </Flex>
      {typed.trim() && found.length === 0 && <Box mt="2">Nothing here is called that, nor nearly.</Box>}
    </Sheet>
  );
}

const Row = chakra("button", {
  base: {
    display: "flex",
    gap: "3",
    w: "100%",
    minH: "48px",
    py: "1.5",
    px: "2",
    textAlign: "left",
    borderRadius: "sm",
    cursor: "pointer",
    _hover: { bg: "amberWash" },
  },
});
