import { Box, chakra, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useNavigate, useParams } from "react-router";
import type { KnotPage } from "../api/client";
import { q } from "../api/queries";
import { useAddress } from "../ui/address";
import { Drawing } from "../ui/drawing";
import { useKey } from "../ui/keys";
import { Trouble } from "../ui/notes";
import { prefs } from "../ui/prefs";
import { looks, swipe } from "./steps";

/** A knot over the whole screen, to be read from five metres: for a class, or for somebody across the table. */
export function ShowView() {
  const { id = "" } = useParams();
  const { data, error } = useQuery(q.knot(id));
  if (error) return <Trouble error={error} />;
  if (!data) return <Box p="6">Loading…</Box>;
  return <Shown key={id} knot={data} />;
}

const turns = ["me", "both", "across"] as const;
type Turn = (typeof turns)[number];

function Shown({ knot }: { knot: KnotPage }) {
  const [params, change] = useAddress();
  const go = useNavigate();
  const last = knot.steps.length;
  const [step, setStep] = useState(() => Math.min(Math.max(Number(params.get("step") ?? 1) || 1, 1), last));
  const [playing, setPlaying] = useState(false);
  const [wait, setWait] = useState(4);
  const left = (params.get("hand") ?? prefs().hand) === "left";
  const facing = params.get("seen") === "facing";
  const turn = turns.find((t) => t === params.get("to")) ?? "me";
  const look = looks[knot.kind === "terminal" ? 2 : 0].id;
  const awake = useAwake();
  const leave = () => (history.length > 1 ? go(-1) : go(`/knots/${knot.id}`));
  const by = (n: number) => {
    setPlaying(false);
    setStep((now) => Math.min(Math.max(now + n, 1), last));
  };
  useEffect(() => {
    document.title = `${knot.name} · Oarweed`;
  }, [knot.name]);
  // Played, every step stands as long as is set, then the next is shown; it stops at the last.
  useEffect(() => {
    if (!playing) return;
    if (step >= last) return setPlaying(false);
    const tick = setTimeout(() => setStep(step + 1), wait * 1000);
    return () => clearTimeout(tick);
  }, [playing, step, last, wait]);
  const play = () => {
    if (step >= last) setStep(1);
    setPlaying(!playing);
  };
  useKey("on", () => by(1));
  useKey("back", () => by(-1));
  useKey("presenter", (e) => by(e.key === "PageUp" ? -1 : 1));
  useKey("play", play);
  useKey("leave", leave);
  const half = (across: boolean) => (
    <Half
      key={across ? "across" : "me"}
      knot={knot}
      step={step}
      left={left}
      facing={facing}
      look={look}
      across={across}
      both={turn === "both"}
    />
  );
  return (
    <Flex
      as="main"
      position="fixed"
      inset="0"
      zIndex={20}
      bg="sheet"
      direction="column"
      onTouchStart={swipe(by)}
      data-testid="show"
    >
      <Box asChild position="absolute" clipPath="inset(50%)">
        <h1>{knot.name}</h1>
      </Box>
      <Flex flex="1" minH="0" direction={{ base: turn === "both" ? "column-reverse" : "row", md: "row" }}>
        {turn !== "across" && half(false)}
        {turn !== "me" && half(true)}
      </Flex>
      <Flex
        bg="kelp"
        color="kelpInk"
        px={{ base: "2", md: "5" }}
        py="2"
        gap={{ base: "2", md: "5" }}
        rowGap="1"
        align="center"
        wrap="wrap"
        justify="space-between"
        maxH={{ base: "none", md: "96px" }}
        className="no-print"
      >
        <Switch
          label="Hand"
          list={["right", "left"]}
          value={left ? "left" : "right"}
          set={(hand) => change({ hand })}
        />
        <Switch
          label="Seen"
          list={["as I tie", "facing me"]}
          value={facing ? "facing me" : "as I tie"}
          set={(v) => change({ seen: v === "facing me" ? "facing" : "" })}
        />
        <Switch label="Turned to" list={turns} value={turn} set={(to: Turn) => change({ to })} />
        <Flex align="center" gap="1" role="group" aria-label="Steps">
          <Foot type="button" onClick={() => by(-1)} aria-label="Step back" disabled={step === 1}>
            ‹
          </Foot>
          {knot.steps.map((s, i) => (
            <Foot
              key={s}
              type="button"
              bare
              onClick={() => {
                setPlaying(false);
                setStep(i + 1);
              }}
              aria-label={`Step ${i + 1}`}
              aria-current={step === i + 1 ? "step" : undefined}
            >
              {i + 1}
            </Foot>
          ))}
          <Foot type="button" onClick={() => by(1)} aria-label="Step on" disabled={step === last}>
            ›
          </Foot>
        </Flex>
        <Flex align="center" gap="2">
          <Flex
            align="center"
            border="1.5px solid"
            borderRadius="sm"
            role="group"
            aria-label="Pause at each step"
          >
            <Foot
              type="button"
              bare
              onClick={() => setWait(Math.max(1, wait - 1))}
              aria-label="Shorter pause"
            >
              −
            </Foot>
            <Box minW="44px" textAlign="center" aria-live="polite">
              {wait} s
            </Box>
            <Foot
              type="button"
              bare
              onClick={() => setWait(Math.min(20, wait + 1))}
              aria-label="Longer pause"
            >
              +
            </Foot>
          </Flex>
          <Foot
            type="button"
            main
            onClick={play}
            aria-label={playing ? "Pause" : "Play"}
            aria-pressed={playing}
          >
            {playing ? "❚❚" : "▶"}
          </Foot>
          <Foot type="button" onClick={leave} aria-label="Leave">
            ✕
          </Foot>
        </Flex>
      </Flex>
      {!awake && playing && (
        <Box bg="amberWash" px="4" py="1" fontSize="15px" role="status">
          This browser cannot keep the screen awake here: set a longer time before it goes dark.
        </Box>
      )}
    </Flex>
  );
}

