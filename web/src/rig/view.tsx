import { Box, Grid } from "@chakra-ui/react";
import { replaceEqualDeep, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useMemo, useRef, useState } from "react";
import { useDebounce } from "use-debounce";
import type { Answer, Catalogue, Choice, Rig } from "../api/client";
import { useCatalogue, useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { AttemptDialog } from "../log/attempt";
import { lookOf } from "../ui/drawing";
import { useMedia } from "../ui/media";
import { Trouble } from "../ui/notes";
import { useOnce } from "../ui/once";
import { LineBand, shownOf } from "./band";
import {
  fittingOf,
  isFishing,
  isInner,
  jointOf,
  jointsOf,
  lineOf,
  merge,
  part,
  turnedTo,
  withJoint,
} from "./document";
import { Foot } from "./foot";
import { RigHead } from "./head";
import { Nothing, Panel } from "./panel";
import { plain, sentence } from "./phrases";
import { Ranks } from "./ranks";
import { Sentence } from "./sentence";
import { ThisOne } from "./this-one";
import { useRig } from "./use-rig";
import { WholeRig } from "./whole";
import { Wraps } from "./wraps";

/** What the line is tied to is drawn as. */
const drawnAs = (rig: Rig, c: Catalogue) => c.fittings.find((f) => f.id === fittingOf(rig)?.kind)?.drawn_as;

/** Where the answer has a bar at the foot of the window. */
const footed = "(max-width: 767px), (max-height: 500px)";

const LoadDialog = lazy(() => import("./load").then((m) => ({ default: m.LoadDialog })));

/** Home: the line over the sentence over the answer. The address holds the rig. */
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
  const client = useQueryClient();
  const small = useMedia(footed);
  const attempted = useOnce(attempt !== "");
  const { data: a, error, busy } = useLasting(q.answer(here));
  const chained = rig.chain.length > 3;
  const known = useLasting({ ...q.whole(rig), enabled: chained }).data;
  const whole = chained ? known : undefined;
  const own = jointOf(here).knot;
  const selected = a?.ranked.find((x) => x.knot === own) ?? a?.ranked[0];
  const fishing = isFishing(here, c);
  const parts = useMemo(() => sentence(here, c, inner), [here, c, inner]);
  const [turned, setTurned] = useState("");
  const changePart = (next: Rig) => {
    const after = merge(rig, joint, next);
    // Asked at once, not when all that changes with it has been drawn.
    void client.prefetchQuery(q.answer(part(after, joint)));
    setTurned(turnedTo(here, next));
    change(after);
  };
  const setPart = useSame(changePart);
  const choose = useSame((knot: string) => changePart(withJoint(here, { knot })));
  const reshape = useSame((next: Rig, place: number) => {
    setAt(place);
    change({ ...rig, chain: next.chain });
  });
  // The band is drawn anew when the chain or the knot is another, not for every newton of a load that is dragged.
  const chain = useStable(rig.chain);
  const band = useMemo<Rig>(() => ({ chain, peak_kn: 1 }), [chain]);
  const shown = useStable(selected && shownOf(selected));
  // What takes longer to work out waits until the rig has stood for a moment.
  const [settled] = useDebounce(here, 250);
  return (
    <Box
      as="main"
      w="100%"
      pb={{ base: "88px", md: "0" }}
      css={{ "@media (max-height: 500px)": { paddingBottom: "76px" } }}
    >
      <Box asChild position="absolute" clipPath="inset(50%)" w="1px" h="1px" overflow="hidden">
        <h1>{rig.name || "Rig"}</h1>
      </Box>
      <RigHead acts={acts} here={here} joint={joint} catalogue={c} text={plain(parts)} />
      {acts.broken && (
        <Pad>
          <Trouble error={new Error(brokenLink)} />
        </Pad>
      )}
      <LineBand
        rig={band}
        catalogue={c}
        whole={whole}
        selected={shown}
        bears={a?.line}
        other={a?.other}
        fishing={fishing}
        joint={joint}
        look={setAt}
        change={reshape}
      />
      <Pad bg="sheet" borderBlock="1px solid" borderColor="rule" py="1.5" id="sentence">
        <Sentence parts={parts} change={changePart} workOut={() => setLoad(true)} />
        {turned && (
          <Box color="quiet" fontSize="15px" aria-live="polite" data-testid="turned">
            {turned}
          </Box>
        )}
        <ThisOne code={lineOf(here).own} />
        {whole && <WholeRig whole={whole} fishing={fishing} />}
      </Pad>
      {error && (
        <Pad>
          <Trouble error={error} />
          {a && <Box mt="2">Below is the answer from before this change.</Box>}
        </Pad>
      )}
      <Said answer={a} selected={selected} />
      {a && (
        <Pad
          id="answer"
          tabIndex={-1}
          py="0"
          pb="4"
          opacity={error ? 0.45 : 1}
          data-testid="answer"
          data-busy={busy}
        >
          <AnswerPart
            answer={a}
            fishing={fishing}
            selected={selected}
            select={choose}
            attempt={setAttempt}
            setPart={setPart}
            settled={settled}
            here={here}
            catalogue={c}
          />
        </Pad>
      )}
      {a && small && (
        <Foot
          answer={a}
          selected={selected}
          select={choose}
          look={lookOf(lineOf(here).construction)}
          drawnOn={drawnAs(here, c)}
        />
      )}
      {attempted && <AttemptDialog knot={attempt} close={() => setAttempt("")} />}
      {load && (
        <Suspense fallback={null}>
          <LoadDialog open close={() => setLoad(false)} rig={here} change={changePart} fishing={fishing} />
        </Suspense>
      )}
    </Box>
  );
}

