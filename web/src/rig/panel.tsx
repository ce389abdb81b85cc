import { Box, Flex, Grid, Heading } from "@chakra-ui/react";
import { lazy, memo, Suspense, useState } from "react";
import { Link } from "react-router";
import type { Answer, Catalogue, Choice, Rig } from "../api/client";
import { useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Drawing, type Look, useAspect } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { length, reach, seconds } from "../ui/format";
import { useMedia } from "../ui/media";
import { Cautions, Flag } from "../ui/notes";
import { useOnce } from "../ui/once";
import { Card } from "../ui/page";
import { Sheet } from "../ui/sheet";
import { Changes } from "./changes";
import { Inspection } from "./inspection";
import type { DrawnAs } from "./scene";
import { StrengthBar } from "./strength-bar";
import { Why } from "./why";

const ChoiceMap = lazy(() => import("./map").then((m) => ({ default: m.ChoiceMap })));
const ChoicePlane = lazy(() => import("./map").then((m) => ({ default: m.ChoicePlane })));

type Props = {
  choice: Choice;
  /** It is the first of the ranks, whose row meets the panel at its corner. */
  first?: boolean;
  answer: Answer;
  fishing: boolean;
  look: Look;
  /** What it is tied to is drawn as. */
  drawnOn?: DrawnAs;
  catalogue: Catalogue;
  /** The joint as it has stood for a moment: what takes longer is worked out for it. */
  settled: Rig;
  change: (rig: Rig) => void;
  attempt: (knot: string) => void;
  /** The control of its wraps, where it has any. */
  wraps?: React.ReactNode;
};

/** The chosen knot: drawn, said in two sentences, its strength as a rope, what to do with it and what would change it. */
export const Panel = memo(function Panel(p: Props) {
  const { choice: c, answer, fishing, look, settled, wraps } = p;
  const locked = answer.cautions.filter((x) => x.locked);
  // A long drawing lies over the words, the others stand beside them.
  const long = useAspect(c.knot, { look, on: p.drawnOn }) > 1.9;
  const wide = useMedia(roomy);
  const card = (
    <Card
      data-testid="chosen"
      position="relative"
      zIndex="1"
      px={{ base: "3", md: "4" }}
      pt="3"
      pb="0"
      borderColor="ink"
      borderWidth="2px"
      borderTopLeftRadius={{ md: p.first ? "0" : "md" }}
      h="100%"
      display="flex"
      flexDirection="column"
      gap="1.5"
    >
      {locked.length > 0 && <Cautions list={locked} />}
      {answer.says && (
        <Box fontWeight="700" color="flare" data-testid="yourself">
          {answer.says}
        </Box>
      )}
      <Grid
        templateColumns={
          long
            ? "minmax(0, 1fr)"
            : {
                base: "96px minmax(0, 1fr)",
                md: "104px minmax(0, 1fr)",
                xl: "178px minmax(0, 1fr)",
                "2xl": "300px minmax(0, 1fr)",
              }
        }
        columnGap="4"
      >
        <Drawing
          id={c.knot}
          name={c.name}
          drawn={c.drawn}
          options={{ look, on: p.drawnOn }}
          h={
            long
              ? { base: "84px", md: "104px", "2xl": "190px" }
              : { base: "120px", md: "150px", xl: "196px", "2xl": "360px" }
          }
          alignSelf="start"
        />
        <Box minW="0">
          <Heading as="h2" className="on-paper" fontSize="24px" display={{ base: "none", md: "block" }}>
            <Link to={`/knots/${c.knot}?look=${look}`}>{c.name}</Link>
          </Heading>
          <Box fontSize={{ base: "base", xl: "18px" }} lineHeight="1.3" mt="0.5">
            {c.says}
            <Evidence bare tag={c.strength.capacity_kn.tag} source={c.strength.capacity_kn.source} />
          </Box>
          <StrengthBar
            choice={c}
            loadKN={answer.rig.peak_kn}
            lineKN={answer.line.capacity_kn.likely}
            fishing={fishing}
          />
          <Facts choice={c} answer={answer} />
        </Box>
      </Grid>
      {(c.flags.length > 0 || wraps || answer.house) && (
        <Flex direction="column" gap="1.5">
          {answer.house?.map((h) => (
            <Box key={h} data-house="" fontSize="md">
              {h} <Link to="/bench">The pulls</Link>
            </Box>
          ))}
          {c.flags.map((f) => (
            <Flag key={f} text={f} />
          ))}
          {wraps}
        </Flex>
      )}
      <Acts {...p} wide={wide} />
      {!wide && <Changes rig={settled} catalogue={p.catalogue} change={p.change} />}
      {answer.people && <Inspection rig={settled} knot={c.knot} />}
      <Folded answer={answer} choice={c} />
    </Card>
  );
  if (!wide) return card;
  return (
    <Grid templateColumns="minmax(0, 1fr) minmax(0, 0.8fr)" gap="5" h="100%" alignItems="start">
      {card}
      <Beside {...p} />
    </Grid>
  );
});

