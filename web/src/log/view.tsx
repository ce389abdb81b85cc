import { Box, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { Attempt, Schemas } from "../api/client";
import { useCatalogue, useRemoveAttempt, useRestoreAttempt } from "../api/hooks";
import { type LogFilter, q } from "../api/queries";
import { useAddress } from "../ui/address";
import { Press } from "../ui/button";
import { seconds } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Card, Page, Part, Title } from "../ui/page";
import { Select } from "../ui/pick";
import { AttemptDialog, conditions, conditionWords } from "./attempt";

const looks = {
  right: { text: "✓ right", colour: "glass", wash: "glassWash" },
  slow: { text: "◔ slow", colour: "amber", wash: "amberWash" },
  fault: { text: "✕ fault", colour: "flare", wash: "flareWash" },
} as const;

/** The attempts, narrowed as one likes, with what they come to. */
export function LogView() {
  const [params, change] = useAddress();
  const get = (key: string) => params.get(key) ?? "";
  const by: LogFilter = {
    learner: Number(get("who")) || undefined,
    knot: get("knot") || undefined,
    outcome: (get("how") || undefined) as LogFilter["outcome"],
    condition: (get("in") || undefined) as LogFilter["condition"],
    group: get("group") || undefined,
  };
  const attempts = useQuery(q.log(by));
  const totals = useQuery(q.totals(by)).data ?? [];
  const knots = useCatalogue().data?.knots ?? [];
  const learners = useQuery(q.learners()).data ?? [];
  const groups = [...new Set(learners.flatMap((l) => l.groups ?? []))].sort();
  const remove = useRemoveAttempt();
  const restore = useRestoreAttempt();
  const [knot, setKnot] = useState("");
  const [gone, setGone] = useState<Attempt>();
  const name = (id: string) => knots.find((k) => k.id === id)?.name ?? id;
  const list = attempts.data?.attempts ?? [];
  const narrowed = Object.values(by).some(Boolean);
  const pick = (
    key: string,
    label: string,
    first: string,
    options: readonly { id: string; name: string }[],
  ) => (
    <Select label={label} first={first} value={get(key)} set={(v) => change({ [key]: v })} list={options} />
  );
  return (
    <Page maxW="1300px">
      <Flex justify="space-between" align="center" wrap="wrap" gap="3">
        <Title>Log</Title>
        <Flex gap="2" wrap="wrap" className="no-print">
          <Press asChild look="main">
            <Link to="/teach/class">Start a round</Link>
          </Press>
          <Select
            label="Record an attempt at"
            first="Record one attempt at…"
            value=""
            set={setKnot}
            list={knots}
          />
        </Flex>
      </Flex>
      <Flex gap="2" wrap="wrap" mt="3" className="no-print" role="search" aria-label="Narrow the log">
        {pick(
          "who",
          "Learner",
          "everybody",
          learners.map((l) => ({ id: String(l.id), name: l.name })),
        )}
        {groups.length > 0 &&
          pick(
            "group",
            "Class",
            "any class",
            groups.map((g) => ({ id: g, name: g })),
          )}
        {pick("knot", "Knot", "any knot", knots)}
        {pick("how", "How it went", "however it went", [
          { id: "right", name: "right" },
          { id: "slow", name: "right, slow" },
          { id: "fault", name: "fault" },
        ])}
        {pick(
          "in",
          "Line and hands",
          "in any conditions",
          conditions.map((c) => ({ id: c.id, name: c.text })),
        )}
        {narrowed && (
          <Press look="bare" onClick={() => change({ who: "", group: "", knot: "", how: "", in: "" })}>
            All
          </Press>
        )}
      </Flex>
      <Trouble error={attempts.error ?? remove.error ?? restore.error} />
      {totals.length > 0 && <Totals days={totals} />}
      {gone && (
        <Card kind="note" mt="3" role="status">
          The attempt of {gone.learner} at the {name(gone.knot).toLowerCase()} is taken back.{" "}
          <Press
            small
            onClick={() => {
              restore.mutate(gone.id);
              setGone(undefined);
            }}
          >
            Bring it back
          </Press>
        </Card>
      )}
      {attempts.data && list.length === 0 && (
        <Box mt="4">
          {narrowed
            ? "No attempt is like that."
            : "No attempts yet. Open a knot, let a learner tie it, and record how it went."}
        </Box>
      )}
      <Box css={{ "@media (min-width: 1200px)": { columnCount: 2, columnGap: "32px" } }}>
        {byDay(list).map(([day, list]) => (
          <Part key={day} title={day} mt="5" css={{ breakInside: "avoid-column" }}>
            {list.map((a) => (
              <Row
                key={a.id}
                attempt={a}
                name={name(a.knot)}
                takeBack={() => remove.mutate(a.id, { onSuccess: () => setGone(a) })}
              />
            ))}
          </Part>
        ))}
      </Box>
      <AttemptDialog knot={knot} close={() => setKnot("")} />
    </Page>
  );
}

