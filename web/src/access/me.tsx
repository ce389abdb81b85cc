import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useRef, useState } from "react";
import { Link, Navigate, Route, Routes, useParams } from "react-router";
import { api, type Schemas, unwrap } from "../api/client";
import { useCatalogue, useKept } from "../api/hooks";
import { q } from "../api/queries";
import { DueRows } from "../teach/due";
import { LevelSign, levels } from "../teach/level";
import { clock } from "../teach/round";
import { Boundary } from "../ui/boundary";
import { Press } from "../ui/button";
import { Drawing, FaultDrawing } from "../ui/drawing";
import { newKey } from "../ui/key";
import { Trouble } from "../ui/notes";
import { Card, Page, Part, Title } from "../ui/page";
import { Select } from "../ui/pick";
import { useEntered } from "./entered";

const KnotView = lazy(() => import("../knot/view").then((m) => ({ default: m.KnotView })));
const ShowView = lazy(() => import("../knot/show").then((m) => ({ default: m.ShowView })));
const DrillView = lazy(() => import("../knot/drill").then((m) => ({ default: m.DrillView })));

/** What a joined phone shows: one's own list, showing, drills, finding the fault. */
export function LearnerApp({ session }: { session: Schemas["Session"] }) {
  const entered = useEntered();
  return (
    <Flex direction="column" minH="100vh">
      <Flex
        as="header"
        bg="kelp"
        color="kelpInk"
        align="center"
        px="3"
        minH="52px"
        gap="3"
        className="no-print"
      >
        <Box className="head" fontSize="20px" flex="1">
          <Link to="/">{session.learner?.name}</Link>
        </Box>
        <Press
          look="head"
          onClick={() =>
            void unwrap(api.DELETE("/api/v1/session")).then(
              () => entered(undefined),
              () => undefined,
            )
          }
        >
          Leave
        </Press>
      </Flex>
      <Boundary where="me">
        <Suspense fallback={<Box p="6">Loading…</Box>}>
          <Routes>
            <Route path="/" element={<Me />} />
            <Route path="/try/:id" element={<Try />} />
            <Route path="/fault/:id" element={<FindTheFault />} />
            <Route path="/knots/:id" element={<KnotView />} />
            <Route path="/knots/:id/show" element={<ShowView />} />
            <Route path="/knots/:id/drill" element={<DrillView />} />
            <Route path="*" element={<Navigate to="/" replace />} />
          </Routes>
        </Suspense>
      </Boundary>
    </Flex>
  );
}

function Me() {
  const { data, error } = useQuery(q.me());
  const knots = useCatalogue().data?.knots ?? [];
  const [knot, setKnot] = useState("");
  const at = knot || data?.due[0]?.knot || data?.standings[0]?.knot || "bowline";
  const name = knots.find((k) => k.id === at)?.name ?? at;
  return (
    <Page maxW="760px">
      <Trouble error={error} />
      <Title>{data?.due.length ? `${data.due.length} to tie again` : "Nothing is due"}</Title>
      {data && <DueRows list={data.due} />}
      <Part title="Tie, show, find the fault" mt="5">
        <Select label="Knot" value={at} set={setKnot} list={knots} />
        <Flex gap="3" mt="2" align="center">
          <Drawing id={at} name={name} drawn w="120px" h="100px" aria-hidden />
          <Flex gap="2" wrap="wrap">
            <Press asChild look="main">
              <Link to={`/try/${at}`}>Tie it by the clock</Link>
            </Press>
            <Press asChild>
              <Link to={`/knots/${at}/show`}>▶ Show me</Link>
            </Press>
            <Press asChild>
              <Link to={`/fault/${at}`}>Find the fault</Link>
            </Press>
            <Press asChild>
              <Link to={`/knots/${at}/drill`}>Crossings</Link>
            </Press>
          </Flex>
        </Flex>
      </Part>
      <Part title="What you can" mt="5">
        <Grid templateColumns="repeat(auto-fill, minmax(150px, 1fr))" gap="2">
          {data?.standings.map((s) => (
            <Card key={s.knot} p="2" textAlign="center">
              <strong>{s.name}</strong>
              <Flex direction="column" align="center">
                <LevelSign level={s.level} fault={s.fault ? 1 : 0} />
                {levels[s.level]}
              </Flex>
            </Card>
          ))}
        </Grid>
      </Part>
    </Page>
  );
}

