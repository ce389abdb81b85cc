import { Box, Flex } from "@chakra-ui/react";
import { lazy, memo, Suspense, useEffect, useMemo, useRef, useState } from "react";
import { useNavigationType, useSearchParams } from "react-router";
import type { Catalogue, Rig } from "../api/client";
import { readRig, useAnswer, useCatalogue, useLines, useRigs, useSaveRig, useWhole } from "../api/hooks";
import { AttemptDialog } from "../log/attempt";
import { Press } from "../ui/button";
import { lookOf } from "../ui/drawing";
import { isTyping } from "../ui/keys";
import { Trouble } from "../ui/notes";
import { AnswerPanel } from "./answer";
import { Chain, WholeRig } from "./chain";
import { Changes } from "./changes";
import {
  decode,
  encode,
  firstRig,
  isFishing,
  isInner,
  jointOf,
  jointsOf,
  lineOf,
  lineOnly,
  merge,
  part,
  withJoint,
  withLine,
} from "./document";
import { LineDrawing } from "./line-drawing";
import { phrases, plain, sentence } from "./phrases";
import { Sentence } from "./sentence";

const LoadDialog = lazy(() => import("./load").then((m) => ({ default: m.LoadDialog })));

/** Home: the chain, the line, the sentence, the answer. The address holds the rig. */
export function RigView() {
  const { rig, change, broken, undo, redo } = useRig();
  const catalogue = useCatalogue();
  const [at, setAt] = useState(1);
  const [attempt, setAttempt] = useState("");
  const [load, setLoad] = useState(false);
  // The joint that is looked at: the one chosen, or the one beside the line or fitting chosen.
  const joints = jointsOf(rig);
  const joint = joints.find((j) => j === at || j === at + 1 || j === at - 1) ?? joints[0] ?? 1;
  const here = useMemo(() => part(rig, joint), [rig, joint]);
  const { answer: a, error, busy } = useAnswer(here);
  const whole = useWhole(rig, rig.chain.length > 3).data;
  useEffect(() => {
    document.title = `${rig.name || "Rig"} · Oarweed`;
  }, [rig.name]);

  // What stands beside the answer is drawn anew only when its own matter is: what it calls must stay the same.
  const latest = useRef({ change, undo, redo, choose: (_: string) => undefined as unknown });
  latest.current = { ...latest.current, change, undo, redo };
  const acts = useMemo(
    () => ({
      change: (next: Rig) => latest.current.change(next),
      undo: () => latest.current.undo?.(),
      redo: () => latest.current.redo?.(),
      select: (knot: string) => void latest.current.choose(knot),
    }),
    [],
  );
  const settled = useSettled(here);
  const own = jointOf(here).knot;
  const selected = a?.ranked.find((x) => x.knot === own) ?? a?.ranked[0];
  const knot = error ? undefined : selected?.knot;
  const c = catalogue.data;
  const fishing = c ? isFishing(here, c) : false;
  const beneath = useMemo(
    () => c && knot && <Changes rig={settled} knot={knot} fishing={fishing} catalogue={c} />,
    [settled, knot, fishing, c],
  );
  const inner = isInner(rig, joint);
  const parts = useMemo(() => (c ? sentence(here, c, inner) : []), [here, c, inner]);
  if (catalogue.error)
    return (
      <Pad>
        <Trouble error={catalogue.error} />
      </Pad>
    );
  if (!c) return <Pad>Loading…</Pad>;
  const changePart = (next: Rig) => change(merge(rig, joint, next));
  latest.current.choose = (knot) => changePart(withJoint(here, { knot }));
  return (
    <Box as="main" w="100%" maxW="1360px" mx="auto">
      <Bar
        rig={rig}
        here={here}
        catalogue={c}
        change={acts.change}
        undo={undo ? acts.undo : undefined}
        redo={redo ? acts.redo : undefined}
        text={plain(parts)}
      />
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
      <Chain
        rig={rig}
        whole={whole}
        catalogue={c}
        fishing={fishing}
        at={at}
        look={setAt}
        change={acts.change}
      />
      {a && (
        <LineDrawing
          rig={here}
          answer={a}
          selected={selected}
          phrases={phrases(here, c, inner)}
          catalogue={c}
          change={changePart}
          weakest={rig.chain.length === 3 || whole?.weakest?.at === joint}
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
        <Sentence parts={parts} change={changePart} />
        <Press look="bare" className="no-print" onClick={() => setLoad(true)}>
          Work out the load
        </Press>
      </Box>
      {whole && rig.chain.length > 3 && <WholeRig whole={whole} fishing={fishing} />}
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
            fishing={fishing}
            look={lookOf(lineOf(here).construction)}
            selected={selected}
            select={acts.select}
            attempt={setAttempt}
          >
            {beneath}
          </AnswerPanel>
        </Box>
      )}
      <AttemptDialog knot={attempt} close={() => setAttempt("")} />
      {load && (
        <Suspense fallback={null}>
          <LoadDialog open close={() => setLoad(false)} rig={here} change={changePart} fishing={fishing} />
        </Suspense>
      )}
    </Box>
  );
}

