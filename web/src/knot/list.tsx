import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { Catalogue, Learner, Schemas } from "../api/client";
import { useCatalogue } from "../api/hooks";
import { q } from "../api/queries";
import { useAddress } from "../ui/address";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { capital } from "../ui/format";
import { Hardness } from "../ui/hardness";
import { Trouble } from "../ui/notes";
import { Card, Page, Part, Title } from "../ui/page";
import { Pick, Select, Typed } from "../ui/pick";
import { usePrefs } from "../ui/prefs";

type Brief = Schemas["KnotBrief"];

const kinds: Record<Brief["kind"], string> = {
  loop: "Loops",
  hitch: "Hitches, to a thing",
  bend: "Bends, line to line",
  stopper: "Stoppers and backups",
  terminal: "To a hook, lure or fly",
};

/** All knots: found by name, by what they are for, by material, by how hard they are, by what is known already. */
export function KnotList() {
  const { data, error } = useCatalogue();
  const learners = useQuery(q.learners()).data ?? [];
  const filter = useFilter();
  const learner = learners.find((l) => String(l.id) === filter.known);
  const found = data?.knots.filter(filter.lets);
  const groups =
    found && (learner ? byKnown(found, learner) : filter.task ? byFit(found, filter.task) : byKind(found));
  return (
    <Page maxW="1240px">
      <Flex justify="space-between" align="center" wrap="wrap" gap="3">
        <Title>Knots</Title>
        <Flex gap="2" wrap="wrap">
          <Press asChild>
            <Link to="/knots/name">Name what you tied</Link>
          </Press>
          <Press asChild>
            <Link to="/knots/quiz">Find the fault</Link>
          </Press>
          <Press asChild>
            <Link to="/knots/fewest">The fewest knots</Link>
          </Press>
          <Press asChild>
            <Link to="/knots/rolls">Why the granny rolls</Link>
          </Press>
          <Press asChild>
            <Link to="/words">Words</Link>
          </Press>
          <Press asChild>
            <Link to="/compare">Compare two</Link>
          </Press>
          <Press asChild>
            <Link to="/doctrines">What you teach</Link>
          </Press>
        </Flex>
      </Flex>
      <Filters filter={filter} catalogue={data} learners={learners} />
      <Trouble error={error} />
      {data && found && (
        <Flex mt="3" justify="space-between" align="center" columnGap="4" wrap="wrap">
          <Flex align="center" gap="2" color="quiet" minH="44px" data-testid="count" aria-live="polite">
            {counted(found.length, filter)}
            {filter.on && (
              <Press look="bare" onClick={filter.clear}>
                Show all
              </Press>
            )}
          </Flex>
          {found.length > 0 && (
            <OnPaper knots={found.length <= 24 ? found.map((k) => k.id) : []} sets={data.sets} />
          )}
        </Flex>
      )}
      {groups?.map(([title, list]) => (
        <Part key={title} title={title} mt="4">
          <Grid templateColumns="repeat(auto-fill, minmax(min(270px, 100%), 1fr))" gap="3">
            {list.map((k) => (
              <KnotCard key={k.id} knot={k} knows={learner?.knows} />
            ))}
          </Grid>
        </Part>
      ))}
    </Page>
  );
}

/** What is found here, or a named set, on paper. */
function OnPaper({ knots, sets }: { knots: string[]; sets: Catalogue["sets"] }) {
  const hand = usePrefs().hand;
  const [set, setSet] = useState("");
  const chosen = sets.find((s) => s.id === set);
  const ids = chosen?.knots ?? knots;
  const query = `knots=${ids.join(",")}&left=${hand === "left"}&title=${encodeURIComponent(chosen?.name ?? "Knots")}`;
  const papers: [string, string][] = [
    ["Six to a page", `sheet.pdf?per=6&${query}`],
    ["Four to a page", `sheet.pdf?per=4&${query}`],
    ["A page each", `class-set.pdf?${query}`],
  ];
  return (
    <Flex gap="2" align="center" wrap="wrap" data-testid="on-paper">
      <Box color="quiet">On paper:</Box>
      <Select
        label="Which knots"
        value={set}
        set={setSet}
        first={knots.length > 0 ? "those below" : "choose a set"}
        list={sets}
      />
      {ids.length > 0 &&
        papers.map(([name, to]) => (
          <Press key={name} asChild small>
            <a href={`/api/v1/knots/${to}`} target="_blank" rel="noreferrer">
              {name}
            </a>
          </Press>
        ))}
    </Flex>
  );
}

type Filter = ReturnType<typeof useFilter>;