/** One's own try, by the clock; marked as judged by oneself. */
function Try() {
  const { id = "" } = useParams();
  const page = useQuery(q.knot(id)).data;
  const [started, setStarted] = useState(0);
  const [took, setTook] = useState(0);
  const [now, setNow] = useState(0);
  const [done, setDone] = useState("");
  const key = useRef(newKey());
  useEffect(() => {
    if (!started) return;
    const tick = setInterval(() => setNow(Date.now()), 100);
    return () => clearInterval(tick);
  }, [started]);
  const add = useKept((outcome: { outcome: "right" | "fault"; fault?: string }) =>
    unwrap(
      api.POST("/api/v1/me/attempts", {
        body: {
          key: key.current,
          learner_id: 0,
          knot: id,
          seconds: took,
          ...outcome,
        } as Schemas["PracticeAttempt"],
      }),
    ),
  );
  const keep = (outcome: "right" | "fault", fault = "") =>
    add.mutate(
      { outcome, fault },
      {
        onSuccess: () => {
          key.current = newKey();
          setDone(outcome === "right" ? `Kept: right, in ${clock(took)}.` : "Kept, with its fault.");
          setTook(0);
        },
      },
    );
  return (
    <Page maxW="760px">
      <Title>{page?.name ?? id}</Title>
      <Box className="head" fontSize="72px" textAlign="center" role="timer">
        {clock(started ? (now - started) / 1000 : took)}
      </Box>
      {!started && !took && (
        <Press
          look="main"
          w="100%"
          minH="72px"
          fontSize="20px"
          onClick={() => {
            setDone("");
            setNow(Date.now());
            setStarted(Date.now());
          }}
        >
          Start
        </Press>
      )}
      {started > 0 && (
        <Press
          look="main"
          w="100%"
          minH="72px"
          fontSize="20px"
          onClick={() => {
            setTook(Math.round((Date.now() - started) / 100) / 10);
            setStarted(0);
          }}
        >
          Done
        </Press>
      )}
      {took > 0 && page && (
        <>
          <Box mt="3" fontWeight="700">
            Look at it, then say:
          </Box>
          <Box as="ul" pl="5">
            {page.checks.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </Box>
          <Press mt="2" look="main" w="100%" onClick={() => keep("right")}>
            ✓ It is right
          </Press>
          <Flex direction="column" gap="2" mt="2">
            {page.faults.map((f) => (
              <Press key={f.code} onClick={() => keep("fault", f.code)}>
                ✕ {f.name}
              </Press>
            ))}
          </Flex>
        </>
      )}
      {done && (
        <Card kind="good" mt="3" role="status">
          {done}
        </Card>
      )}
      <Trouble error={add.error} />
    </Page>
  );
}

/** Which of two is wrong, and why: the right form beside a faulty one, in any order. */
export function FindTheFault() {
  const { id = "" } = useParams();
  const page = useQuery(q.knot(id)).data;
  const [n, setN] = useState(() => Math.floor(Math.random() * 1000));
  const [said, setSaid] = useState<boolean>();
  const drawn = page?.faults.filter((f) => f.drawing) ?? [];
  const fault = drawn[n % Math.max(1, drawn.length)];
  if (page && !fault) {
    return (
      <Page maxW="760px">
        <Title>Find the fault</Title>
        <Box mt="2">No faulty {page.name.toLowerCase()} is drawn. Its faults in words:</Box>
        <Box as="ul" pl="5">
          {page.faults.map((f) => (
            <li key={f.code}>
              <strong>{f.name}</strong>: {f.looks}
            </li>
          ))}
        </Box>
      </Page>
    );
  }
  const wrongFirst = Math.floor(n / 7) % 2 === 0;
  const pick = (wrong: boolean) => setSaid(wrong);
  const wrong = fault?.drawing ? (
    <FaultDrawing
      id={fault.drawing}
      look="laid"
      w="100%"
      h="240px"
      className={said === undefined ? "knot-drawing unringed" : "knot-drawing"}
    />
  ) : null;
  const right = <Drawing id={id} name={page?.name ?? id} drawn w="100%" h="240px" />;
  return (
    <Page maxW="860px">
      <Title>Which one is wrong?</Title>
      <Grid templateColumns={{ base: "1fr", sm: "1fr 1fr" }} gap="3" mt="3">
        {[wrongFirst, !wrongFirst].map((isWrong, i) => (
          <Card key={String(i)} asChild kind={said !== undefined && isWrong ? "warn" : undefined}>
            <button
              type="button"
              onClick={() => pick(isWrong)}
              aria-label={i === 0 ? "The first" : "The second"}
              data-wrong={isWrong}
            >
              {isWrong ? wrong : right}
            </button>
          </Card>
        ))}
      </Grid>
      {said !== undefined && fault && (
        <Card mt="3" kind={said ? "good" : "warn"} role="status">
          <strong>{said ? "✓ That is the one." : "✕ No: it is the other."}</strong> {fault.name}:{" "}
          {fault.looks}. {fault.mend}
          <Press
            mt="2"
            onClick={() => {
              setSaid(undefined);
              setN(n + 1 + Math.floor(Math.random() * 13));
            }}
          >
            Another
          </Press>
        </Card>
      )}
    </Page>
  );
}
