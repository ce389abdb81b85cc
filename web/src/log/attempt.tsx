import { Box, Flex, Input } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useEffect, useId, useRef, useState } from "react";
import type { Attempt, KnotPage } from "../api/client";
import { useAddAttempt, useAddLearner } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { forgetDraft, useDraft } from "../ui/draft";
import { newKey } from "../ui/key";
import { Trouble } from "../ui/notes";
import { Sheet } from "../ui/sheet";

const outcomes = [
  { id: "right", text: "✓ Right" },
  { id: "slow", text: "◔ Right, but slow" },
  { id: "fault", text: "✕ Fault" },
] as const;

export const conditions = [
  { id: "dry", text: "dry" },
  { id: "wet", text: "wet" },
  { id: "gloves", text: "in gloves" },
  { id: "blind", text: "without looking" },
  { id: "real", text: "in the real place" },
] as const;

/** Conditions in words. */
export const conditionWords = (ids: string | undefined): string =>
  (ids ?? "dry")
    .split(",")
    .map((id) => conditions.find((c) => c.id === id)?.text ?? id)
    .join(", ");

/** One attempt: who, how long, how it went. Open while a knot is named. */
export function AttemptDialog({ knot, close }: { knot: string; close: () => void }) {
  const page = useQuery(q.knot(knot));
  const form = useId();
  return (
    <Sheet
      open={knot !== ""}
      close={close}
      title={page.data?.name ?? "Attempt"}
      // Not a text field: on a phone that would bring up the keyboard.
      focus={() => document.querySelector("[data-sheet-title]")}
      foot={
        <>
          <Press
            look="bare"
            onClick={() => {
              forgetDraft(draftOf(knot));
              close();
            }}
          >
            Cancel
          </Press>
          <Press type="submit" form={form} look="main" data-testid="save-attempt">
            Save the attempt
          </Press>
        </>
      }
    >
      <AttemptForm id={form} knot={knot} faults={page.data?.faults ?? []} close={close} />
    </Sheet>
  );
}

type FormProps = { id: string; knot: string; faults: KnotPage["faults"]; close: () => void };

const draftOf = (knot: string) => `oarweed attempt ${knot}`;

type Draft = {
  /** Pressed twice, or sent again after a lost answer, it is still one attempt. */
  key: string;
  learner: number;
  outcome: Attempt["outcome"] | "";
  fault: string;
  conditions: string[];
  seconds: string;
};

const blank = (): Draft => ({
  key: newKey(),
  learner: 0,
  outcome: "",
  fault: "",
  conditions: [],
  seconds: "",
});

function AttemptForm({ id, knot, faults, close }: FormProps) {
  const add = useAddAttempt();
  const [draft, set] = useDraft(draftOf(knot), blank);
  const { key, learner, outcome, fault, conditions: how, seconds } = draft;
  const [trouble, setTrouble] = useState("");
  const save = async () => {
    const time = seconds.trim() === "" ? 0 : Number(seconds.replace(",", "."));
    if (learner === 0) return setTrouble("Who tied it? Tap a learner, or add one.");
    if (outcome === "") return setTrouble("How did it go? Tap right, slow or fault.");
    if (outcome === "fault" && !fault) return setTrouble("Which fault was it?");
    if (!Number.isFinite(time) || time < 0 || time > 7200)
      return setTrouble(`“${seconds}” is no time: type seconds, as in 12, or leave it empty.`);
    const went = {
      outcome,
      fault: outcome === "fault" ? fault : "",
      seconds: time,
      conditions: how.length > 0 ? how.join(",") : "dry",
    };
    try {
      await add.mutateAsync({ key, learner_id: learner, knot, ...went });
      forgetDraft(draftOf(knot));
      close();
    } catch {
      setTrouble("");
    }
  };
  return (
    <form
      id={id}
      onSubmit={(e) => {
        e.preventDefault();
        if (!add.isPending) void save();
      }}
      onChange={() => setTrouble("")}
    >
      <Flex direction="column" gap="4">
        <Who learner={learner} choose={(id) => set({ learner: id })} />
        <Group label="Time">
          <Watch set={(s) => set({ seconds: s.toFixed(1) })} />
          <Typing
            label="Seconds"
            value={seconds}
            set={(text) => set({ seconds: text })}
            width="86px"
            placeholder="seconds"
          />
        </Group>
        <OneOf label="How it went" list={outcomes} value={outcome} choose={(id) => set({ outcome: id })} />
        {outcome === "fault" && (
          <OneOf
            label="Which fault"
            list={faults.map((f) => ({ id: f.code, text: f.name }))}
            value={fault}
            choose={(id) => set({ fault: id })}
          />
        )}
        <Group label="Line and hands: what holds of these">
          {conditions
            .filter((c) => c.id !== "dry")
            .map((c) => (
              <Press
                key={c.id}
                small
                aria-pressed={how.includes(c.id)}
                onClick={() =>
                  set({ conditions: how.includes(c.id) ? how.filter((x) => x !== c.id) : [...how, c.id] })
                }
              >
                {c.text}
              </Press>
            ))}
        </Group>
        {trouble && (
          <Box role="alert" color="flare" fontWeight="700">
            {trouble}
          </Box>
        )}
        <Trouble error={add.error} />
      </Flex>
    </form>
  );
}