/** The rig once it has stood for a moment: what takes longer to work out waits for that. */
function useSettled(rig: Rig): Rig {
  const [settled, setSettled] = useState(rig);
  useEffect(() => {
    const wait = setTimeout(() => setSettled(rig), 250);
    return () => clearTimeout(wait);
  }, [rig]);
  return settled;
}

function Pad({ children }: { children: React.ReactNode }) {
  return (
    <Box px={{ base: 3, md: 6 }} py="3">
      {children}
    </Box>
  );
}

/** The rig in the address; without one the rig last saved, or a first one. Changes can be taken back. */
function useRig() {
  const [params, setParams] = useSearchParams();
  const text = params.get("rig");
  const came = useNavigationType();
  const saved = useRigs();
  const linked = useMemo(() => (text ? decode(text) : undefined), [text]);
  // The address follows a moment later: kept here too, so that of two quick changes neither is lost.
  const [latest, setLatest] = useState<Rig>();
  const [past, setPast] = useState<Rig[]>([]);
  const [future, setFuture] = useState<Rig[]>([]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: going back in the history brings a new text
  useEffect(() => {
    if (came === "POP") setLatest(undefined);
  }, [came, text]);
  const rig = latest ?? linked ?? saved.data?.[0]?.rig ?? firstRig;
  const settle = useRef<ReturnType<typeof setTimeout>>(undefined);
  const put = (next: Rig, dragging = false) => {
    setLatest(next);
    clearTimeout(settle.current);
    // Browsers allow few addresses a second: while dragging it follows at the end.
    if (dragging) settle.current = setTimeout(() => setParams({ rig: encode(next) }, { replace: true }), 300);
    else setParams({ rig: encode(next) }, { replace: false });
  };
  // What follows at once on a change, as while dragging, is taken back with it.
  const last = useRef(0);
  const change = (next: Rig) => {
    const now = Date.now();
    const dragging = now - last.current < 250 && past.length > 0;
    if (!dragging) setPast([...past.slice(-99), rig]);
    last.current = now;
    setFuture([]);
    put(next, dragging);
  };
  const step = (from: Rig[], setFrom: (r: Rig[]) => void, to: Rig[], setTo: (r: Rig[]) => void) => {
    const next = from.at(-1);
    if (!next) return undefined;
    return () => {
      setFrom(from.slice(0, -1));
      setTo([...to, rig]);
      put(next);
    };
  };
  const undo = step(past, setPast, future, setFuture);
  const redo = step(future, setFuture, past, setPast);
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (isTyping(e) || !(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== "z") return;
      e.preventDefault();
      (e.shiftKey ? redo : undo)?.();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  });
  return { rig, change, undo, redo, broken: text !== null && !linked };
}

const field = { minHeight: 44, background: "transparent", padding: "0 6px", maxWidth: "min(150px, 30vw)" };

