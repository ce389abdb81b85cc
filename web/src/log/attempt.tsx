import { Box, Dialog, Flex, Portal } from "@chakra-ui/react";
import { type ReactNode, useEffect, useRef, useState } from "react";
import type { Attempt } from "../api/client";
import { useAddAttempt, useAddLearner, useKnot, useLearners } from "../api/hooks";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";

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

/** One attempt: who, how long, how it went. Open while a knot is named. */
export function AttemptDialog({ knot, close }: { knot: string; close: () => void }) {
  return (
    <Dialog.Root
      open={knot !== ""}
      onOpenChange={(e) => !e.open && close()}
      lazyMount
      unmountOnExit
      // Not a text field: on a phone that would bring up the keyboard.
      initialFocusEl={() => document.getElementById("attempt-title")}
    >
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content bg="sheet" color="ink" maxW="560px" mx="2">
            <Form knot={knot} close={close} />
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

function Form({ knot, close }: { knot: string; close: () => void }) {
  const page = useKnot(knot);
  const learners = useLearners();
  const add = useAddAttempt();
  const addLearner = useAddLearner();
  const [learner, setLearner] = useState(0);
  const [name, setName] = useState("");
  const [outcome, setOutcome] = useState<Attempt["outcome"] | "">("");
  const [fault, setFault] = useState("");
  const [condition, setCondition] = useState<NonNullable<Attempt["conditions"]>>("dry");
  const [seconds, setSeconds] = useState("");
  const [trouble, setTrouble] = useState("");

  const save = async () => {
    const time = seconds.trim() === "" ? 0 : Number(seconds.replace(",", "."));
    if (learner === 0) return setTrouble("Who tied it? Tap a learner, or add one.");
    if (outcome === "") return setTrouble("How did it go? Tap right, slow or fault.");
    if (outcome === "fault" && !fault) return setTrouble("Which fault was it?");
    if (!Number.isFinite(time) || time < 0 || time > 7200)
      return setTrouble(`“${seconds}” is no time: type seconds, as in 12, or leave it empty.`);
    try {
      await add.mutateAsync({
        learner_id: learner,
        knot,
        outcome,
        fault: outcome === "fault" ? fault : "",
        seconds: time,
        conditions: condition,
      });
      close();
    } catch {
      setTrouble("");
    }
  };
  const enrol = async () => {
    const l = await addLearner.mutateAsync(name);
    setLearner(l.id);
    setName("");
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
      onChange={() => setTrouble("")}
    >
      <Dialog.Header>
        <Dialog.Title id="attempt-title" tabIndex={-1} className="head" fontSize="24px" outline="none">
          {page.data?.name ?? "Attempt"}
        </Dialog.Title>
      </Dialog.Header>
      <Dialog.Body display="flex" flexDirection="column" gap="4">
        <Group label="Who">
          {learners.data?.map((l) => (
            <Press key={l.id} type="button" aria-pressed={learner === l.id} onClick={() => setLearner(l.id)}>
              {l.name}
            </Press>
          ))}
          <Flex gap="1">
            <Typing label="New learner" value={name} set={setName} width={120} placeholder="New learner" />
            {name.trim() && (
              <Press type="button" onClick={() => void enrol().catch(() => undefined)}>
                Add
              </Press>
            )}
          </Flex>
        </Group>
        <Group label="Time">
          <Watch set={(s) => setSeconds(s.toFixed(1))} />
          <Typing label="Seconds" value={seconds} set={setSeconds} width={86} placeholder="seconds" />
        </Group>
        <Group label="How it went">
          {outcomes.map((o) => (
            <Press key={o.id} type="button" aria-pressed={outcome === o.id} onClick={() => setOutcome(o.id)}>
              {o.text}
            </Press>
          ))}
        </Group>
        {outcome === "fault" && (
          <Group label="Which fault">
            {page.data?.faults.map((f) => (
              <Press
                key={f.code}
                type="button"
                aria-pressed={fault === f.code}
                onClick={() => setFault(f.code)}
                fontSize="15px"
              >
                {f.name}
              </Press>
            ))}
          </Group>
        )}
        <Group label="Line and hands">
          {conditions.map((k) => (
            <Press
              key={k.id}
              type="button"
              aria-pressed={condition === k.id}
              onClick={() => setCondition(k.id)}
              px="3"
            >
              {k.text}
            </Press>
          ))}
        </Group>
        {trouble && (
          <Box role="alert" color="flare" fontWeight="700">
            {trouble}
          </Box>
        )}
        <Trouble error={add.error ?? addLearner.error} />
      </Dialog.Body>
      <Dialog.Footer>
        <Press type="button" look="bare" onClick={close}>
          Cancel
        </Press>
        <Press type="submit" look="main" disabled={add.isPending} data-testid="save-attempt">
          Save the attempt
        </Press>
      </Dialog.Footer>
    </form>
  );
}

function Group({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Box role="group" aria-label={label}>
      <Box color="quiet" mb="1" fontSize="15px">
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
  width: number;
  placeholder: string;
}) {
  return (
    <input
      aria-label={props.label}
      value={props.value}
      placeholder={props.placeholder}
      onChange={(e) => props.set(e.target.value)}
      style={{
        minHeight: 44,
        width: props.width,
        padding: "0 10px",
        border: "1.5px solid var(--ink)",
        borderRadius: 8,
        background: "var(--paper)",
      }}
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
      type="button"
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
