import { Box, Flex, Grid } from "@chakra-ui/react";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { useCatalogue, useLearners } from "../api/hooks";
import { useAddress } from "../ui/address";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { capital } from "../ui/format";
import { Hardness } from "../ui/hardness";
import { Trouble } from "../ui/notes";
import { control, Field, Pick } from "../ui/pick";

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
  const learners = useLearners().data ?? [];
  const [params, change] = useAddress();
  const get = (key: string) => params.get(key) ?? "";
  const set = (key: string, value: string) => change({ [key]: value });
  // Kept here and not only in the address, so that no letter typed is lost.
  const [typed, setTyped] = useState(get("q"));
  const word = typed.trim().toLowerCase();
  const [task, material, hard] = [get("for"), get("in"), Number(get("hard") || 5)];
  const learner = learners.find((l) => String(l.id) === get("known"));
  const found = data?.knots.filter(
    (k) =>
      [k.name, ...(k.also ?? []), k.summary].some((t) => t.toLowerCase().includes(word)) &&
      (!task || (k.tasks[task] ?? 0) > 0) &&
      !(material && k.not_in.includes(material)) &&
      k.difficulty <= hard,
  );
  const groups = found && (learner ? byKnown(found, learner) : task ? byFit(found, task) : byKind(found));
  const filtered = word || task || material || hard < 5 || learner;
  return (
    <Box as="main" w="100%" maxW="1240px" mx="auto" px={{ base: 3, md: 6 }} py="5">
      <Flex justify="space-between" align="center" wrap="wrap" gap="3">
        <Box as="h1" fontSize="30px">
          Knots
        </Box>
        <Flex gap="2" wrap="wrap">
          <Link to="/compare">
            <Press as="span">Compare two</Press>
          </Link>
          <Link to="/schools">
            <Press as="span">What you teach</Press>
          </Link>
        </Flex>
      </Flex>
      <Grid templateColumns={{ base: "1fr 1fr", md: "1.5fr 1.5fr 1fr 1fr 1fr" }} gap="3" mt="3">
        <Field label="Find by name or use" wide>
          {(id) => (
            <input
              id={id}
              type="search"
              value={typed}
              onChange={(e) => {
                setTyped(e.target.value);
                set("q", e.target.value);
              }}
              style={control}
            />
          )}
        </Field>
        <Pick
          label="To"
          value={task}
          set={(v) => set("for", v)}
          any="do anything"
          list={data?.tasks.map((t) => ({ id: t.id, name: t.name })) ?? []}
        />
        <Pick
          label="In"
          value={material}
          set={(v) => set("in", v)}
          any="any line"
          list={data?.materials.map((m) => ({ id: m.id, name: m.name })) ?? []}
        />
        <Pick
          label="Hard to learn"
          value={get("hard")}
          set={(v) => set("hard", v)}
          any="any"
          list={[1, 2, 3, 4].map((n) => ({
            id: String(n),
            name: n === 1 ? "easiest only" : `up to ${n} of 5`,
          }))}
        />
        <Pick
          label="Known by"
          value={get("known")}
          set={(v) => set("known", v)}
          any="nobody chosen"
          list={learners.map((l) => ({ id: String(l.id), name: `${l.name} (${l.knows.length})` }))}
        />
      </Grid>
      <Trouble error={error} />
      {found && (
        <Flex mt="3" align="center" gap="2" color="quiet" minH="44px" data-testid="count" aria-live="polite">
          {found.length === 0
            ? word && !task && !material && !learner
              ? `No knot here is called “${typed}”.`
              : "No knot fits all of that."
            : found.length === 1
              ? "One knot."
              : `${found.length} knots.`}
          {filtered && (
            <Press
              look="bare"
              onClick={() => {
                setTyped("");
                change({ q: "", for: "", in: "", hard: "", known: "" });
              }}
            >
              Show all
            </Press>
          )}
        </Flex>
      )}
      {groups?.map(([title, list]) => (
        <Box key={title} mt="4">
          <Box as="h2" fontSize="20px" mb="2">
            {title}
          </Box>
          <Grid templateColumns="repeat(auto-fill, minmax(min(270px, 100%), 1fr))" gap="3">
            {list.map((k) => (
              <Card key={k.id} knot={k} knows={learner?.knows} />
            ))}
          </Grid>
        </Box>
      ))}
    </Box>
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
function byKnown(list: Brief[], learner: Schemas["StoreLearner"]): Groups {
  const shared = (k: Brief) => k.grows_from.filter((r) => learner.knows.includes(r.knot)).length;
  const rest = list.filter((k) => !learner.knows.includes(k.id));
  const next = rest.filter((k) => shared(k) > 0);
  next.sort((a, b) => shared(b) - shared(a) || a.difficulty - b.difficulty);
  return (
    [
      [`Next for ${learner.name}: part of it is known already`, next],
      ["New structure", rest.filter((k) => shared(k) === 0).sort((a, b) => a.difficulty - b.difficulty)],
      ["Known", list.filter((k) => learner.knows.includes(k.id))],
    ] as Groups
  ).filter(([, knots]) => knots.length > 0);
}

function Card({ knot: k, knows }: { knot: Brief; knows?: string[] }) {
  const help = k.grows_from.find((r) => knows?.includes(r.knot));
  return (
    <Link to={`/knots/${k.id}`}>
      <Flex
        gap="3"
        p="3"
        h="100%"
        bg="sheet"
        border="1.5px solid"
        borderColor="rule"
        borderRadius="12px"
        _hover={{ borderColor: "kelp", boxShadow: "var(--shadow)" }}
      >
        <Drawing id={k.id} name={k.name} drawn={k.drawn} w="92px" h="92px" flex="none" fontSize="11px" />
        <Box minW="0">
          <Box className="head" fontSize="18px">
            {k.name}
          </Box>
          <Box fontSize="15px" lineHeight="1.35" color="quiet">
            {help && !knows?.includes(k.id) ? (
              <>
                {capital(help.name)}: {help.why}.
              </>
            ) : (
              k.summary
            )}
          </Box>
          <Hardness of={k.difficulty} />
        </Box>
      </Flex>
    </Link>
  );
}