/** How many went how, in a sentence and day by day. */
function Totals({ days }: { days: Schemas["DayTotal"][] }) {
  const sum = days.reduce(
    (a, d) => ({ right: a.right + d.right, slow: a.slow + d.slow, fault: a.fault + d.fault }),
    { right: 0, slow: 0, fault: 0 },
  );
  const all = sum.right + sum.slow + sum.fault;
  const most = Math.max(...days.map((d) => d.right + d.slow + d.fault), 1);
  const shown = days.slice(-40);
  const [w, h] = [720, 110];
  const step = Math.min(46, w / shown.length);
  return (
    <Flex gap="5" mt="3" align="center" wrap="wrap" data-testid="totals">
      <Box className="head" fontSize="22px" lineHeight="1.25">
        {all} attempts
        <Box fontSize="17px" className="plain">
          ✓ {sum.right} right · ◔ {sum.slow} slow · ✕ {sum.fault} with a fault
        </Box>
      </Box>
      <Box flex="1" minW="280px">
        <svg
          viewBox={`0 0 ${w} ${h}`}
          width="100%"
          style={{ maxHeight: 120 }}
          role="img"
          aria-label={`By day: ${shown.map((d) => `${d.day}: ${d.right + d.slow} right, ${d.fault} with a fault`).join("; ")}`}
        >
          {shown.map((d, i) => {
            const high = (n: number) => ((h - 26) * n) / most;
            const x = i * step;
            return (
              <g key={d.day}>
                <rect
                  x={x + 3}
                  y={h - 20 - high(d.right)}
                  width={step - 6}
                  height={high(d.right)}
                  fill="var(--glass)"
                />
                <rect
                  x={x + 3}
                  y={h - 20 - high(d.right + d.slow)}
                  width={step - 6}
                  height={high(d.slow)}
                  fill="var(--rope-1)"
                  stroke="var(--amber)"
                />
                <rect
                  x={x + 4}
                  y={h - 20 - high(d.right + d.slow + d.fault)}
                  width={step - 8}
                  height={high(d.fault)}
                  fill="var(--flare-wash)"
                  stroke="var(--flare)"
                  strokeWidth="2"
                />
                {(i === 0 || i === shown.length - 1 || i === Math.floor(shown.length / 2)) && (
                  <text
                    x={x + step / 2}
                    y={h - 4}
                    fontSize="14"
                    textAnchor={i === 0 ? "start" : i === shown.length - 1 ? "end" : "middle"}
                    fill="var(--quiet)"
                  >
                    {new Date(d.day).toLocaleDateString(undefined, { day: "numeric", month: "short" })}
                  </text>
                )}
              </g>
            );
          })}
        </svg>
      </Box>
    </Flex>
  );
}

/** Attempts by the day on which they were made, in their order. */
function byDay(list: Attempt[]): [string, Attempt[]][] {
  const days = new Map<string, Attempt[]>();
  for (const a of list) {
    const day = new Date(a.at ?? 0).toLocaleDateString(undefined, {
      weekday: "long",
      day: "numeric",
      month: "long",
    });
    days.set(day, [...(days.get(day) ?? []), a]);
  }
  return [...days];
}

function Row({ attempt: a, name, takeBack }: { attempt: Attempt; name: string; takeBack: () => void }) {
  const look = looks[a.outcome];
  return (
    <Flex
      data-attempt={a.id}
      gap="3"
      py="2"
      align="center"
      borderBottom="1px solid"
      borderColor="rule"
      wrap={{ base: "wrap", md: "nowrap" }}
    >
      <Box w="58px" color="quiet">
        {new Date(a.at ?? 0).toLocaleTimeString(undefined, {
          hour: "2-digit",
          minute: "2-digit",
          hour12: false,
        })}
      </Box>
      <Box w="80px" fontWeight="700">
        {a.learner}
      </Box>
      <Box flex="1" minW="150px">
        <Link to={`/knots/${a.knot}`} className="link">
          {name}
        </Link>
        {a.kind === "drill" && " – crossing drill"}
        {a.help && " – with help"}
        {a.side && ` – ${a.side} hand or horn`}
        {a.judged === "peer" && " – judged by a peer"}
        {a.judged === "self" && " – judged by himself"}
        {a.fault && (
          <Box color="quiet" fontSize="md">
            <FaultName knot={a.knot} code={a.fault} />
          </Box>
        )}
      </Box>
      <Box w="70px" textAlign="right">
        {a.seconds ? seconds(a.seconds) : "–"}
      </Box>
      <Box w="130px">{conditionWords(a.conditions)}</Box>
      <Box
        px="2"
        py="0.5"
        borderRadius="full"
        bg={look.wash}
        color={look.colour}
        fontWeight="700"
        fontSize="md"
        whiteSpace="nowrap"
        w="82px"
        textAlign="center"
      >
        {look.text}
      </Box>
      <Press
        look="bare"
        aria-label={`Take back the attempt of ${a.learner}`}
        title="Take back"
        onClick={takeBack}
      >
        ↶
      </Press>
    </Flex>
  );
}

/** The fault in words; the log keeps its code. */
function FaultName({ knot, code }: { knot: string; code: string }) {
  const page = useQuery(q.knot(knot));
  return <>{page.data?.faults.find((f) => f.code === code)?.name ?? code}</>;
}
