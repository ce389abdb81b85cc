import { Box, Flex } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { api, type Catalogue, type Schemas, unwrap } from "../api/client";
import { useCatalogue, useKept } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { useKey } from "../ui/keys";
import { Cautions, Trouble } from "../ui/notes";
import { prefs } from "../ui/prefs";
import { clock } from "./round";
import { kinds, Timeline } from "./timeline";

type Lesson = Schemas["Lesson"];
type Block = Schemas["LessonBlock"];
type Progress = { block: number; step: number; begun: number; since: number; took: Record<string, number> };

const place = (id: number) => `oarweed-run-${id}`;

function restored(id: number): Progress {
  const fresh = { block: 0, step: 1, begun: Date.now(), since: Date.now(), took: {} };
  try {
    const p = JSON.parse(localStorage.getItem(place(id)) ?? "null") as Progress | null;
    // A lesson of another day begins anew.
    return p && Date.now() - p.begun < 12 * 3_600_000 ? p : fresh;
  } catch {
    return fresh;
  }
}

/** A lesson being held: one block over the whole screen, its clock and that of the end, by keys. */
export function RunView() {
  const id = Number(useParams().id);
  const lesson = useQuery(q.lesson(id));
  const planned = useQuery({
    ...q.plan(lesson.data?.request ?? { minutes: 5, learners: 1, knots: [] }),
    enabled: Boolean(lesson.data),
  });
  const catalogue = useCatalogue().data;
  if (lesson.error ?? planned.error) return <Trouble error={lesson.error ?? planned.error} />;
  if (!lesson.data || !planned.data || !catalogue) return <Box p="6">Loading…</Box>;
  return <Run lesson={lesson.data} blocks={planned.data.plan.blocks} catalogue={catalogue} />;
}

function Run({ lesson, blocks, catalogue }: { lesson: Lesson; blocks: Block[]; catalogue: Catalogue }) {
  const go = useNavigate();
  const [p, setP] = useState(() => {
    const before = restored(lesson.id);
    return before.block < blocks.length ? before : { ...before, block: 0 };
  });
  useEffect(() => {
    try {
      localStorage.setItem(place(lesson.id), JSON.stringify(p));
    } catch {
      // It goes on as long as the page is open.
    }
  }, [lesson.id, p]);
  usePrepared(lesson.request.knots);
  const now = useNow();
  const block = blocks[p.block] as Block;
  const asked = useQuery({ ...q.knot(block.knot ?? ""), enabled: Boolean(block.knot) });
  const knot = asked.data;
  const steps = block.knot && block.kind === "follow" ? (knot?.steps.length ?? 1) : 1;
  // Until its steps are known nobody can say whether this was the last.
  const coming = steps === 1 && block.kind === "follow" && asked.isLoading;
  const save = useKept((l: Lesson) =>
    unwrap(
      api.PUT("/api/v1/lessons/{id}", {
        params: { path: { id: l.id }, header: { "If-Match": `"${l.revision}"` } },
        body: l,
      }),
    ),
  );
  /** What this block took counts for its knot. */
  const timed = (): Record<string, number> => {
    if (!block.knot) return p.took;
    const minutes = Math.round((Date.now() - p.since) / 6000) / 10;
    return { ...p.took, [block.knot]: Math.round(10 * ((p.took[block.knot] ?? 0) + minutes)) / 10 };
  };
  const toBlock = (n: number) => {
    if (n < 0 || n >= blocks.length) return;
    setP({ ...p, block: n, step: 1, since: Date.now(), took: n > p.block ? timed() : p.took });
  };
  const on = () =>
    coming ? undefined : p.step < steps ? setP({ ...p, step: p.step + 1 }) : toBlock(p.block + 1);
  const back = () => (p.step > 1 ? setP({ ...p, step: p.step - 1 }) : toBlock(p.block - 1));
  const finish = () => {
    const took = timed();
    save.mutate(
      { ...lesson, took, held: true, block: 0 },
      {
        onSuccess: () => {
          localStorage.removeItem(place(lesson.id));
          go(`/teach/plan/${lesson.id}`);
        },
      },
    );
  };
  useKey("on", on);
  useKey("back", back);
  useKey("presenter", (e) => (e.key === "PageUp" ? back() : on()));
  useKey("leave", () => go(`/teach/plan/${lesson.id}`));
  const left = block.minutes * 60 - (now - p.since) / 1000;
  const rest = blocks.slice(p.block + 1).reduce((a, b) => a + b.minutes, 0);
  const end = new Date(now + Math.max(0, left) * 1000 + rest * 60_000);
  const last = p.block === blocks.length - 1;
  return (
    <Flex
      as="main"
      position="fixed"
      inset="0"
      zIndex="20"
      bg="sheet"
      direction="column"
      data-testid="run"
      data-block={p.block}
      data-kind={block.kind}
    >
      <Flex bg="kelp" color="kelpInk" px="4" py="2" align="center" gap="4" wrap="wrap">
        <Box asChild className="head" fontSize="22px" flex="1">
          <h1>
            {knot ? knot.name : lesson.name}: {kinds[block.kind]}
          </h1>
        </Box>
        <Box
          className="head"
          fontSize="40px"
          lineHeight="1"
          role="timer"
          aria-label="Left of this block"
          color={left < 0 ? "#ffb9a6" : undefined}
          css={{ fontVariantNumeric: "tabular-nums" }}
        >
          {left < 0 ? `+${clock(-left)}` : clock(left)}
        </Box>
        <Box textAlign="right" lineHeight="1.2">
          ends {end.toLocaleTimeString(undefined, { hour: "2-digit", minute: "2-digit", hour12: false })}
          <br />
          block {p.block + 1} of {blocks.length}
        </Box>
      </Flex>
      <Box flex="1" minH="0" overflowY="auto" p={{ base: "3", md: "6" }}>
        <Slide block={block} step={p.step} lesson={lesson} knot={knot} catalogue={catalogue} />
      </Box>
      <Box px="4" className="no-print">
        <Timeline blocks={blocks} total={lesson.request.minutes} catalogue={catalogue} at={p.block} />
      </Box>
      <Flex px="4" py="2" gap="2" align="center" wrap="wrap">
        <Press onClick={back} disabled={p.block === 0 && p.step === 1}>
          ‹ Back
        </Press>
        {!last && (
          <Press look="main" onClick={on}>
            {p.step < steps ? `Step ${p.step + 1} ›` : "Next ›"}
          </Press>
        )}
        {last && (
          <Press look="main" onClick={finish}>
            Finish, and learn the minutes
          </Press>
        )}
        {block.knot && (block.kind === "check" || block.kind === "repeat") && (
          <Press
            onClick={() =>
              go(
                `/teach/class?knot=${block.knot}${lesson.group ? `&group=${encodeURIComponent(lesson.group)}` : ""}`,
              )
            }
          >
            Round on the board
          </Press>
        )}
        <Box flex="1" />
        <Trouble error={save.error} />
        <Press look="bare" onClick={() => go(`/teach/plan/${lesson.id}`)}>
          Leave
        </Press>
      </Flex>
    </Flex>
  );
}

