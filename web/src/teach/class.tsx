import { Box, chakra, Flex, Grid } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { api, type Schemas, unwrap } from "../api/client";
import { useCatalogue } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";
import { Select } from "../ui/pick";
import { FaultPicker } from "./fault";
import { post, takeBack, useWaiting } from "./outbox";
import {
  attemptOf,
  clock,
  freshRound,
  keepRound,
  keptRound,
  nextRound,
  note,
  type Round,
  type Try,
  tried,
  unnote,
} from "./round";

const conditions = [
  { id: "wet", text: "wet" },
  { id: "gloves", text: "gloves" },
  { id: "blind", text: "not looking" },
  { id: "real", text: "real thing" },
] as const;

/** A class in the hand: one clock, one touch on a name when that learner is done, a long touch for a fault. */
export function ClassView() {
  const [params] = useSearchParams();
  const client = useQueryClient();
  const [round, setRound] = useState<Round>(() => {
    const before = keptRound();
    const [knot, group] = [params.get("knot"), params.get("group")];
    if (before && (!knot || knot === before.knot)) return before;
    return freshRound(knot ?? before?.knot ?? "bowline", group ?? before?.group ?? "");
  });
  useEffect(() => keepRound(round), [round]);
  const board = useQuery(q.board(round.group));
  const page = useQuery(q.knot(round.knot)).data;
  const [faulty, setFaulty] = useState<number>();
  const [shown, setShown] = useState<Schemas["RoundAnswer"]>();
  const waiting = useWaiting(() => void client.invalidateQueries({ queryKey: q.kept() }));
  const people = board.data?.rows ?? [];
  useEffect(() => {
    document.title = `${page?.name ?? "Round"}, round ${round.n} · Oarweed`;
  }, [page?.name, round.n]);

  /** Notes a try and sends it; one of the same learner in this round is taken back first. */
  const keep = (learner: number, t: Try) => {
    const before = round.tries[learner];
    if (before) takeBack(before.key);
    post(attemptOf(round, learner, t));
    setRound((r) => note(r, learner, t));
  };
  const undo = () => {
    const last = round.order.at(-1);
    const t = last === undefined ? undefined : round.tries[last];
    if (last === undefined || !t) return;
    takeBack(t.key);
    setRound((r) => unnote(r, last));
  };
  const end = async () => {
    const attempts = Object.entries(round.tries).map(([id, t]) => attemptOf(round, Number(id), t));
    setRound({ ...round, started: 0, ended: true });
    setShown(undefined);
    try {
      const body = { knot: round.knot, group: round.group, attempts } as Schemas["RoundQuery"];
      setShown(await unwrap(api.POST("/api/v1/round", { body })));
    } catch {
      const right = attempts.filter((a) => a.outcome !== "fault").length;
      setShown({
        says: `${right} of ${attempts.length} tied it right. The rest is said when there is a connection.`,
      });
    }
  };
  const chosen = people.find((p) => p.id === faulty);
  return (
    <Box as="main" maxW="760px" mx="auto" w="100%" pb="132px">
      <Top round={round} set={setRound} undo={undo} name={page?.name ?? round.knot} end={() => void end()} />
      <Box px="3" mt="3">
        <How round={round} set={setRound} />
        <Trouble error={board.error} />
        {people.length === 0 && board.data && (
          <Box mt="4">
            Nobody is in this class yet.{" "}
            <Link to="/teach/people" className="link strong">
              Add learners, or take in a list.
            </Link>
          </Box>
        )}
        <Grid templateColumns="1fr 1fr" gap="2" mt="3" data-testid="tiles">
          {people.map((p) => (
            <Tile
              key={p.id}
              name={p.name}
              done={round.tries[p.id]}
              running={round.started > 0}
              fault={page?.faults.find((f) => f.code === round.tries[p.id]?.fault)?.name}
              touch={() =>
                round.tries[p.id] ? setFaulty(p.id) : keep(p.id, tried(round, "right", Date.now()))
              }
              hold={() => setFaulty(p.id)}
            />
          ))}
        </Grid>
      </Box>
      {chosen && page && (
        <FaultPicker
          who={chosen.name}
          knot={page}
          now={round.tries[chosen.id]}
          close={() => setFaulty(undefined)}
          set={(outcome, code) => {
            const before = round.tries[chosen.id];
            const t = tried(round, outcome, Date.now(), code);
            // The clock has run on since: the time is that of the first touch.
            keep(chosen.id, before ? { ...t, seconds: before.seconds } : t);
            setFaulty(undefined);
          }}
          back={() => {
            const before = round.tries[chosen.id];
            if (before) takeBack(before.key);
            setRound((r) => unnote(r, chosen.id));
            setFaulty(undefined);
          }}
        />
      )}
      <Foot
        round={round}
        waiting={waiting}
        shown={shown}
        people={people.length}
        next={(knot) => {
          setShown(undefined);
          setRound(nextRound(round, knot));
        }}
      />
    </Box>
  );
}

