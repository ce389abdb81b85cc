import { Box, chakra, Flex, Grid } from "@chakra-ui/react";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { Catalogue, Rig, Schemas } from "../api/client";
import { useCatalogue, useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { encode, firstRig, jointsOf, merge, part, sound, withTask } from "../rig/document";
import { phrases } from "../rig/phrases";
import { Sentence } from "../rig/sentence";
import { atHand } from "../rig/state";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { Cautions, Trouble } from "../ui/notes";
import { Card, Page, Part, Title } from "../ui/page";
import { HoldView } from "./hold";
import { Lashing } from "./lashing";
import { Measures } from "./measures";
import { Reeve } from "./reeve";
import { JobScene, sceneNames } from "./scenes";
import { SoftShackle } from "./shackle";
import { TowLine } from "./tow-line";
import { type Relief, Winch } from "./winch";

/** Sums that are jobs too. */
const sums: Listed[] = [
  {
    knot: "cleat-hitch",
    step: 2,
    to: "/jobs/turns",
    name: "Turns and hand force",
    when: "How many turns, eights or twists hold a load, and what the hand still has to hold.",
  },
  {
    knot: "cow-hitch",
    to: "/jobs/soft-shackle",
    name: "Make a soft shackle",
    when: "Clamp and stopper out of one short cord: which go together.",
  },
  {
    knot: "clove-hitch",
    to: "/jobs/measures",
    name: "Fender height and coils",
    when: "How far down a fender hangs and the line it takes; how many coils a line makes.",
  },
  {
    knot: "round-turn-two-half-hitches",
    to: "/lines",
    name: "The locker, and what is due",
    when: "Which line bears what now, which is worn, which is to be looked over or retired.",
  },
  {
    knot: "non-slip-loop",
    to: "/lines/leaders",
    name: "Leaders, change by change",
    when: "How many more times it can be tied again before it is too short, and with which knot more often.",
  },
  {
    knot: "cleat-hitch",
    to: "/lines/moorings",
    name: "Moored in the wind",
    when: "What each line bears, and what wind the berth stands: drag a line's shore end and see.",
  },
  {
    picture: "tow-ask",
    to: "/jobs/tow-line",
    name: "Tow line: which take-off",
    when: "For the length a rider wants: the take-off, or how far up the line a hitch sits.",
  },
  {
    knot: "figure-eight-loop",
    to: "/bench",
    name: "Pull two knots against each other",
    when: "Which is stronger in your line: on a bench with a load cell, or off a spring scale.",
  },
  {
    knot: "bowline",
    to: "/sayings",
    name: "Sayings, tested",
    when: "One turn is enough, more locks hold more, a bowline never slips: worked out on your own rig.",
  },
  {
    knot: "figure-eight",
    to: "/method",
    name: "Method",
    when: "Every formula, figure and source behind the answers, and what use teaches about friction.",
  },
];

type Listed = { to: string; name: string; when: string; knot?: string; step?: number; picture?: string };

/** A job with the knot that is drawn for it: that of the first step that has one. */
const jobLink = ({ id, name, when, steps = [] }: Catalogue["procedures"][number]): Listed => {
  const drawn = steps.find((s) => s.knot);
  return {
    to: `/jobs/${id}`,
    name,
    when,
    knot: drawn?.knot,
    step: drawn?.step || undefined,
    picture: steps.find((s) => s.picture)?.picture,
  };
};

/** Sums that belong to a job. */
const beside: Record<string, { to: string; name: string }> = {
  "make-fast-tow": { to: "/jobs/tow-line", name: "Which take-off, for the length wanted" },
  coil: { to: "/jobs/measures", name: "How many coils" },
  fender: { to: "/jobs/measures", name: "How far down it hangs" },
  "tie-shackle": { to: "/jobs/soft-shackle", name: "Choose the pair, and the cord" },
};

/** Jobs that are more than a knot, each with what it is done with. */
export function JobList() {
  const { data, error } = useCatalogue();
  return (
    <Page maxW="1680px">
      <Title>Jobs</Title>
      <Trouble error={error} />
      {data && (
        <>
          <Jobs title="On the water" list={data.procedures.map(jobLink)} />
          <Jobs title="Worked out" list={sums} />
        </>
      )}
    </Page>
  );
}

function Jobs({ title, list }: { title: string; list: Listed[] }) {
  return (
    <Part title={title} mt="4">
      <Grid templateColumns="repeat(auto-fill, minmax(min(340px, 100%), 1fr))" gap="3">
        {list.map((p) => (
          <Card key={p.to} kind="link" p="3" asChild>
            <Link to={p.to}>
              <Flex gap="3" align="center" h="100%">
                <Box flex="none" w="96px" h="92px">
                  {p.knot ? (
                    <Drawing
                      id={p.knot}
                      name={p.knot}
                      drawn
                      options={p.step ? { step: p.step } : {}}
                      w="96px"
                      h="92px"
                      aria-hidden
                    />
                  ) : p.picture ? (
                    <Box
                      w="96px"
                      overflow="hidden"
                      aria-hidden
                      css={{ "& svg": { width: "96px", height: "92px" } }}
                    >
                      <Picture of={p.picture} />
                    </Box>
                  ) : (
                    <Hank />
                  )}
                </Box>
                <Box minW="0">
                  <Box className="head" fontSize="lg">
                    {p.name}
                  </Box>
                  <Box color="quiet" fontSize="md" lineHeight="1.3">
                    {p.when}
                  </Box>
                </Box>
              </Flex>
            </Link>
          </Card>
        ))}
      </Grid>
    </Part>
  );
}

/** A hank of line, for a job that is done with the line itself. */
function Hank() {
  return (
    <svg width="96" height="92" viewBox="0 0 96 92" fill="none" aria-hidden="true">
      {[30, 24, 18].map((r) => (
        <g key={r}>
          <ellipse cx="48" cy="46" rx={r + 4} ry={r} stroke="var(--rope-1-edge)" strokeWidth="6" />
          <ellipse cx="48" cy="46" rx={r + 4} ry={r} stroke="var(--rope-1)" strokeWidth="4.4" />
        </g>
      ))}
      <path d="M48 12v68" stroke="var(--rope-1-edge)" strokeWidth="7" />
      <path d="M48 13v66" stroke="var(--rope-1)" strokeWidth="5" />
    </svg>
  );
}

/** One job, step by step, with what is worked out for the lines at hand. */
export function JobView() {
  const { id = "" } = useParams();
  const catalogue = useCatalogue().data;
  if (id === "soft-shackle") return <SoftShackle />;
  if (id === "turns") return <HoldView />;
  if (id === "tow-line") return <TowLine />;
  if (id === "measures") return <Measures />;
  if (!catalogue) return <Box p="6">Loading…</Box>;
  return <Job key={id} id={id} catalogue={catalogue} />;
}

/**
 * The rig that a job is worked out for: the joint at hand that is for its task, or that of the template. A job
 * for any task takes the first joint at hand.
 */
function begin(
  needs: string | undefined,
  catalogue: Catalogue,
): { rig?: Rig; own?: { rig: Rig; at: number } } {
  if (!needs) return {};
  const hand = atHand(sound);
  const at = jointsOf(hand).find((i) => needs === "any" || hand.chain[i]?.joint?.task === needs);
  if (at !== undefined) return { rig: part(hand, at), own: { rig: hand, at } };
  const template = catalogue.templates.find((t) => t.rig.chain[1]?.joint?.task === needs)?.rig;
  const task = catalogue.tasks.find((t) => t.id === needs);
  return { rig: template ?? (task && withTask(firstRig, task, catalogue)) };
}

function Job({ id, catalogue }: { id: string; catalogue: Catalogue }) {
  const needs = catalogue.procedures.find((p) => p.id === id)?.needs;
  const [start] = useState(() => begin(needs, catalogue));
  const [rig, setRig] = useState<Rig | undefined>(start.rig);
  const { data: card, error } = useLasting(q.card(id, rig));
  // Back with what was changed here; the rest of the rig stays as it was.
  const back = rig && encode(start.own ? merge(start.own.rig, start.own.at, rig) : rig);
  return (
    <Page maxW="860px">
      <Trouble error={error} />
      {card && (
        <>
          <Title>{card.name}</Title>
          <Box color="quiet" mb="3">
            {card.when}
          </Box>
          {card.cautions.length > 0 && (
            <Card kind="warn" mb="4" position="sticky" top="0" zIndex="1" p="3">
              <Cautions list={card.cautions} />
            </Card>
          )}
          {rig && (
            <Card mb="4">
              <Sentence parts={words(phrases(rig, catalogue))} change={setRig} />
              <Flex gap="3" align="center" wrap="wrap" mt="1">
                <Box color="quiet">
                  {start.own ? "Taken from your rig." : "An example: your rig is for something else."}
                </Box>
                <Press look="bare" asChild className="no-print">
                  <Link to={`/?rig=${back}`}>
                    {start.own ? "Back to your rig with this" : "Make this the rig"}
                  </Link>
                </Press>
              </Flex>
            </Card>
          )}
          <Notes list={card.notes} />
          <Flex as="ol" direction="column" gap="3" listStyleType="none" mt="4">
            {card.steps.map((s, i) => (
              <Step key={s.says} step={s} n={i + 1} />
            ))}
          </Flex>
          <Flex gap="3" wrap="wrap" mt="5" className="no-print">
            {beside[id] && (
              <Press asChild>
                <Link to={beside[id].to}>{beside[id].name}</Link>
              </Press>
            )}
            <Press asChild>
              <Link to="/jobs">All jobs</Link>
            </Press>
          </Flex>
        </>
      )}
    </Page>
  );
}

const Tick = chakra("button", {
  base: {
    minW: "48px",
    minH: "48px",
    fontSize: "3xl",
    color: "amber",
    borderRadius: "full",
    cursor: "pointer",
    _hover: { bg: "amberWash" },
    "&[aria-pressed=true]": { color: "glass", bg: "glassWash" },
  },
});

/** A drawing of the job's own, by name and what it shows. */
function Picture({ of }: { of: string }) {
  if (sceneNames.includes(of)) return <JobScene of={of} />;
  const [name, what = ""] = of.split("-");
  if (name === "reeve") return <Reeve step={Number(what)} />;
  if (name === "lashing") return <Lashing step={Number(what)} />;
  return <Winch at={what as Relief} clutch={name === "clutch"} />;
}

/** One step; its number is pressed when it is done. A tick keeps the place and approves nothing. */
function Step({ step: s, n }: { step: Schemas["TradeProcedureStep"]; n: number }) {
  const [done, setDone] = useState(false);
  return (
    <Card asChild display="flex" gap="4" alignItems="center" flexWrap={{ base: "wrap", md: "nowrap" }}>
      <li>
        <Tick
          type="button"
          className="head"
          aria-pressed={done}
          aria-label={`Step ${n} done`}
          onClick={() => setDone(!done)}
        >
          {done ? "✓" : n}
        </Tick>
        <Box flex="1" minW={{ base: "70%", md: "0" }} fontSize={{ base: "base", md: "lg" }}>
          {s.says}
        </Box>
        {s.picture ? (
          <Picture of={s.picture} />
        ) : (
          s.knot && (
            <Link to={`/knots/${s.knot}`} aria-label="See the knot">
              <Drawing
                id={s.knot}
                name={s.knot}
                drawn
                options={s.step ? { step: s.step } : {}}
                w="112px"
                h="96px"
              />
            </Link>
          )
        )}
      </li>
    </Card>
  );
}

function Notes({ list }: { list: string[] }) {
  if (list.length === 0) return null;
  return (
    <Card kind="note" mt="4" data-testid="notes">
      {list.map((n) => (
        <Box key={n} py="0.5">
          {n}
        </Box>
      ))}
      <Evidence
        tag="computed"
        source="riding-turn theory and the capstan equation at the lowest friction expected; friction from memory"
      />
    </Card>
  );
}

/** The words of the sentence that a job needs: the lines or the thing, wet or dry, the load. */
function words(p: ReturnType<typeof phrases>) {
  const line = [p.line_size, " ", p.line_kind];
  const lines = p.other_size
    ? ["The loaded line is ", p.other_size, " ", p.other_kind, ", the other ", ...line]
    : ["The line is ", ...line, ", on a ", p.fitting_size, " ", p.fitting_kind];
  return [...lines, ", ", p.wet, ", and the load is ", p.load, "."].filter((x) => x !== undefined);
}
