import { Box, Flex } from "@chakra-ui/react";
import { useEffect, useMemo, useState } from "react";
import { useNavigationType, useSearchParams } from "react-router";
import type { Rig } from "../api/client";
import { useAnswer, useCatalogue, useLines, useRigs, useSaveRig } from "../api/hooks";
import { AttemptDialog } from "../log/attempt";
import { Press } from "../ui/button";
import { lookOf } from "../ui/drawing";
import { Trouble } from "../ui/notes";
import { AnswerPanel } from "./answer";
import { decode, encode, firstRig, isFishing, lineOf, lineOnly, withLine } from "./document";
import { LineDrawing } from "./line-drawing";
import { phrases, plain, sentence } from "./phrases";
import { Sentence } from "./sentence";

/** Home: the line, the sentence, the answer. The address holds the rig. */
export function RigView() {
  const { rig, change, broken } = useRig();
  const catalogue = useCatalogue();
  const { answer: a, error, busy } = useAnswer(rig);
  const [chosen, setChosen] = useState("");
  const [attempt, setAttempt] = useState("");
  useEffect(() => {
    document.title = `${rig.name || "Rig"} · Oarweed`;
  }, [rig.name]);

  const c = catalogue.data;
  const parts = useMemo(() => (c ? sentence(rig, c) : []), [rig, c]);
  if (catalogue.error)
    return (
      <Pad>
        <Trouble error={catalogue.error} />
      </Pad>
    );
  if (!c) return <Pad>Loading…</Pad>;
  const selected = a?.ranked.find((x) => x.knot === chosen) ?? a?.ranked[0];
  return (
    <Box as="main" w="100%" maxW="1360px" mx="auto">
      <Bar rig={rig} change={change} text={plain(parts)} />
      {broken && (
        <Pad>
          <Trouble
            error={
              new Error(
                "This link holds a rig that cannot be read. The rig below is shown instead; nothing was changed.",
              )
            }
          />
        </Pad>
      )}
      {a && (
        <LineDrawing
          rig={rig}
          answer={a}
          selected={selected}
          phrases={phrases(rig, c)}
          catalogue={c}
          change={change}
        />
      )}
      <Box
        px={{ base: 3, md: 6 }}
        py="3"
        borderTop="1.5px solid"
        borderBottom="1.5px solid"
        borderColor="rule"
        bg="sheet"
      >
        <Sentence parts={parts} change={change} />
      </Box>
      {error && (
        <Pad>
          <Trouble error={error} />
          {a && <Box mt="2">Below is the answer from before this change.</Box>}
        </Pad>
      )}
      {a && (
        <Box px={{ base: 3, md: 6 }} py="4" opacity={error ? 0.45 : 1} data-testid="answer" data-busy={busy}>
          <AnswerPanel
            answer={a}
            fishing={isFishing(rig, c)}
            look={lookOf(lineOf(rig).construction)}
            selected={selected}
            select={setChosen}
            attempt={setAttempt}
          />
        </Box>
      )}
      <AttemptDialog knot={attempt} close={() => setAttempt("")} />
    </Box>
  );
}

function Pad({ children }: { children: React.ReactNode }) {
  return (
    <Box px={{ base: 3, md: 6 }} py="3">
      {children}
    </Box>
  );
}

/** The rig in the address; without one the rig last saved, or a first one. */
function useRig() {
  const [params, setParams] = useSearchParams();
  const text = params.get("rig");
  const came = useNavigationType();
  const saved = useRigs();
  const linked = useMemo(() => (text ? decode(text) : undefined), [text]);
  // The address follows a moment later: kept here too, so that of two quick changes neither is lost.
  const [latest, setLatest] = useState<Rig>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: going back in the history brings a new text
  useEffect(() => {
    if (came === "POP") setLatest(undefined);
  }, [came, text]);
  const rig = latest ?? linked ?? saved.data?.[0]?.rig ?? firstRig;
  const change = (next: Rig) => {
    setLatest(next);
    setParams({ rig: encode(next) }, { replace: false });
  };
  return { rig, change, broken: text !== null && !linked };
}

/** Which rig this is, saving it, and sending it on. */
function Bar({ rig, change, text }: { rig: Rig; change: (rig: Rig) => void; text: string }) {
  const rigs = useRigs();
  const lines = useLines();
  const save = useSaveRig();
  const [said, setSaid] = useState("");
  // Typed here, and put in the address when it is done.
  const [name, setName] = useState(rig.name ?? "");
  useEffect(() => setName(rig.name ?? ""), [rig.name]);
  const copy = async (what: string, words: string) => {
    await navigator.clipboard.writeText(words);
    setSaid(`${what} copied`);
  };
  const store = async () => {
    const named = { ...rig, name: name.trim() };
    const known = rigs.data?.find((r) => r.rig.name === named.name);
    await save.mutateAsync({ id: known?.id ?? 0, rig: named });
    change(named);
    setSaid(known ? "Saved again" : "Saved");
  };
  const link = () => `${location.origin}/?rig=${encode(rig)}`;
  return (
    <Flex
      className="no-print"
      px={{ base: 3, md: 6 }}
      py="1.5"
      gap="2"
      align="center"
      wrap="wrap"
      fontSize="15px"
    >
      <input
        value={name}
        aria-label="Name of the rig"
        placeholder="Name this rig"
        maxLength={120}
        onChange={(e) => setName(e.target.value)}
        onBlur={() => name !== rig.name && change({ ...rig, name })}
        className="head"
        style={{
          minHeight: 44,
          fontSize: 20,
          background: "transparent",
          width: 260,
          borderBottom: "2px dotted var(--line)",
        }}
      />
      <select
        aria-label="Open a saved rig"
        value=""
        onChange={(e) => {
          const r = rigs.data?.find((x) => String(x.id) === e.target.value);
          if (r) change(r.rig);
        }}
        style={{ minHeight: 44, background: "transparent", padding: "0 6px", maxWidth: "min(130px, 25vw)" }}
      >
        <option value="">Open…</option>
        {rigs.data?.map((r) => (
          <option key={r.id} value={r.id} style={{ color: "#000" }}>
            {r.rig.name}
          </option>
        ))}
      </select>
      <select
        aria-label="Use a line from the locker"
        value=""
        onChange={(e) => {
          const l = lines.data?.find((x) => String(x.id) === e.target.value);
          if (l) change(withLine(rig, lineOnly(l)));
        }}
        style={{ minHeight: 44, background: "transparent", padding: "0 6px", maxWidth: "min(130px, 25vw)" }}
      >
        <option value="">Locker…</option>
        {lines.data?.map((l) => (
          <option key={l.id} value={l.id} style={{ color: "#000" }}>
            {l.name}
          </option>
        ))}
      </select>
      <Press look="bare" onClick={() => void store().catch(() => undefined)} disabled={save.isPending}>
        Save
      </Press>
      <Press look="bare" onClick={() => void copy("Link", link())}>
        Copy link
      </Press>
      <Press
        look="bare"
        display={{ base: "none", md: "inline-flex" }}
        onClick={() => void copy("Sentence", text)}
      >
        Copy sentence
      </Press>
      <Box role="status" color="glass" fontWeight="700">
        {said}
      </Box>
      {save.error && <Trouble error={save.error} />}
    </Flex>
  );
}