/** Everything of the lesson is fetched at the start: it goes on when the net is gone. */
function usePrepared(knots: string[]) {
  const client = useQueryClient();
  const list = useMemo(() => knots.join(" "), [knots]);
  useEffect(() => {
    for (const id of list.split(" ")) {
      void client.prefetchQuery(q.knot(id)).then(() => {
        const n = client.getQueryData<Schemas["KnotPage"]>(q.knot(id).queryKey)?.steps.length ?? 0;
        for (let step = 0; step <= n; step++) {
          const options = { left: prefs().hand === "left", step: step || undefined };
          void client.prefetchQuery(q.drawing(id, options));
        }
      });
    }
  }, [client, list]);
}

function useNow(): number {
  const [now, setNow] = useState(Date.now());
  useEffect(() => {
    const tick = setInterval(() => setNow(Date.now()), 500);
    return () => clearInterval(tick);
  }, []);
  return now;
}

const tasks: Partial<Record<Block["kind"], string>> = {
  demonstrate: "Watch. It is shown whole, twice.",
  repeat: "Each by himself: five times, sitting.",
  check: "Show it. Look at your neighbour's first.",
  break: "Break.",
  wet: "All of them again: wet line, or gloves on.",
  test: "Without help, and by the clock.",
  end: "What went well? What is practised at home?",
};

function Slide(p: {
  block: Block;
  step: number;
  lesson: Lesson;
  knot: Schemas["KnotPage"] | undefined;
  catalogue: Catalogue;
}) {
  const { block, step, lesson, knot, catalogue } = p;
  const large = "clamp(26px, 4vw, 56px)";
  const notes = block.knot ? lesson.notes?.[block.knot] : "";
  if (block.kind === "begin") {
    const ids = new Set(
      lesson.request.knots.flatMap((k) => catalogue.knots.find((x) => x.id === k)?.id ?? []),
    );
    const told = catalogue.cautions.filter((c) => ["stored-energy", "by-hand", "eyes"].includes(c.id));
    return (
      <Box>
        <Box className="head" fontSize={large}>
          {lesson.name}
        </Box>
        <Box fontSize="clamp(20px, 2.4vw, 32px)" mt="2">
          {[...ids].map((k) => catalogue.knots.find((x) => x.id === k)?.name).join(" · ")}
        </Box>
        <Box mt="6" fontSize="22px">
          <Cautions list={told} />
        </Box>
      </Box>
    );
  }
  if (!block.knot) {
    return (
      <Box className="head" fontSize={large} textAlign="center" mt="12vh">
        {tasks[block.kind]}
      </Box>
    );
  }
  const follow = block.kind === "follow";
  return (
    <Flex gap="6" h="100%" direction={{ base: "column", md: "row" }} align="center">
      <Drawing
        id={block.knot}
        name={knot?.name ?? ""}
        drawn
        options={{ left: prefs().hand === "left", step: follow ? step : undefined }}
        flex="1.2"
        w="100%"
        h={{ base: "40vh", md: "56vh" }}
      />
      <Box flex="1" aria-live="polite">
        <Box className="head" fontSize={large} lineHeight="1.15">
          {follow ? `${step}. ${knot?.steps[step - 1] ?? ""}` : tasks[block.kind]}
        </Box>
        {block.kind === "demonstrate" && knot && (
          <Box fontSize="clamp(18px, 2vw, 28px)" mt="4">
            {knot.told.aid}
          </Box>
        )}
        {block.kind === "check" && knot && (
          <Box as="ul" fontSize="clamp(18px, 2vw, 28px)" mt="4" pl="5">
            {knot.checks.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </Box>
        )}
        {notes && (
          <Box
            mt="4"
            fontSize="clamp(18px, 1.8vw, 26px)"
            borderLeft="4px solid"
            borderColor="amber"
            pl="3"
            whiteSpace="pre-wrap"
          >
            {notes}
          </Box>
        )}
        {knot && block.kind === "demonstrate" && knot.caution_texts.length > 0 && (
          <Box mt="5">
            <Cautions list={knot.caution_texts} />
          </Box>
        )}
      </Box>
    </Flex>
  );
}