/** What is tied, the clock, and the one button. */
function Top(p: { round: Round; set: (r: Round) => void; undo: () => void; name: string; end: () => void }) {
  const { round, set, undo, name, end } = p;
  const knots = useCatalogue().data?.knots ?? [];
  const groups = useQuery(q.board("")).data?.groups ?? [];
  const idle = round.started === 0 && round.order.length === 0;
  return (
    <Box bg="sheet" borderBottom="1.5px solid" borderColor="rule">
      <Flex bg="kelp" color="kelpInk" align="center" gap="2" px="2" minH="52px">
        <Press look="head" asChild minW="44px" aria-label="Back to the board">
          <Link to="/teach">‹</Link>
        </Press>
        <Box asChild flex="1" fontSize="18px" minW="0">
          <h1>
            <strong>{name}</strong>, round {round.n}
          </h1>
        </Box>
        <Press
          look="head"
          onClick={undo}
          disabled={round.order.length === 0}
          minW="44px"
          aria-label="Take the last back"
        >
          ↶
        </Press>
      </Flex>
      <Flex px="3" py="2" align="center" gap="3" minH="76px">
        <Clock started={round.started} />
        <Box flex="1" />
        {round.started === 0 && !round.ended ? (
          <Press
            look="main"
            minH="52px"
            fontSize="18px"
            onClick={() => set({ ...round, started: Date.now() })}
          >
            {round.order.length > 0 ? "Clock on" : "Start"}
          </Press>
        ) : null}
        {(round.started > 0 || round.order.length > 0) && !round.ended && (
          <Press look="main" minH="52px" fontSize="18px" onClick={end}>
            End round
          </Press>
        )}
      </Flex>
      {idle && (
        <Flex px="3" pb="2" gap="2" wrap="wrap">
          <Select
            label="Knot"
            value={round.knot}
            set={(knot) =>
              set({ ...freshRound(knot, round.group), conditions: round.conditions, judged: round.judged })
            }
            list={knots}
          />
          <Select
            label="Class"
            first="everybody"
            value={round.group}
            set={(group) => set({ ...round, group })}
            list={groups.map((g) => ({ id: g, name: g }))}
          />
        </Flex>
      )}
    </Box>
  );
}

/** The one clock. */
function Clock({ started }: { started: number }) {
  const [now, setNow] = useState(Date.now());
  useEffect(() => {
    if (!started) return;
    setNow(Date.now());
    const tick = setInterval(() => setNow(Date.now()), 200);
    return () => clearInterval(tick);
  }, [started]);
  return (
    <Box
      className="head"
      fontSize="60px"
      lineHeight="1"
      role="timer"
      aria-label="Time of this round"
      css={{ fontVariantNumeric: "tabular-nums" }}
    >
      {clock(started ? Math.max(0, now - started) / 1000 : 0)}
    </Box>
  );
}

const judges = [
  { id: "instructor", text: "I judge" },
  { id: "peer", text: "a peer" },
  { id: "self", text: "each for himself" },
] as const;

/** How it is tied in this round: what is set stays for the next. */
function How({ round, set }: { round: Round; set: (r: Round) => void }) {
  const turn = (id: string) =>
    set({
      ...round,
      conditions: round.conditions.includes(id)
        ? round.conditions.filter((c) => c !== id)
        : [...round.conditions, id],
    });
  const said = [
    round.help && "with help",
    round.side && `on the ${round.side}`,
    round.judged !== "instructor" && judges.find((j) => j.id === round.judged)?.text,
  ].filter(Boolean);
  return (
    <>
      <Grid templateColumns="repeat(4, 1fr)" gap="2" role="group" aria-label="Line and hands">
        {conditions.map((c) => (
          <Press
            key={c.id}
            px="1"
            fontSize="15px"
            aria-pressed={round.conditions.includes(c.id)}
            onClick={() => turn(c.id)}
          >
            {round.conditions.includes(c.id) ? "✓ " : ""}
            {c.text}
          </Press>
        ))}
      </Grid>
      <Box asChild mt="2">
        <details>
          <Box as="summary" minH="32px" cursor="pointer" color="quiet">
            {said.length > 0 ? said.join(", ") : "Side, help, who judges"}
          </Box>
          <Flex gap="2" wrap="wrap" mt="1">
            <Press small aria-pressed={round.help} onClick={() => set({ ...round, help: !round.help })}>
              with help
            </Press>
            {(["left", "right"] as const).map((side) => (
              <Press
                key={side}
                small
                aria-pressed={round.side === side}
                onClick={() => set({ ...round, side: round.side === side ? "" : side })}
              >
                {side} hand or horn
              </Press>
            ))}
            {judges.map((j) => (
              <Press
                key={j.id}
                small
                aria-pressed={round.judged === j.id}
                onClick={() => set({ ...round, judged: j.id })}
              >
                {j.text}
              </Press>
            ))}
          </Flex>
        </details>
      </Box>
    </>
  );
}