/** Which rig this is, where to begin, saving it, and sending it on. */
const Bar = memo(function Bar(props: {
  rig: Rig;
  here: Rig;
  catalogue: Catalogue;
  change: (rig: Rig) => void;
  undo: (() => void) | undefined;
  redo: (() => void) | undefined;
  text: string;
}) {
  const { rig, here, catalogue, change, undo, redo, text } = props;
  const rigs = useRigs();
  const lines = useLines();
  const save = useSaveRig();
  const [said, setSaid] = useState("");
  const [trouble, setTrouble] = useState<unknown>();
  const [more, setMore] = useState(false);
  const file = useRef<HTMLInputElement>(null);
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
  const download = () => {
    const a = document.createElement("a");
    a.href = URL.createObjectURL(new Blob([JSON.stringify(rig, null, 2)], { type: "application/json" }));
    a.download = `${(rig.name || "rig").replace(/[^\p{L}\p{N}]+/gu, "-")}.json`;
    a.click();
    URL.revokeObjectURL(a.href);
    setSaid("Exported");
  };
  // The rig on screen stays until the one from the file is known to be sound.
  const take = async (f: File | undefined) => {
    if (!f) return;
    setTrouble(undefined);
    try {
      const read = await readRig(await f.text());
      change(read);
      setSaid("Imported");
    } catch (e) {
      setTrouble(e);
    }
  };
  return (
    <Box className="no-print" px={{ base: 3, md: 6 }} py="1.5" fontSize="15px">
      <Flex gap="2" align="center" wrap="wrap">
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
            width: `min(${Math.max(16, name.length + 2)}ch, 88vw)`,
            borderBottom: "2px dotted var(--line)",
          }}
        />
        <Menu
          label="Begin with a usual rig"
          first="Begin with…"
          list={catalogue.templates.map((t) => ({ id: t.id, name: t.rig.name ?? t.id }))}
          take={(id) => {
            const t = catalogue.templates.find((x) => x.id === id);
            if (t) change(t.rig);
          }}
        />
        <Menu
          label="Open a saved rig"
          first="Open…"
          list={rigs.data?.map((r) => ({ id: String(r.id), name: r.rig.name ?? "" })) ?? []}
          take={(id) => {
            const r = rigs.data?.find((x) => String(x.id) === id);
            if (r) change(r.rig);
          }}
        />
        <Press look="bare" onClick={() => void store().catch(() => undefined)} disabled={save.isPending}>
          Save
        </Press>
        <Press look="bare" onClick={undo} disabled={!undo}>
          Undo
        </Press>
        <Press look="bare" onClick={redo} disabled={!redo} display={{ base: "none", sm: "inline-flex" }}>
          Redo
        </Press>
        <Press look="bare" onClick={() => void copy("Link", link())}>
          Copy link
        </Press>
        <Press look="bare" aria-expanded={more} onClick={() => setMore(!more)}>
          More
        </Press>
        <Box role="status" color="glass" fontWeight="700">
          {said}
        </Box>
      </Flex>
      {more && (
        <Flex gap="2" align="center" wrap="wrap">
          <Menu
            label="Use a line from the locker"
            first="Locker…"
            list={lines.data?.map((l) => ({ id: String(l.id), name: l.name })) ?? []}
            take={(id) => {
              const l = lines.data?.find((x) => String(x.id) === id);
              if (l) change(merge(rig, jointPlace(rig, here), withLine(here, lineOnly(l))));
            }}
          />
          <label>
            Rank for{" "}
            <select
              aria-label="Rank for"
              value={rig.weights ?? ""}
              onChange={(e) => change({ ...rig, weights: e.target.value || undefined })}
              style={field}
            >
              <option value="">the task</option>
              {Object.keys(catalogue.weights).map((w) => (
                <option key={w} value={w} style={{ color: "#000" }}>
                  {w.replace("-", ", ")}
                </option>
              ))}
            </select>
          </label>
          <Press
            look="bare"
            onClick={() => {
              change({ ...rig, name: `${rig.name || "Rig"}, copy` });
              setSaid("This is a copy");
            }}
          >
            Duplicate
          </Press>
          <Press look="bare" onClick={download}>
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
          <Press look="bare" onClick={() => void copy("Sentence", text)}>
            Copy sentence
          </Press>
        </Flex>
      )}
      {save.error && <Trouble error={save.error} />}
      {trouble ? (
        <>
          <Trouble error={trouble} />
          <Box mt="1">The rig below is the one from before. Nothing was lost.</Box>
        </>
      ) : null}
    </Box>
  );
});

/** Where in the chain the part that is looked at has its joint. */
const jointPlace = (rig: Rig, here: Rig) => rig.chain.indexOf(here.chain[1] as Rig["chain"][number]);

/** A list that does something at once and shows no choice of its own. */
function Menu(props: {
  label: string;
  first: string;
  list: { id: string; name: string }[];
  take: (id: string) => void;
}) {
  return (
    <select
      aria-label={props.label}
      value=""
      onChange={(e) => e.target.value && props.take(e.target.value)}
      style={field}
    >
      <option value="">{props.first}</option>
      {props.list.map((o) => (
        <option key={o.id} value={o.id} style={{ color: "#000" }}>
          {o.name}
        </option>
      ))}
    </select>
  );
}
