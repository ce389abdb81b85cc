import { Box, chakra, Flex, Grid, Input, Textarea } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { api, type Catalogue, conflictOf, type Schemas, unwrap } from "../api/client";
import { useCatalogue, useKept, useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { sound } from "../rig/document";
import { atHand } from "../rig/state";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { Trouble } from "../ui/notes";
import { Card, Page, Part, Title } from "../ui/page";
import { Pick, Select } from "../ui/pick";
import { prefs } from "../ui/prefs";
import { Kit } from "./kit";
import { TeachNav } from "./nav";
import { Timeline } from "./timeline";

type Lesson = Schemas["Lesson"];
type Request = Schemas["LessonRequest"];

const fresh: Lesson = {
  id: 0,
  revision: 0,
  name: "",
  request: { minutes: 90, learners: 6, helpers: 0, place: "quay", knots: [] },
};

/** The lessons, and those to begin with. */
export function LessonsView() {
  const { data, error } = useQuery(q.lessons());
  const catalogue = useCatalogue().data;
  const [params] = useSearchParams();
  const add = params.get("add");
  useEffect(() => {
    document.title = "Lessons · Oarweed";
  }, []);
  const name = (id: string) => catalogue?.knots.find((k) => k.id === id)?.name.toLowerCase() ?? id;
  return (
    <Page maxW="1300px">
      <TeachNav />
      <Flex mt="3" gap="3" align="center" wrap="wrap">
        <Title>Lessons</Title>
        <Box flex="1" />
        <Press look="main" asChild>
          <Link to={`/teach/plan/new${add ? `?add=${add}` : ""}`}>Plan a new one</Link>
        </Press>
      </Flex>
      <Trouble error={error} />
      <Grid templateColumns="repeat(auto-fill, minmax(min(330px, 100%), 1fr))" gap="3" mt="3">
        {data?.map((l) => (
          <Card key={l.id} kind="link" asChild>
            <Link to={`/teach/plan/${l.id}`}>
              <Box className="head" fontSize="lg">
                {l.name}
              </Box>
              <Box color="quiet">
                {[
                  l.at &&
                    new Date(l.at).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" }),
                  `${l.request.minutes} min`,
                  l.group,
                  l.held && "held",
                ]
                  .filter(Boolean)
                  .join(" · ")}
              </Box>
              <Box mt="1">{l.request.knots.map(name).join(", ")}</Box>
            </Link>
          </Card>
        ))}
      </Grid>
      <Part title="Begin with" mt="6">
        <Grid templateColumns="repeat(auto-fill, minmax(min(330px, 100%), 1fr))" gap="3">
          {catalogue?.lessons.map((l) => (
            <Card key={l.id} kind="link" asChild>
              <Link to={`/teach/plan/new?like=${l.id}`}>
                <Box className="head" fontSize="lg">
                  {l.name}
                </Box>
                <Flex gap="1" my="1">
                  {l.knots.slice(0, 6).map((k) => (
                    <Drawing key={k} id={k} name={k} drawn w="46px" h="40px" aria-hidden />
                  ))}
                </Flex>
                <Box color="quiet">{l.knots.map(name).join(", ")}</Box>
              </Link>
            </Card>
          ))}
        </Grid>
      </Part>
    </Page>
  );
}

/** One lesson being planned. */
export function PlanView() {
  const { id = "new" } = useParams();
  const [params] = useSearchParams();
  const catalogue = useCatalogue().data;
  const saved = useQuery(q.lesson(Number(id) || 0));
  if (saved.error) return <Trouble error={saved.error} />;
  if (!catalogue || (id !== "new" && !saved.data)) return <Box p="6">Loading…</Box>;
  const like = catalogue.lessons.find((l) => l.id === params.get("like"));
  const added = params.get("add");
  const first: Lesson = saved.data ?? {
    ...fresh,
    name: like?.name ?? "",
    request: like
      ? {
          minutes: like.minutes,
          learners: like.learners,
          helpers: like.helpers,
          place: like.place,
          knots: like.knots,
        }
      : { ...fresh.request, knots: added ? [added] : [] },
  };
  return <Plan key={`${id} ${saved.data?.revision ?? 0}`} first={first} catalogue={catalogue} />;
}

const local = (at: string | undefined) => {
  if (!at) return "";
  const d = new Date(at);
  return new Date(d.getTime() - d.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
};

function Plan({ first, catalogue }: { first: Lesson; catalogue: Catalogue }) {
  const go = useNavigate();
  const [lesson, setLesson] = useState(first);
  const { request } = lesson;
  const set = (part: Partial<Lesson>) => setLesson({ ...lesson, ...part });
  const ask = (part: Partial<Request>) => set({ request: { ...request, ...part } });
  const planned = useLasting(q.plan(request));
  const groups = useQuery(q.board("")).data?.groups ?? [];
  const save = useKept((l: Lesson) =>
    l.id
      ? unwrap(
          api.PUT("/api/v1/lessons/{id}", {
            params: { path: { id: l.id }, header: { "If-Match": `"${l.revision}"` } },
            body: l,
          }),
        )
      : unwrap(api.POST("/api/v1/lessons", { body: l })),
  );
  const remove = useKept((id: number) =>
    unwrap(api.DELETE("/api/v1/lessons/{id}", { params: { path: { id } } })),
  );
  const kept = conflictOf<Lesson>(save.error)?.kept;
  const keep = async (then?: string) => {
    const l = await save.mutateAsync({ ...lesson, name: lesson.name || "Lesson" });
    go(then ? `/teach/plan/${l.id}/${then}` : `/teach/plan/${l.id}`, { replace: true });
  };
  const p = planned.data;
  const number = (label: string, value: number, put: (n: number) => void) => (
    <Small>
      {label}
      <Input type="number" min={0} value={value} onChange={(e) => put(Number(e.target.value))} w="92px" />
    </Small>
  );
  const order =
    p?.plan.blocks
      .filter((b) => b.kind === "demonstrate" || (b.kind === "repeat" && b.knot))
      .map((b) => b.knot ?? "") ?? [];
  const inOrder = [...new Set(order), ...(p?.plan.left_out ?? [])];
  return (
    <Page maxW="1400px">
      <TeachNav />
      <Flex mt="3" gap="3" align="center" wrap="wrap">
        <Input
          aria-label="Name of the lesson"
          placeholder="Name of the lesson"
          value={lesson.name}
          onChange={(e) => set({ name: e.target.value })}
          maxW="420px"
          fontSize="22px"
          className="head"
        />
        <Box flex="1" />
        <Flex gap="2" className="no-print" wrap="wrap">
          <Press
            look="main"
            disabled={request.knots.length === 0}
            onClick={() => void keep("run").catch(() => undefined)}
          >
            ▶ Run it
          </Press>
          <Press disabled={request.knots.length === 0} onClick={() => void keep().catch(() => undefined)}>
            Save
          </Press>
          <Press onClick={() => print()}>Print</Press>
          {request.knots.length > 0 && (
            <Press asChild>
              <a
                href={`/api/v1/knots/class-set.pdf?knots=${inOrder.join(",")}&left=${prefs().hand === "left"}&title=${encodeURIComponent((lesson.name || "Lesson").slice(0, 80))}`}
                target="_blank"
                rel="noreferrer"
              >
                Class set
              </a>
            </Press>
          )}
          {lesson.id > 0 && (
            <Press onClick={() => remove.mutate(lesson.id, { onSuccess: () => go("/teach/plan") })}>
              Remove
            </Press>
          )}
        </Flex>
      </Flex>
      {kept && (
        <Card kind="warn" mt="2">
          Somebody changed this lesson meanwhile.{" "}
          <Press
            small
            onClick={() => {
              setLesson({ ...lesson, revision: kept.revision });
              save.reset();
            }}
          >
            Keep mine
          </Press>{" "}
          <Press
            small
            onClick={() => {
              setLesson(kept);
              save.reset();
            }}
          >
            Take theirs
          </Press>
        </Card>
      )}
      {!kept && <Trouble error={planned.error ?? save.error ?? remove.error} />}
      <Flex gap="4" wrap="wrap" mt="3" align="end">
        {number("Minutes", request.minutes, (minutes) => ask({ minutes }))}
        {number("Learners", request.learners, (learners) => ask({ learners }))}
        {number("Helpers", request.helpers ?? 0, (helpers) => ask({ helpers }))}
        <Box w="130px">
          <Pick
            label="Where"
            value={request.place ?? "quay"}
            set={(place) => ask({ place: place as Request["place"] })}
            list={[
              { id: "indoors", name: "indoors" },
              { id: "quay", name: "on the quay" },
              { id: "afloat", name: "afloat" },
            ]}
          />
        </Box>
        <Small>
          When
          <Input
            type="datetime-local"
            value={local(lesson.at)}
            onChange={(e) => set({ at: e.target.value ? new Date(e.target.value).toISOString() : undefined })}
          />
        </Small>
        <Box w="180px">
          <Pick
            label="Class"
            any="nobody named"
            value={lesson.group ?? ""}
            set={(group) => set({ group })}
            list={groups.map((g) => ({ id: g, name: g }))}
          />
        </Box>
      </Flex>
      {p && request.knots.length > 0 && (
        <Box mt="4">
          <Flex align="baseline" gap="3" wrap="wrap">
            <Box className="head" fontSize="24px" data-testid="sum">
              {p.plan.minutes} of {request.minutes} minutes
            </Box>
            <Box>
              {p.plan.saved_minutes > 0 && `${p.plan.saved_minutes} saved, since they share structure. `}
              {p.plan.left_out.length > 0 && (
                <Box as="span" color="flare" fontWeight="700">
                  Does not fit:{" "}
                  {p.plan.left_out
                    .map((k) => catalogue.knots.find((x) => x.id === k)?.name.toLowerCase())
                    .join(", ")}
                  .
                </Box>
              )}
              <Evidence
                tag="computed"
                source="steps, difficulty and tying time of each knot (our own estimates), corrected by what earlier lessons took; the shortest order under what must come first"
              />
            </Box>
          </Flex>
          <Timeline blocks={p.plan.blocks} total={request.minutes} catalogue={catalogue} />
        </Box>
      )}
      <Grid
        templateColumns={{ base: "minmax(0, 1fr)", lg: "minmax(0, 1.4fr) minmax(0, 1fr)" }}
        gap="6"
        mt="4"
      >
        <Part title="Knots">
          {request.knots.length === 0 && (
            <Box mb="2">Choose knots, or a set: the order that takes the fewest minutes follows.</Box>
          )}
          <Flex gap="2" wrap="wrap" className="no-print" mb="2">
            <Select
              label="Add a knot"
              first="Add a knot…"
              value=""
              set={(k) =>
                k &&
                !request.knots.includes(k) &&
                ask({ knots: [...inOrder, k].filter((x, i, all) => all.indexOf(x) === i) })
              }
              list={catalogue.knots}
            />
            <Select
              label="Add a set"
              first="Add a set…"
              value=""
              set={(s) =>
                ask({
                  knots: [
                    ...new Set([...request.knots, ...(catalogue.sets.find((x) => x.id === s)?.knots ?? [])]),
                  ],
                })
              }
              list={catalogue.sets}
            />
            <FromRig add={(ids) => ask({ knots: [...new Set([...inOrder, ...ids])] })} />
            <Press
              small
              onClick={() =>
                void knownBy(lesson.group ?? "").then(
                  (known) => ask({ known }),
                  () => undefined,
                )
              }
              title="Knots that everybody of the class ties alone are repeated, not taught"
            >
              What they know
            </Press>
            <Press
              small
              aria-pressed={Boolean(request.keep_order)}
              onClick={() => ask({ keep_order: !request.keep_order, knots: inOrder })}
            >
              {request.keep_order ? "My order" : "Shortest order"}
            </Press>
          </Flex>
          {p && Object.keys(p.learned).length > 0 && <Forget />}
          <Knots
            catalogue={catalogue}
            lesson={lesson}
            order={inOrder}
            blocks={p?.plan.blocks ?? []}
            learned={p?.learned ?? {}}
            ask={ask}
            set={set}
          />
        </Part>
        <Box>{p && request.knots.length > 0 && <Kit planned={p} />}</Box>
      </Grid>
    </Page>
  );
}

/** Knots that everybody of a class ties alone. */
async function knownBy(group: string): Promise<string[]> {
  const board = await unwrap(api.GET("/api/v1/board", { params: { query: { group } } }));
  const [first, ...rest] = board.rows;
  const alone = Object.entries(first?.cells ?? {}).flatMap(([k, c]) => (c.level >= 2 ? [k] : []));
  return alone.filter((k) => rest.every((r) => (r.cells[k]?.level ?? 0) >= 2));
}

/** The knots of the rig in hand. */
function FromRig({ add }: { add: (ids: string[]) => void }) {
  const [error, setError] = useState<Error>();
  return (
    <>
      <Press
        small
        onClick={() =>
          void unwrap(api.POST("/api/v1/rig-checks", { body: atHand(sound) })).then(
            (a) => add(a.joints.flatMap((j) => (j.chosen ? [j.chosen.knot] : []))),
            setError,
          )
        }
      >
        Those of your rig
      </Press>
      <Trouble error={error ?? null} />
    </>
  );
}

/** Earlier lessons no longer teach the minutes. */
function Forget() {
  const lessons = useQuery(q.lessons()).data ?? [];
  const forget = useKept(async () => {
    for (const l of lessons.filter((x) => Object.keys(x.took ?? {}).length > 0 && !x.unlearned))
      await unwrap(
        api.PUT("/api/v1/lessons/{id}", {
          params: { path: { id: l.id }, header: { "If-Match": `"${l.revision}"` } },
          body: { ...l, unlearned: true },
        }),
      );
  });
  return (
    <Box color="quiet" className="no-print">
      Minutes follow what earlier lessons took.{" "}
      <Press look="bare" small onClick={() => forget.mutate(undefined)}>
        Forget that
      </Press>
      <Trouble error={forget.error} />
    </Box>
  );
}

const Small = chakra("label", { base: { display: "flex", flexDirection: "column", gap: "1" } });

/** The knots in their order: dragged or moved by arrows, minutes locked, notes of one's own. */
function Knots(p: {
  catalogue: Catalogue;
  lesson: Lesson;
  order: string[];
  blocks: Schemas["LessonBlock"][];
  learned: Record<string, number>;
  ask: (part: Partial<Request>) => void;
  set: (part: Partial<Lesson>) => void;
}) {
  const { catalogue, lesson, order, blocks, learned, ask, set } = p;
  const { request } = lesson;
  const [held, hold] = useState("");
  const move = (id: string, to: number) => {
    const rest = order.filter((x) => x !== id);
    rest.splice(Math.max(0, to), 0, id);
    ask({ knots: rest, keep_order: true });
  };
  return (
    <Box as="ol" listStyleType="none" data-testid="knots">
      {order.map((id, i) => {
        const k = catalogue.knots.find((x) => x.id === id);
        const minutes = blocks.filter((b) => b.knot === id).reduce((a, b) => a + b.minutes, 0);
        const locked = request.locked?.[id];
        const known = request.known?.includes(id) ?? false;
        return (
          <Box
            as="li"
            key={id}
            data-knot={id}
            draggable
            onDragStart={() => hold(id)}
            onDragEnd={() => hold("")}
            onDragOver={(e) => held && e.preventDefault()}
            onDrop={() => held && held !== id && move(held, i)}
            borderTop="1px solid"
            borderColor="rule"
            py="2"
            opacity={held === id ? 0.5 : 1}
          >
            <Flex gap="3" align="center" wrap="wrap">
              <Box color="quiet" cursor="grab" aria-hidden>
                ⠿
              </Box>
              <Drawing id={id} name={k?.name ?? id} drawn w="56px" h="48px" flex="none" aria-hidden />
              <Box flex="1" minW="140px">
                <strong>{k?.name ?? id}</strong>
                <Box fontSize="15px" color={minutes ? "quiet" : "flare"}>
                  {minutes ? `${minutes} min` : "does not fit"}
                  {locked ? ", locked" : ""}
                  {known ? ", known: repeated only" : ""}
                  {learned[id] && Math.abs(learned[id] - 1) > 0.04
                    ? `, takes ${learned[id] > 1 ? "longer" : "less"} here than usual (${learned[id]} ×)`
                    : ""}
                </Box>
              </Box>
              <Flex gap="1" className="no-print">
                <Press
                  small
                  aria-label={`${k?.name} earlier`}
                  disabled={i === 0}
                  onClick={() => move(id, i - 1)}
                >
                  ↑
                </Press>
                <Press
                  small
                  aria-label={`${k?.name} later`}
                  disabled={i === order.length - 1}
                  onClick={() => move(id, i + 1)}
                >
                  ↓
                </Press>
                <Input
                  type="number"
                  aria-label={`Minutes for the ${k?.name}, locked`}
                  placeholder="min"
                  w="74px"
                  value={locked ?? ""}
                  onChange={(e) => ask({ locked: { ...request.locked, [id]: Number(e.target.value) } })}
                />
                <Press
                  small
                  aria-pressed={known}
                  onClick={() =>
                    ask({
                      known: known ? request.known?.filter((x) => x !== id) : [...(request.known ?? []), id],
                    })
                  }
                >
                  known
                </Press>
                <Press
                  small
                  aria-label={`Take the ${k?.name} out`}
                  onClick={() => ask({ knots: order.filter((x) => x !== id) })}
                >
                  ✕
                </Press>
              </Flex>
            </Flex>
            <Textarea
              aria-label={`Notes for the ${k?.name}`}
              placeholder="Your notes: a story, why it matters, what they get wrong"
              value={lesson.notes?.[id] ?? ""}
              onChange={(e) => set({ notes: { ...lesson.notes, [id]: e.target.value } })}
              rows={1}
              w="100%"
              mt="1"
              border="1px solid"
              borderColor="rule"
              borderRadius="sm"
              px="2"
              fontSize="15px"
              className={lesson.notes?.[id] ? undefined : "no-print"}
            />
          </Box>
        );
      })}
    </Box>
  );
}