function AnswerPart(p: {
  answer: Answer;
  fishing: boolean;
  selected: Choice | undefined;
  select: (knot: string) => void;
  attempt: (knot: string) => void;
  setPart: (rig: Rig) => void;
  settled: Rig;
  here: Rig;
  catalogue: Catalogue;
}) {
  const { answer, fishing, selected, select, here, setPart } = p;
  const look = lookOf(lineOf(here).construction);
  const drawnOn = drawnAs(here, p.catalogue);
  if (!selected)
    return (
      <Box pt="3">
        <Nothing answer={answer} />
        <Ranks answer={answer} look={look} drawnOn={drawnOn} selected={undefined} select={select} />
      </Box>
    );
  return (
    <Grid
      templateColumns={{
        base: "minmax(0, 1fr)",
        md: "minmax(290px, 0.75fr) minmax(0, 1fr)",
        lg: "minmax(0, 0.75fr) minmax(0, 1fr)",
        "2xl": "600px minmax(0, 1fr)",
      }}
      alignItems="stretch"
      css={{ "@media (max-height: 500px)": { gridTemplateColumns: "minmax(0, 1fr)" } }}
    >
      <Box className="on-paper" display={{ base: "none", md: "block" }} css={short}>
        <Ranks answer={answer} look={look} drawnOn={drawnOn} selected={selected} select={select} />
      </Box>
      <Box pt={{ base: "3", md: "30px" }} minW="0">
        <Panel
          choice={selected}
          first={answer.ranked[0]?.knot === selected.knot}
          answer={answer}
          fishing={fishing}
          look={look}
          drawnOn={drawnOn}
          catalogue={p.catalogue}
          settled={p.settled}
          change={setPart}
          attempt={p.attempt}
          wraps={
            selected.wraps ? (
              <Wraps
                choice={selected}
                set={(wraps) => setPart(withJoint(here, { wraps }))}
                bare={jointOf(here).finish === "bare"}
                setBare={(bare) => setPart(withJoint(here, { finish: bare ? "bare" : undefined }))}
              />
            ) : undefined
          }
        />
      </Box>
    </Grid>
  );
}

/** On a phone turned on its side the ranks are behind the bar at the foot, as on a phone held upright. */
const short = { "@media (max-height: 500px)": { display: "none" } };

/** Told to those who hear the page when the answer changes. */
function Said({ answer, selected }: { answer: Answer | undefined; selected: Choice | undefined }) {
  const n = answer?.ranked.length ?? 0;
  const text = !answer
    ? ""
    : selected
      ? `First: ${answer.ranked[0]?.name}. ${n} will do. Shown: ${selected.name}.`
      : "No knot here does this.";
  return (
    <Box role="status" position="absolute" clipPath="inset(50%)" w="1px" h="1px" overflow="hidden">
      {text}
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

/** The same object for as long as it says the same. */
function useStable<T>(value: T): T {
  const last = useRef(value);
  last.current = replaceEqualDeep(last.current, value);
  return last.current;
}

function Pad(props: React.ComponentProps<typeof Box>) {
  return <Box px={{ base: 3, md: 6 }} py="3" {...props} />;
}
