import { Box } from "@chakra-ui/react";
import { lazy, Suspense, useEffect, useMemo, useRef, useState } from "react";
import { useDebounce } from "use-debounce";
import type { Catalogue, Rig } from "../api/client";
import { useCatalogue, useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { AttemptDialog } from "../log/attempt";
import { Press } from "../ui/button";
import { lookOf } from "../ui/drawing";
import { Trouble } from "../ui/notes";
import { AnswerPanel } from "./answer";
import { Bar } from "./bar";
import { Chain } from "./chain";
import { Changes } from "./changes";
import { isFishing, isInner, jointOf, jointsOf, lineOf, merge, part, turnedTo, withJoint } from "./document";
import { LineDrawing } from "./line-drawing";
import { phrases, plain, sentence } from "./phrases";
import { Sentence } from "./sentence";
import { useRig } from "./use-rig";
import { WholeRig } from "./whole";

const LoadDialog = lazy(() => import("./load").then((m) => ({ default: m.LoadDialog })));

/** Home: the chain, the line, the sentence, the answer. The address holds the rig. */
export function RigView() {
  const acts = useRig();
  const catalogue = useCatalogue();
  useEffect(() => {
    document.title = `${acts.rig.name || "Rig"} · Oarweed`;
  }, [acts.rig.name]);
  if (catalogue.error) return <Pad>{<Trouble error={catalogue.error} />}</Pad>;
  if (!catalogue.data) return <Pad>Loading…</Pad>;
  return <Workbench acts={acts} catalogue={catalogue.data} />;
}

function Workbench({ acts, catalogue: c }: { acts: ReturnType<typeof useRig>; catalogue: Catalogue }) {
  const { rig, change } = acts;
  const [at, setAt] = useState(1);
  const [attempt, setAttempt] = useState("");
  const [load, setLoad] = useState(false);
  const { joint, here, inner } = useLookedAt(rig, at);
  const { data: a, error, busy } = useLasting(q.answer(here));
  const whole = useLasting({ ...q.whole(rig), enabled: rig.chain.length > 3 }).data;
  const own = jointOf(here).knot;
  const selected = a?.ranked.find((x) => x.knot === own) ?? a?.ranked[0];
  const fishing = isFishing(here, c);
  const parts = useMemo(() => sentence(here, c, inner), [here, c, inner]);
  const [turned, setTurned] = useState("");
  const changePart = (next: Rig) => {
    setTurned(turnedTo(here, next));
    change(merge(rig, joint, next));
  };
  const choose = useSame((knot: string) => changePart(withJoint(here, { knot })));
  const setPart = useSame(changePart);
  const setBare = useSame((bare: boolean) =>
    changePart(withJoint(here, { finish: bare ? "bare" : undefined })),
  );
  const setWraps = useSame((wraps: number) => changePart(withJoint(here, { wraps })));
  // What takes longer to work out waits until the rig has stood for a moment.
  const [settled] = useDebounce(here, 250);
  const knot = error ? undefined : selected?.knot;
  const beneath = useMemo(
    () => knot && <Changes rig={settled} knot={knot} fishing={fishing} catalogue={c} change={setPart} />,
    [settled, knot, fishing, c, setPart],
  );
  return (
    <Box as="main" w="100%" maxW="1360px" mx="auto">
      <Bar acts={acts} here={here} catalogue={c} text={plain(parts)} />
      {acts.broken && (
        <Pad>
          <Trouble error={new Error(brokenLink)} />
        </Pad>
      )}
      <Chain rig={rig} whole={whole} catalogue={c} fishing={fishing} at={at} look={setAt} change={change} />
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
      <Pad bg="sheet" borderBlock="1.5px solid" borderColor="rule">
        <Sentence parts={parts} change={changePart} />
        {turned && (
          <Box color="quiet" aria-live="polite" data-testid="turned">
            {turned}
          </Box>
        )}
        <Press look="bare" className="no-print" onClick={() => setLoad(true)}>
          Work out the load
        </Press>
      </Pad>
      {whole && rig.chain.length > 3 && <WholeRig whole={whole} fishing={fishing} />}
      {error && (
        <Pad>
          <Trouble error={error} />
          {a && <Box mt="2">Below is the answer from before this change.</Box>}
        </Pad>
      )}
      {a && (
        <Pad py="4" opacity={error ? 0.45 : 1} data-testid="answer" data-busy={busy}>
          <AnswerPanel
            answer={a}
            fishing={fishing}
            look={lookOf(lineOf(here).construction)}
            selected={selected}
            select={choose}
            attempt={setAttempt}
            setWraps={setWraps}
            setBare={setBare}
          >
            {beneath}
          </AnswerPanel>
        </Pad>
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

const brokenLink =
  "This link holds a rig that cannot be read. The rig below is shown instead; nothing was changed.";

/** The joint that is looked at: the one chosen, or the one beside the line or fitting chosen. */
function useLookedAt(rig: Rig, at: number) {
  const joints = jointsOf(rig);
  const joint = joints.find((j) => j === at || j === at + 1 || j === at - 1) ?? joints[0] ?? 1;
  const here = useMemo(() => part(rig, joint), [rig, joint]);
  return { joint, here, inner: isInner(rig, joint) };
}

/** A function that stays the same while what it does changes: what is given it is not drawn again for that. */
function useSame<A extends unknown[]>(does: (...args: A) => void): (...args: A) => void {
  const latest = useRef(does);
  useEffect(() => {
    latest.current = does;
  });
  return useMemo(
    () =>
      (...args: A) =>
        latest.current(...args),
    [],
  );
}

function Pad(props: React.ComponentProps<typeof Box>) {
  return <Box px={{ base: 3, md: 6 }} py="3" {...props} />;
}
