import { Box, Flex } from "@chakra-ui/react";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { api, type Schemas, unwrap } from "../api/client";
import { useAddAttempt, useLearners } from "../api/hooks";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";

type Set = Record<string, boolean | undefined>;

/** The bare drawing: set over and under at every crossing, and be told which knot that is. */
export function DrillView() {
  const { id = "" } = useParams();
  const page = useQuery({
    queryKey: ["drill", id],
    queryFn: () => unwrap(api.GET("/api/knots/{id}/drill", { params: { path: { id } } })),
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
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

function Drill({ page }: { page: Schemas["DrillPage"] }) {
  const [set, setSet] = useState<Set>({});
  const [started] = useState(() => performance.now());
  const [at, setAt] = useState(0);
  const text = page.crossings
    .filter((c) => set[c.name] !== undefined)
    .map((c) => `${c.name}${set[c.name] ? "o" : "u"}`)
    .join(",");
  const left = page.crossings.filter((c) => set[c.name] === undefined).length;
  const drawing = useQuery({
    queryKey: ["drill-drawing", page.id, text],
    queryFn: () =>
      unwrap(
        api.GET("/api/knots/{id}/drill.svg", {
          params: { path: { id: page.id }, query: { set: text } },
          parseAs: "text",
        }) as Promise<{ data?: string; error?: Schemas["Problem"] }>,
      ),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const verdict = useQuery({
    queryKey: ["drill-verdict", page.id, text],
    queryFn: () =>
      unwrap(
        api.GET("/api/knots/{id}/drill/verdict", { params: { path: { id: page.id }, query: { set: text } } }),
      ),
    enabled: left === 0,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const turn = (name: string) =>
    setSet((now) => ({ ...now, [name]: now[name] === undefined ? true : !now[name] }));
  const [x, y, w, h] = page.frame as [number, number, number, number];
  const told = left === 0 ? verdict.data : undefined;
  const keys = (e: React.KeyboardEvent) => {
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[e.key];
    if (!step) return;
    e.preventDefault();
    const next = (at + step + page.crossings.length) % page.crossings.length;
    setAt(next);
    document.querySelector<HTMLElement>(`[data-crossing="${page.crossings[next]?.name}"]`)?.focus();
  };
  return (
    <Box as="main" w="100%" maxW="1100px" mx="auto" px={{ base: 3, md: 6 }} py="4">
      <Box as="h1" fontSize={{ base: "24px", md: "30px" }}>
        Crossing drill: {page.name.toLowerCase()}
      </Box>
      <Box color="quiet">
        Tap each crossing to lay one strand over the other; tap again to turn it. {page.choices} ways,{" "}
        {page.tangles} different tangles.
      </Box>
      <Flex gap="6" mt="3" direction={{ base: "column", lg: "row" }} align="flex-start">
        <Flex
          flex="1.6"
          w="100%"
          justify="center"
          bg="sheet"
          border="2px solid"
          borderColor="rule"
          borderRadius="14px"
          p="3"
        >
          <Box
            position="relative"
            w="100%"
            maxW={`calc(min(62vh, 520px) * ${w / h})`}
            style={{ aspectRatio: `${w} / ${h}` }}
            role="group"
            aria-label="Crossings"
            onKeyDown={keys}
          >
            <Box
              className="knot-drawing"
              w="100%"
              h="100%"
              // Our own server's SVG, without anything a user typed.
              dangerouslySetInnerHTML={{ __html: drawing.data ?? "" }}
            />
            {page.crossings.map((c, i) => {
              const state = set[c.name];
              return (
                <button
                  key={c.name}
                  type="button"
                  data-crossing={c.name}
                  aria-label={`Crossing ${i + 1}: ${state === undefined ? "not set" : state ? "first strand over" : "second strand over"}`}
                  tabIndex={i === at ? 0 : -1}
                  onFocus={() => setAt(i)}
                  onClick={() => turn(c.name)}
                  style={{
                    position: "absolute",
                    left: `${((c.x - x) / w) * 100}%`,
                    top: `${((c.y - y) / h) * 100}%`,
                    width: 48,
                    height: 48,
                    margin: "-24px 0 0 -24px",
                    borderRadius: 24,
                    cursor: "pointer",
                    border: state === undefined ? "3px dashed var(--flare)" : "2px solid transparent",
                    background: state === undefined ? "rgb(255 253 246 / 55%)" : "transparent",
                    color: "var(--flare)",
                    fontWeight: 700,
                  }}
                >
                  {state === undefined ? "?" : ""}
                </button>
              );
            })}
          </Box>
        </Flex>
        <Box flex="1" w="100%" aria-live="polite" data-testid="verdict">
          {told ? (
            <Box
              bg={told.right ? "glassWash" : "flareWash"}
              border="2px solid"
              borderColor={told.right ? "glass" : "flare"}
              borderRadius="12px"
              p="4"
            >
              <Box className="head" fontSize="26px" color={told.right ? "glass" : "flare"}>
                {told.right ? "✓" : "✕"} {told.name}
              </Box>
              <Box mt="1">{told.says}</Box>
              {!told.right && (
                <Box mt="1" color="quiet">
                  {told.differs === 1 ? "One crossing is" : `${told.differs} crossings are`} not as drawn.
                </Box>
              )}
            </Box>
          ) : (
            <Box fontSize="18px">
              {left} of {page.crossings.length} crossings to set.
            </Box>
          )}
          <Trouble error={drawing.error ?? verdict.error} />
          <Flex gap="2" mt="4" wrap="wrap">
            <Press onClick={() => setSet({})} disabled={text === ""}>
              Start again
            </Press>
            <Link to={`/knots/${page.id}`}>
              <Press as="span">See it tied</Press>
            </Link>
          </Flex>
          {told && (
            <Keep
              knot={page.id}
              right={told.right}
              name={told.name}
              seconds={(performance.now() - started) / 1000}
            />
          )}
        </Box>
      </Flex>
    </Box>
  );
}

/** Saves the result as an attempt of kind drill. */
function Keep({
  knot,
  right,
  name,
  seconds,
}: {
  knot: string;
  right: boolean;
  name: string;
  seconds: number;
}) {
  const learners = useLearners();
  const add = useAddAttempt();
  const [time] = useState(seconds);
  const [kept, setKept] = useState("");
  if (kept)
    return (
      <Box mt="4" color="glass" fontWeight="700" role="status">
        {kept}
      </Box>
    );
  return (
    <Box mt="5">
      <Box color="quiet" mb="1">
        Keep this result for
      </Box>
      <Flex gap="2" wrap="wrap">
        {learners.data?.map((l) => (
          <Press
            key={l.id}
            px="3"
            disabled={add.isPending}
            onClick={() =>
              void add
                .mutateAsync({
                  learner_id: l.id,
                  knot,
                  kind: "drill",
                  outcome: right ? "right" : "fault",
                  fault: right ? "" : name,
                  seconds: Math.min(time, 7200),
                })
                .then(() => setKept(`Kept for ${l.name}.`))
                .catch(() => undefined)
            }
          >
            {l.name}
          </Press>
        ))}
      </Flex>
      <Trouble error={add.error} />
    </Box>
  );
}