/** The learners, and a place to add one. */
function Who({ learner, choose }: { learner: number; choose: (id: number) => void }) {
  const learners = useQuery(q.learners()).data ?? [];
  const add = useAddLearner();
  const [name, setName] = useState("");
  const enrol = async () => {
    choose((await add.mutateAsync(name)).id);
    setName("");
  };
  return (
    <Group label="Who">
      {learners.map((l) => (
        <Press key={l.id} aria-pressed={learner === l.id} onClick={() => choose(l.id)}>
          {l.name}
        </Press>
      ))}
      <Flex gap="1">
        <Typing label="New learner" value={name} set={setName} width="120px" placeholder="New learner" />
        {name.trim() && <Press onClick={() => void enrol().catch(() => undefined)}>Add</Press>}
      </Flex>
      <Trouble error={add.error} />
    </Group>
  );
}

/** Buttons of which one is pressed. */
function OneOf<T extends string>(props: {
  label: string;
  list: readonly { id: T; text: string }[];
  value: T | "";
  choose: (id: T) => void;
}) {
  return (
    <Group label={props.label}>
      {props.list.map((o) => (
        <Press key={o.id} small aria-pressed={props.value === o.id} onClick={() => props.choose(o.id)}>
          {o.text}
        </Press>
      ))}
    </Group>
  );
}

function Group({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Box role="group" aria-label={label}>
      <Box color="quiet" mb="1" fontSize="md">
        {label}
      </Box>
      <Flex gap="2" wrap="wrap" align="center">
        {children}
      </Flex>
    </Box>
  );
}

function Typing(props: {
  label: string;
  value: string;
  set: (v: string) => void;
  width: string;
  placeholder: string;
}) {
  return (
    <Input
      aria-label={props.label}
      value={props.value}
      placeholder={props.placeholder}
      onChange={(e) => props.set(e.target.value)}
      w={props.width}
    />
  );
}

/** A stopwatch: one press starts it, the next stops it and gives the time. */
function Watch({ set }: { set: (seconds: number) => void }) {
  const started = useRef(0);
  const [now, setNow] = useState<number>();
  useEffect(() => {
    if (now === undefined) return;
    const tick = requestAnimationFrame(() => setNow(performance.now()));
    return () => cancelAnimationFrame(tick);
  }, [now]);
  const running = now !== undefined;
  const elapsed = running ? (now - started.current) / 1000 : 0;
  return (
    <Press
      minW="130px"
      aria-pressed={running}
      onClick={() => {
        if (running) {
          set((performance.now() - started.current) / 1000);
          setNow(undefined);
        } else {
          started.current = performance.now();
          setNow(started.current);
        }
      }}
    >
      {running ? `Stop  ${Math.max(0, elapsed).toFixed(1)} s` : "Start the clock"}
    </Press>
  );
}