/** One half of the screen: number, words and picture; turned round for the person opposite. */
function Half(p: {
  knot: KnotPage;
  step: number;
  left: boolean;
  facing: boolean;
  look: "laid" | "braid" | "mono";
  across: boolean;
  both: boolean;
}) {
  const { knot, step, left, facing, look, across, both } = p;
  const size = both ? "clamp(22px, 3.4vw, 46px)" : "clamp(26px, 4.2vw, 64px)";
  return (
    <Flex
      flex="1"
      minW="0"
      minH="0"
      direction="column"
      bg={across ? "glassWash" : "sheet"}
      p={{ base: "3", md: "6" }}
      transform={across ? "rotate(180deg)" : undefined}
      data-half={across ? "across" : "me"}
    >
      <Flex
        gap="4"
        align="flex-start"
        className="head"
        lineHeight="1.12"
        minH={{ base: "84px", md: "130px" }}
      >
        <Box color="glass" textAlign="center">
          <Box fontSize={both ? "clamp(48px, 8vw, 112px)" : "clamp(56px, 9vw, 140px)"} lineHeight="0.9">
            {step}
          </Box>
          <Box fontSize="18px" color="quiet">
            of {knot.steps.length}
          </Box>
        </Box>
        <Box fontSize={size} flex="1" aria-live={across ? undefined : "polite"} aria-hidden={across && both}>
          {(left ? knot.left : knot).steps[step - 1]}
        </Box>
      </Flex>
      <Drawing
        id={knot.id}
        name={`${knot.name}, step ${step} of ${knot.steps.length}${left ? ", left-handed" : ""}`}
        drawn={knot.drawn}
        options={{ step, view: facing ? "across" : "tie", left, look, ghost: step < knot.steps.length }}
        flex="1"
        minH="0"
        p="2"
        data-step={step}
      />
      <Box className="head" fontSize="clamp(18px, 2.2vw, 32px)" color="quiet">
        {knot.name}
        {/* The picture in words comes with the last step, when the move has been seen. */}
        {step === knot.steps.length &&
          `: ${(left ? knot.left : knot).told.aid.replace(/^./, (c) => c.toLowerCase())}`}
      </Box>
    </Flex>
  );
}

function Switch<T extends string>(p: { label: string; list: readonly T[]; value: T; set: (v: T) => void }) {
  return (
    <Box role="group" aria-label={p.label}>
      <Box fontSize="15px" aria-hidden>
        {p.label}
      </Box>
      <Flex border="1.5px solid" borderRadius="sm" overflow="hidden">
        {p.list.map((v) => (
          <Choice key={v} type="button" aria-pressed={v === p.value} onClick={() => p.set(v)}>
            {v}
          </Choice>
        ))}
      </Flex>
    </Box>
  );
}

const Choice = chakra("button", {
  base: {
    minH: "46px",
    minW: "46px",
    px: "3",
    cursor: "pointer",
    "&[aria-pressed=true]": { bg: "#fffdf6", color: "#10231d", fontWeight: 700 },
  },
});

const Foot = chakra("button", {
  base: {
    minW: "44px",
    h: "46px",
    fontSize: "20px",
    border: "1.5px solid",
    borderRadius: "full",
    cursor: "pointer",
    _disabled: { opacity: 0.4, cursor: "default" },
    "&[aria-current=step]": { color: "#f0b55a", fontWeight: 700, fontSize: "30px" },
  },
  variants: {
    bare: { true: { border: "none", minW: "36px" } },
    main: { true: { bg: "#e2a03c", color: "#10231d", borderColor: "#e2a03c", minW: "60px", h: "56px" } },
  },
});

/** Keeps the screen awake while this is shown; false where the browser does not offer it here. */
function useAwake(): boolean {
  const [can, setCan] = useState(() => "wakeLock" in navigator);
  useEffect(() => {
    let lock: { release: () => Promise<void> } | undefined;
    const ask = async () => {
      try {
        lock = await (
          navigator as { wakeLock?: { request: (kind: "screen") => Promise<typeof lock> } }
        ).wakeLock?.request("screen");
        setCan(lock !== undefined);
      } catch {
        setCan(false);
      }
    };
    const back = () => document.visibilityState === "visible" && void ask();
    void ask();
    document.addEventListener("visibilitychange", back);
    return () => {
      document.removeEventListener("visibilitychange", back);
      void lock?.release();
    };
  }, []);
  return can;
}