const Button = chakra("button", {
  base: {
    display: "grid",
    gridTemplateColumns: "30px minmax(0, 1fr) auto",
    alignItems: "center",
    gap: "1",
    minH: "66px",
    px: "2",
    borderRadius: "sm",
    border: "1.5px dashed",
    borderColor: "ink",
    bg: "sheet",
    textAlign: "left",
    cursor: "pointer",
    userSelect: "none",
    touchAction: "manipulation",
  },
  variants: {
    state: {
      right: { bg: "glassWash", borderStyle: "solid", borderColor: "glass" },
      slow: { bg: "amberWash", borderStyle: "solid", borderColor: "amber" },
      fault: { bg: "flareWash", borderStyle: "solid", borderColor: "flare" },
    },
  },
});

const marks = { right: "✓", slow: "◔", fault: "⚑" } as const;
const long = 500;

/** A learner: touched when done, held for a fault. */
function Tile(p: {
  name: string;
  done: Try | undefined;
  running: boolean;
  fault: string | undefined;
  touch: () => void;
  hold: () => void;
}) {
  const { name, done, running, fault, touch, hold } = p;
  const held = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const down = () => {
    held.current = false;
    clearTimeout(timer.current);
    timer.current = setTimeout(() => {
      held.current = true;
      hold();
    }, long);
  };
  const up = () => clearTimeout(timer.current);
  const word = done
    ? { right: "right", slow: "right, slow", fault: fault ?? "fault" }[done.outcome]
    : running
      ? "tying"
      : "touch when done";
  return (
    <Button
      type="button"
      state={done?.outcome}
      data-learner={name}
      onPointerDown={down}
      onPointerUp={up}
      onPointerLeave={up}
      onContextMenu={(e) => {
        // The long touch of a phone, the other button of a mouse.
        e.preventDefault();
        up();
        if (!held.current) hold();
        held.current = true;
      }}
      onClick={() => {
        if (!held.current) touch();
        held.current = false;
      }}
      onKeyDown={(e) => e.key === "f" && hold()}
      aria-label={`${name}: ${word}${done?.seconds ? `, ${clock(done.seconds)}` : ""}. Hold, or press f, for a fault.`}
    >
      <Box
        fontSize="24px"
        color={done?.outcome === "fault" ? "flare" : "glass"}
        textAlign="center"
        aria-hidden
      >
        {done ? marks[done.outcome] : "○"}
      </Box>
      <Box minW="0">
        <Box fontWeight="700" fontSize="17px" truncate>
          {name}
        </Box>
        <Box fontSize="15px" truncate color={done?.outcome === "fault" ? "flare" : "quiet"}>
          {word}
        </Box>
      </Box>
      {done && done.seconds > 0 && (
        <Box className="head" fontSize="19px">
          {clock(done.seconds)}
        </Box>
      )}
    </Button>
  );
}

/** What the round shows, and what comes next. */
function Foot(p: {
  round: Round;
  waiting: number;
  shown: Schemas["RoundAnswer"] | undefined;
  people: number;
  next: (knot?: string) => void;
}) {
  const { round, waiting, shown, people, next } = p;
  const done = round.order.length;
  const faults = Object.values(round.tries).filter((t) => t.outcome === "fault").length;
  return (
    <Box
      position="fixed"
      insetX="0"
      bottom="0"
      bg="kelp"
      color="kelpInk"
      borderTop="4px solid #e2a03c"
      className="no-print"
      zIndex="5"
    >
      <Box maxW="760px" mx="auto" px="4" py="3" role="status" data-testid="shows">
        {round.ended && shown ? (
          <>
            <Box fontWeight="700" fontSize="17px">
              {shown.says}
            </Box>
            {shown.next && (
              <Box>
                Next: the {shown.next.name.toLowerCase()}. {shown.next.says}
              </Box>
            )}
            <Flex gap="2" mt="2" wrap="wrap">
              <Press look="amber" onClick={() => next()}>
                Another round
              </Press>
              {shown.next && shown.next.knot !== round.knot && (
                <Press onClick={() => next(shown.next?.knot)}>{shown.next.name}</Press>
              )}
              <Press look="head" asChild>
                <Link to={`/knots/${round.knot}/show`}>▶ Show it</Link>
              </Press>
              <Press look="head" asChild>
                <Link to="/teach">Board</Link>
              </Press>
            </Flex>
          </>
        ) : (
          <>
            <Box fontWeight="700" fontSize="17px">
              {done === 0
                ? "One touch on a name when that learner is done."
                : `${done} of ${people} done${faults ? `, ${faults} with a fault` : ""}.`}
            </Box>
            <Box fontSize="15px">{done === 0 ? "Hold a name for a fault." : "Touch again to change it."}</Box>
          </>
        )}
        {waiting > 0 && (
          <Box fontSize="15px" mt="1">
            {waiting === 1 ? "One waits" : `${waiting} wait`} on this device for a connection; nothing is
            lost.
          </Box>
        )}
      </Box>
    </Box>
  );
}