/** Where there is room: what would change the answer, and the map, beside the chosen knot. */
function Beside({ settled, catalogue, fishing, change }: Props) {
  const inputs = useLasting(q.changes(settled)).data?.inputs;
  return (
    <Box>
      <Changes rig={settled} catalogue={catalogue} change={change} />
      {inputs && (
        <Box mt="3">
          <Suspense fallback={null}>
            <ChoicePlane
              rig={settled}
              inputs={inputs}
              catalogue={catalogue}
              fishing={fishing}
              change={change}
            />
          </Suspense>
        </Box>
      )}
    </Box>
  );
}

/** The window has room for a third column. */
const roomy = "(min-width: 1800px) and (min-height: 900px)";

/** Why it stands here, how it comes off, what it takes: a word and a line each. */
function Facts({ choice: c, answer }: { choice: Choice; answer: Answer }) {
  const has = answer.rig.chain[1]?.joint?.tail_m;
  const fact = (name: string, text: React.ReactNode) => (
    <>
      <Box color="quiet">{name}</Box>
      <Box minW="0">{text}</Box>
    </>
  );
  return (
    <Grid
      templateColumns="66px minmax(0, 1fr)"
      columnGap="2"
      rowGap="0.5"
      fontSize="16px"
      lineHeight="1.3"
      mt="1"
    >
      {fact("Because", c.reason.replace(/\.$/, ""))}
      {fact("Off", off(c))}
      {fact(
        "To tie",
        <>
          {reach(c.needs_m)}
          {has ? ` of your ${reach(has)}` : ""}
          {answer.other && c.needs_other_m ? `, ${reach(c.needs_other_m)} of the other` : ""}, in{" "}
          {seconds(c.seconds.likely)}
          {c.left_on_mm ? `; leave ${length(c.left_on_mm)} on` : `; tail ${reach(c.tail_m)}`}{" "}
          <Evidence
            bare
            tag="computed"
            source="the larger of what the fingers need (common practice, no source) and the line in the knot (drawn up in space where that is worked out, else our estimate), round the object, and the usual tail, a backup included where people depend on it"
          />
        </>,
      )}
    </Grid>
  );
}

const off = (c: Choice) => {
  const how = c.release_how.replace(/\.$/, "");
  return how.length < 90 ? how : c.release_word;
};

/** One row of buttons. */
function Acts({
  choice: c,
  answer,
  look,
  attempt,
  fishing,
  settled,
  catalogue,
  change,
  wide,
}: Props & { wide: boolean }) {
  const task = answer.rig.chain[1]?.joint?.task ?? "";
  const job = catalogue.procedures.find((j) => j.serves?.includes(task));
  const [why, setWhy] = useState(false);
  const [map, setMap] = useState(false);
  const asked = useOnce(why);
  const beside = answer.ranked.find((x) => x.knot !== c.knot);
  const material = answer.rig.chain[2]?.line?.material ?? "";
  const inputs = useLasting({ ...q.changes(settled), enabled: map }).data?.inputs;
  return (
    <>
      <Buttons
        knot={c.knot}
        look={look}
        compare={
          beside && `/compare?a=${c.knot}&b=${beside.knot}&in=${material}&mm=${answer.line.diameter_mm}`
        }
        job={job?.id}
        jobName={job?.name}
        wide={wide}
        why={why}
        map={map}
        attempt={attempt}
        setWhy={setWhy}
        setMap={setMap}
      />
      {asked && (
        <Sheet open={why} close={() => setWhy(false)} title={`Why ${c.name.toLowerCase()}`} wide>
          <Why choice={c} answer={answer} fishing={fishing} settled={settled} />
        </Sheet>
      )}
      {map && inputs && (
        <Suspense fallback={null}>
          <ChoiceMap
            open
            close={() => setMap(false)}
            rig={settled}
            inputs={inputs}
            catalogue={catalogue}
            fishing={fishing}
            change={(next) => {
              setMap(false);
              change(next);
            }}
          />
        </Suspense>
      )}
    </>
  );
}

