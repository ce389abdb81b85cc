import { Box, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import type { Learner, Schemas } from "../api/client";
import { useAddAttempt, useLasting, useRole } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Svg } from "../ui/drawing";
import { newKey } from "../ui/key";
import { Trouble } from "../ui/notes";
import { Card, Page as PageBody, Title } from "../ui/page";
import { Crossing } from "./crossing";

type Set = Record<string, boolean | undefined>;
type Page = Schemas["DrillPage"];

/** The bare drawing: set over and under at every crossing, and be told which knot that is. */
export function DrillView() {
  const { id = "" } = useParams();
  const page = useQuery(q.drill(id));
  useEffect(() => {
    if (page.data) document.title = `Crossing drill: ${page.data.name} · Oarweed`;
  }, [page.data]);
  if (page.error) {
    return (
      <Box as="main" p="6">
        <Trouble error={page.error} />
      </Box>
    );
  }
  if (!page.data) return <Box p="6">Working out all the ways…</Box>;
  return <Drill key={id} page={page.data} />;
}

function Drill({ page }: { page: Page }) {
  const [set, setSet] = useState<Set>({});
  const [started] = useState(() => performance.now());
  const text = page.crossings
    .filter((c) => set[c.name] !== undefined)
    .map((c) => `${c.name}${set[c.name] ? "o" : "u"}`)
    .join(",");
  const left = page.crossings.filter((c) => set[c.name] === undefined).length;
  const drawing = useLasting(q.drillDrawing(page.id, text));
  const verdict = useQuery({ ...q.drillVerdict(page.id, text), enabled: left === 0 });
  const turn = (name: string) =>
    setSet((now) => ({ ...now, [name]: now[name] === undefined ? true : !now[name] }));
  const role = useRole();
  const told = left === 0 ? verdict.data : undefined;
  // Which crossings are wrong is said when it is asked for, of this choice.
  const [asked, setAsked] = useState("");
  const wrong = told && asked === text ? told.wrong : [];
  return (
    <PageBody maxW="1100px" py="4">
      <Title>Crossing drill: {page.name.toLowerCase()}</Title>
      <Box color="quiet">
        Tap each crossing to lay one strand over the other; tap again to turn it.{" "}
        {page.choices.toLocaleString("en")} ways
        {page.sampled
          ? `: more than we list; those we tried made ${page.tangles} different tangles.`
          : `, ${page.tangles} different tangles.`}
      </Box>
      <Flex gap="6" mt="3" direction={{ base: "column", lg: "row" }} align="flex-start">
        <Card flex="1.6" w="100%" display="flex" justifyContent="center">
          <Crossings page={page} set={set} turn={turn} drawing={drawing.data} wrong={wrong} />
        </Card>
        <Box flex="1" w="100%" aria-live="polite" data-testid="verdict">
          {told ? (
            <Told
              told={told}
              which={wrong.length === 0 ? () => setAsked(text) : undefined}
              page={page}
              wrong={wrong}
            />
          ) : (
            <Box fontSize="lg">{`${left} of ${page.crossings.length} crossings to set.`}</Box>
          )}
          <Trouble error={drawing.error ?? verdict.error} />
          <ByEar page={page} set={set} lay={(name, over) => setSet((now) => ({ ...now, [name]: over }))} />
          <Flex gap="2" mt="4" wrap="wrap">
            <Press onClick={() => setSet({})} disabled={text === ""}>
              Start again
            </Press>
            <Press asChild>
              <Link to={`/knots/${page.id}`}>See it tied</Link>
            </Press>
            <Press asChild look={told?.right ? "main" : undefined}>
              <Link to={`/knots/${page.next}/drill`}>Next knot</Link>
            </Press>
          </Flex>
          {told && role !== "learner" && (
            <Keep
              knot={page.id}
              right={told.right}
              name={told.name}
              seconds={(performance.now() - started) / 1000}
            />
          )}
        </Box>
      </Flex>
    </PageBody>
  );
}

/** The drawing with a button at every crossing; arrow keys go from one to the next. */
function Crossings(props: {
  page: Page;
  set: Set;
  turn: (name: string) => void;
  drawing: string | undefined;
  wrong: string[];
}) {
  const { page, set, turn, drawing, wrong } = props;
  const [at, setAt] = useState(0);
  const [x, y, w, h] = page.frame as [number, number, number, number];
  const keys = (e: React.KeyboardEvent) => {
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[e.key];
    if (!step) return;
    e.preventDefault();
    const next = (at + step + page.crossings.length) % page.crossings.length;
    setAt(next);
    document.querySelector<HTMLElement>(`[data-crossing="${page.crossings[next]?.name}"]`)?.focus();
  };
  return (
    <Box
      position="relative"
      w="100%"
      maxW={`calc(min(62vh, 520px) * ${w / h})`}
      aspectRatio={`${w} / ${h}`}
      role="group"
      aria-label="Crossings"
      onKeyDown={keys}
    >
      <Svg text={drawing} w="100%" h="100%" />
      {page.crossings.map((c, i) => {
        const state = set[c.name];
        const [first, second] = [strand(page, c.first), strand(page, c.second)];
        const said =
          state === undefined
            ? `${first} with ${second}, not set`
            : `${state ? first : second} over ${state ? second : first}`;
        return (
          <Crossing
            key={c.name}
            type="button"
            open={state === undefined}
            dense={page.crossings.length > 9}
            wrong={wrong.includes(c.name)}
            data-crossing={c.name}
            data-over={state === undefined ? "" : state ? "first" : "second"}
            aria-label={`Crossing ${i + 1}: ${said}`}
            tabIndex={i === at ? 0 : -1}
            onFocus={() => setAt(i)}
            onClick={() => turn(c.name)}
            left={`${((c.x - x) / w) * 100}%`}
            top={`${((c.y - y) / h) * 100}%`}
          >
            {state === undefined ? "?" : ""}
          </Crossing>
        );
      })}
    </Box>
  );
}