/** What is looked for, kept in the address. */
function useFilter() {
  const [params, change] = useAddress();
  const get = (key: string) => params.get(key) ?? "";
  // Kept here and not only in the address, so that no letter typed is lost.
  const [typed, setTyped] = useState(get("q"));
  const word = typed.trim().toLowerCase();
  const [task, material, hard, known] = [get("for"), get("in"), Number(get("hard") || 5), get("known")];
  return {
    typed,
    word,
    task,
    material,
    known,
    hard: get("hard"),
    on: word !== "" || task !== "" || material !== "" || hard < 5 || known !== "",
    type: (q: string) => {
      setTyped(q);
      change({ q });
    },
    set: change,
    clear: () => {
      setTyped("");
      change({ q: "", for: "", in: "", hard: "", known: "" });
    },
    lets: (k: Brief) =>
      [k.name, ...(k.also ?? []), k.summary].some((t) => t.toLowerCase().includes(word)) &&
      (!task || (k.tasks[task] ?? 0) > 0) &&
      !(material && k.not_in.includes(material)) &&
      k.difficulty <= hard,
  };
}

function counted(n: number, filter: Filter): string {
  if (n > 1) return `${n} knots.`;
  if (n === 1) return "One knot.";
  const named = filter.word && !filter.task && !filter.material && !filter.known;
  return named ? `No knot here is called “${filter.typed}”.` : "No knot fits all of that.";
}

const hardness = [1, 2, 3, 4].map((n) => ({
  id: String(n),
  name: n === 1 ? "easiest only" : `up to ${n} of 5`,
}));

function Filters(props: { filter: Filter; catalogue: Catalogue | undefined; learners: Learner[] }) {
  const { filter: f, catalogue, learners } = props;
  return (
    <Grid templateColumns={{ base: "1fr 1fr", md: "1.5fr 1.5fr 1fr 1fr 1fr" }} gap="3" mt="3">
      <Typed label="Find by name or use" type="search" wide value={f.typed} set={f.type} />
      <Pick
        label="To"
        value={f.task}
        set={(v) => f.set({ for: v })}
        any="do anything"
        list={catalogue?.tasks ?? []}
      />
      <Pick
        label="In"
        value={f.material}
        set={(v) => f.set({ in: v })}
        any="any line"
        list={catalogue?.materials ?? []}
      />
      <Pick label="Hard to learn" value={f.hard} set={(v) => f.set({ hard: v })} any="any" list={hardness} />
      <Pick
        label="What next for"
        value={f.known}
        set={(v) => f.set({ known: v })}
        any="nobody chosen"
        list={learners.map((l) => ({ id: String(l.id), name: `${l.name} (${l.knows.length})` }))}
      />
    </Grid>
  );
}

type Groups = [string, Brief[]][];

const byKind = (list: Brief[]): Groups =>
  Object.entries(kinds)
    .map(([kind, title]): [string, Brief[]] => [title, list.filter((k) => k.kind === kind)])
    .filter(([, knots]) => knots.length > 0);

function byFit(list: Brief[], task: string): Groups {
  const suits = (k: Brief) => k.tasks[task] ?? 0;
  const sorted = [...list].sort((a, b) => suits(b) - suits(a));
  return (
    [
      ["Made for it", sorted.filter((k) => suits(k) >= 0.7)],
      ["Will do", sorted.filter((k) => suits(k) >= 0.4 && suits(k) < 0.7)],
      ["At a pinch", sorted.filter((k) => suits(k) < 0.4)],
    ] as Groups
  ).filter(([, knots]) => knots.length > 0);
}

/** What a learner knows, what shares its structure with that, and the rest. */
function byKnown(list: Brief[], learner: Learner): Groups {
  const shared = (k: Brief) => k.grows_from.filter((r) => learner.knows.includes(r.knot)).length;
  const rest = list.filter((k) => !learner.knows.includes(k.id));
  const next = rest.filter((k) => shared(k) > 0);
  next.sort((a, b) => shared(b) - shared(a) || a.difficulty - b.difficulty);
  return (
    [
      [`Next for ${learner.name}: part of it is known already`, next],
      ["A new kind", rest.filter((k) => shared(k) === 0).sort((a, b) => a.difficulty - b.difficulty)],
      ["Known", list.filter((k) => learner.knows.includes(k.id))],
    ] as Groups
  ).filter(([, knots]) => knots.length > 0);
}

function KnotCard({ knot: k, knows }: { knot: Brief; knows?: string[] }) {
  const help = k.grows_from.find((r) => knows?.includes(r.knot));
  return (
    <Card kind="link" asChild display="flex" gap="3">
      <Link to={`/knots/${k.id}`}>
        <Drawing id={k.id} name={k.name} drawn={k.drawn} w="92px" h="92px" flex="none" fontSize="xs" />
        <Box minW="0">
          <Box className="head" fontSize="lg">
            {k.name}
          </Box>
          <Box fontSize="md" lineHeight="1.35" color="quiet">
            {help && !knows?.includes(k.id) ? `${capital(help.name)}: ${help.why}.` : k.summary}
          </Box>
          <Hardness of={k.difficulty} />
        </Box>
      </Link>
    </Card>
  );
}