/** Drawn anew only when a button is another one, not for every newton of a load. */
const Buttons = memo(function Buttons(p: {
  knot: string;
  look: Look;
  compare?: string;
  job?: string;
  jobName?: string;
  wide: boolean;
  why: boolean;
  map: boolean;
  attempt: (knot: string) => void;
  setWhy: (open: boolean) => void;
  setMap: (open: boolean) => void;
}) {
  return (
    <Flex gap="2" wrap="wrap" className="no-print" role="group" aria-label="With this knot">
      <Press look="main" asChild>
        <Link to={`/knots/${p.knot}/show`}>▶ Show it</Link>
      </Press>
      <Press asChild>
        <Link to={`/knots/${p.knot}?look=${p.look}`}>See it tied</Link>
      </Press>
      <Press onClick={() => p.attempt(p.knot)}>Record</Press>
      {p.compare && (
        <Press asChild>
          <Link to={p.compare}>Compare</Link>
        </Press>
      )}
      <Press aria-expanded={p.why} onClick={() => p.setWhy(true)}>
        Why
      </Press>
      {!p.wide && (
        <Press aria-expanded={p.map} onClick={() => p.setMap(true)}>
          Map
        </Press>
      )}
      {p.job && (
        <Press asChild title={p.jobName}>
          <Link to={`/jobs/${p.job}`}>Job</Link>
        </Press>
      )}
    </Flex>
  );
});

const counted = ["No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight"];

/** The cautions of the joint and of the knot, folded to a line; what is locked stands open above. */
function Folded({ answer, choice: c }: { answer: Answer; choice: Choice }) {
  const list = [
    ...answer.cautions.filter((x) => !x.locked),
    ...c.cautions.filter((x) => !answer.cautions.some((y) => y.id === x.id)),
  ];
  return <FoldedList list={list} then={answer.then} />;
}

const sameCautions = (
  a: { list: Choice["cautions"]; then?: string },
  b: { list: Choice["cautions"]; then?: string },
) => a.then === b.then && a.list.length === b.list.length && a.list.every((c, i) => c.id === b.list[i]?.id);

const FoldedList = memo(function FoldedList(p: { list: Choice["cautions"]; then?: string }) {
  const { list, then } = p;
  if (list.length === 0 && !then) return null;
  const [head] = list;
  return (
    <Box asChild borderTop="1px solid" borderColor="rule" mt="auto" fontSize="16px">
      <details>
        <Box
          as="summary"
          cursor="pointer"
          minH="42px"
          py="2"
          display="flex"
          gap="2"
          alignItems="baseline"
          minW="0"
        >
          <span aria-hidden>›</span>
          <Box as="strong" whiteSpace="nowrap">
            {list.length > 0
              ? `${counted[list.length] ?? list.length} caution${list.length > 1 ? "s" : ""}`
              : "And then"}
          </Box>
          <Box as="span" color="quiet" truncate minW="0">
            {head?.text ?? then}
          </Box>
        </Box>
        <Box pb="2">
          <Cautions list={list} />
          {then && (
            <Box mt="2" data-testid="then">
              <strong>And then:</strong> {then}
            </Box>
          )}
        </Box>
      </details>
    </Box>
  );
}, sameCautions);

/** Nothing will do: the knot that comes nearest, what it lacks, and what to do instead. */
export function Nothing({ answer }: { answer: Answer }) {
  const near = answer.nearest;
  return (
    <Card kind="warn" p="4" data-testid="nothing">
      <Cautions list={answer.cautions.filter((c) => c.locked)} />
      <Box className="head" fontSize="lg" mt="1">
        No knot here does this.
      </Box>
      {answer.instead && <Box mb="2">{answer.instead}</Box>}
      {near && (
        <Box>
          Nearest comes the{" "}
          <Link to={`/knots/${near.knot}`} className="link strong">
            {near.name.toLowerCase()}
          </Link>
          . {near.reasons.map((r) => r.why).join(" ")} <strong>{near.change.join(" ")}</strong>
        </Box>
      )}
      <Box mt="2">
        <Cautions list={answer.cautions.filter((c) => !c.locked)} />
      </Box>
    </Card>
  );
}