/** A strand in words: which rope, and which of its crossings, counted from the standing part. */
function strand(page: Page, s: Schemas["DrillStrand"]): string {
  const ropes = new Set(page.crossings.flatMap((c) => [c.first.rope, c.second.rope])).size;
  const rope = ropes > 1 ? (s.rope === 0 ? "the amber line's " : "the teal line's ") : "";
  return `${rope}pass ${s.pass}`;
}

/** The same drill as words and buttons, in the order in which the line comes by. */
function ByEar(p: { page: Page; set: Set; lay: (name: string, over: boolean) => void }) {
  const { page, set, lay } = p;
  return (
    <Box asChild mt="3">
      <details>
        <summary>By ear: crossing after crossing, along the line</summary>
        <Box as="ol" listStyleType="none" mt="1">
          {page.crossings.map((c, i) => {
            const [first, second] = [strand(page, c.first), strand(page, c.second)];
            return (
              <Flex
                as="li"
                key={c.name}
                role="group"
                aria-label={`Crossing ${i + 1}: ${first} with ${second}`}
                gap="2"
                mt="1.5"
                align="center"
                wrap="wrap"
              >
                <Box minW="24px" fontWeight="700">
                  {i + 1}
                </Box>
                <Press small aria-pressed={set[c.name] === true} onClick={() => lay(c.name, true)}>
                  {first} over {second}
                </Press>
                <Press small aria-pressed={set[c.name] === false} onClick={() => lay(c.name, false)}>
                  under it
                </Press>
              </Flex>
            );
          })}
        </Box>
      </details>
    </Box>
  );
}

function Told(p: {
  told: Schemas["TradeVerdict"];
  page: Page;
  wrong: string[];
  /** Asks which crossings are wrong; left out once that is said. */
  which: (() => void) | undefined;
}) {
  const { told, page, wrong, which } = p;
  const number = (name: string) => page.crossings.findIndex((c) => c.name === name) + 1;
  return (
    <Card kind={told.right ? "good" : "warn"} p="4">
      <Box className="head" fontSize="2xl" color={told.right ? "glass" : "flare"}>
        {told.right ? "✓" : "✕"} {told.name}
      </Box>
      <Box mt="1">{told.says}</Box>
      {!told.right && (
        <Box mt="1" color="quiet">
          {told.wrong.length === 1 ? "One crossing is" : `${told.wrong.length} crossings are`} not as drawn.{" "}
          {which ? (
            <Press small look="bare" onClick={which}>
              Which ones?
            </Press>
          ) : (
            <strong>
              {wrong.length === 1 ? "Crossing" : "Crossings"} {wrong.map(number).join(", ")}, ringed.
            </strong>
          )}
        </Box>
      )}
    </Card>
  );
}

/** Saves the result as an attempt of kind drill. */
function Keep(props: { knot: string; right: boolean; name: string; seconds: number }) {
  const { knot, right, name, seconds } = props;
  const learners = useQuery(q.learners()).data ?? [];
  const add = useAddAttempt();
  const [time] = useState(seconds);
  const [key] = useState(newKey);
  const [kept, setKept] = useState("");
  if (kept)
    return (
      <Box mt="4" color="glass" fontWeight="700" role="status">
        {kept}
      </Box>
    );
  const keep = (l: Learner) =>
    add
      .mutateAsync({
        key,
        learner_id: l.id,
        knot,
        kind: "drill",
        outcome: right ? "right" : "fault",
        fault: right ? "" : name,
        seconds: Math.min(time, 7200),
      })
      .then(() => setKept(`Kept for ${l.name}.`))
      .catch(() => undefined);
  return (
    <Box mt="5">
      <Box color="quiet" mb="1">
        Keep this result for
      </Box>
      <Flex gap="2" wrap="wrap">
        {learners.map((l) => (
          <Press key={l.id} small disabled={add.isPending} onClick={() => void keep(l)}>
            {l.name}
          </Press>
        ))}
      </Flex>
      <Trouble error={add.error} />
    </Box>
  );
}
