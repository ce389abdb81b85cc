import { Box, chakra, Flex, Input, Popover, Portal } from "@chakra-ui/react";
import { Fragment, memo, useEffect, useRef, useState } from "react";
import { ApiError, type Rig } from "../api/client";
import { readQuantity } from "../api/hooks";
import { Press } from "../ui/button";
import { bareUnit, capital, liked } from "../ui/format";
import type { Phrase } from "./phrase";

type Props = {
  phrase: Phrase;
  change: (rig: Rig) => void;
  title: string;
  /** Marks it as the phrase of the sentence, of which there is one. */
  inSentence?: boolean;
};

const Slider = chakra("input", { base: { width: "100%", height: "44px", accentColor: "var(--glass)" } });

/** What was typed on a phrase before its editor stood there to take it. */
export const typedAhead = { text: "" };

/** One phrase as a button that opens its editor: in the sentence, or on a tag of the drawing. */
export function Editor({ phrase, change, title, inSentence }: Props) {
  // Of two dozen phrases a change concerns one: the others are not drawn again, and
  // what they do is looked up when they are opened.
  const now = useRef({ phrase, change });
  now.current = { phrase, change };
  return (
    <Frame
      text={phrase.text}
      label={`${phrase.label}: ${phrase.text}`}
      id={inSentence ? phrase.id : undefined}
      title={title}
      now={now}
    />
  );
}

const Frame = memo(function Frame(props: {
  text: string;
  label: string;
  id: string | undefined;
  title: string;
  now: { current: { phrase: Phrase; change: (rig: Rig) => void } };
}) {
  const { text, label, id, title, now } = props;
  const [phrase, setPhrase] = useState<Phrase>();
  const change = (rig: Rig) => now.current.change(rig);
  const done = (rig: Rig) => {
    setPhrase(undefined);
    change(rig);
  };
  return (
    <Popover.Root
      open={phrase !== undefined}
      onOpenChange={(e) => setPhrase(e.open ? now.current.phrase : undefined)}
      lazyMount
      unmountOnExit
      positioning={{ placement: "bottom-start" }}
    >
      <Popover.Trigger asChild>
        <button type="button" className="phrase" data-phrase={id} title={title} aria-label={label}>
          {text}
        </button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content maxH="420px" overflowY="auto" w="auto" minW="230px" maxW="340px">
            {phrase && (
              <Popover.Body p="3">
                <Box className="head" fontSize="base" mb="2">
                  {phrase.label}
                </Box>
                {"options" in phrase ? (
                  <Options phrase={phrase} done={done} />
                ) : (
                  <Typed phrase={phrase} done={done} live={change} />
                )}
              </Popover.Body>
            )}
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
});

/** From so many choices on there is a field to look for one. */
const many = 12;

function Options({
  phrase,
  done,
}: {
  phrase: Extract<Phrase, { options: unknown }>;
  done: (rig: Rig) => void;
}) {
  const [sought, seek] = useState("");
  const move = (e: React.KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[e.key];
    if (!step) return;
    e.preventDefault();
    const all = [...e.currentTarget.querySelectorAll<HTMLElement>("button")];
    all[(all.indexOf(document.activeElement as HTMLElement) + step + all.length) % all.length]?.focus();
  };
  const has = (o: (typeof phrase.options)[number]) =>
    `${o.text} ${o.group ?? ""} ${o.also ?? ""}`.toLowerCase().includes(sought.trim().toLowerCase());
  const list = phrase.options.filter(has);
  return (
    <Flex direction="column" onKeyDown={move}>
      {phrase.options.length > many && (
        <Input
          autoFocus
          type="search"
          placeholder="Look for, e.g. tow, buoy, braid"
          aria-label={`Look for: ${phrase.label}`}
          value={sought}
          onChange={(e) => seek(e.target.value)}
          onKeyDown={(e) => {
            const first = list[0];
            if (e.key === "Enter" && first) done(phrase.choose(first.id));
          }}
          mb="2"
        />
      )}
      <Flex direction="column" role="listbox" aria-label={phrase.label}>
        {list.map((o, i) => (
          <Fragment key={o.id}>
            {o.group && o.group !== list[i - 1]?.group && (
              <Box role="presentation" color="quiet" fontWeight="700" fontSize="sm" mt={i ? "2" : "0"} px="3">
                {capital(o.group)}
              </Box>
            )}
            <Option option={o} on={o.id === phrase.value} choose={() => done(phrase.choose(o.id))} />
          </Fragment>
        ))}
      </Flex>
      {list.length === 0 && <Box px="3">Nothing is called that here.</Box>}
    </Flex>
  );
}

function Option(props: {
  option: { id: string; text: string; note?: string };
  on: boolean;
  choose: () => void;
}) {
  const { option: o, on, choose } = props;
  return (
    <chakra.button
      type="button"
      role="option"
      aria-selected={on}
      data-option={o.id}
      minH="44px"
      px="3"
      textAlign="left"
      borderRadius="sm"
      cursor="pointer"
      fontWeight={on ? 700 : 400}
      bg={on ? "amberWash" : "transparent"}
      _hover={{ bg: "amberWash" }}
      onClick={choose}
    >
      {on ? "● " : ""}
      {o.text}
      {o.note && (
        <Box as="span" color="quiet" fontSize="sm">
          {" "}
          – {o.note}
        </Box>
      )}
    </chakra.button>
  );
}

function Typed({
  phrase,
  done,
  live,
}: {
  phrase: Extract<Phrase, { quantity: unknown }>;
  done: (rig: Rig) => void;
  /** Takes a value while it is being dragged. */
  live: (rig: Rig) => void;
}) {
  // Dragging goes eightfold up and down from where it began.
  const [start] = useState(phrase.now);
  const [drag, setDrag] = useState(0);
  const [text, setText] = useState(() => typedAhead.text || phrase.typed);
  useEffect(() => {
    typedAhead.text = "";
  }, []);
  const [trouble, setTrouble] = useState("");
  const submit = async (typed: string) => {
    try {
      const q = await readQuantity(phrase.quantity, typed, bareUnit(phrase.bare));
      if (q.value < 0) setTrouble(`${typed} is below zero – give zero or more`);
      else done(phrase.set(q.value));
    } catch (e) {
      const field = e instanceof ApiError ? e.problem.fields?.[0] : undefined;
      setTrouble(field ? `${field.message} – ${field.fix}` : String(e instanceof Error ? e.message : e));
    }
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        void submit(text);
      }}
    >
      <Flex gap="2">
        <Input
          autoFocus
          value={text}
          aria-label={phrase.label}
          aria-invalid={trouble !== ""}
          onChange={(e) => {
            setText(e.target.value);
            setTrouble("");
          }}
          onFocus={(e) => typedAhead.text === "" && e.target.select()}
          w="130px"
        />
        <Press type="submit" look="main">
          Set
        </Press>
      </Flex>
      {trouble ? (
        <Box role="alert" color="flare" fontWeight="700" mt="2" fontSize="md">
          {trouble}
        </Box>
      ) : (
        <Box color="quiet" mt="2" fontSize="sm">
          {phrase.hint}
        </Box>
      )}
      {start > 0 && (
        <Slider
          type="range"
          min={-3}
          max={3}
          step={0.02}
          value={drag}
          aria-label={`Drag: ${phrase.label}`}
          onChange={(e) => {
            const by = Number(e.target.value);
            setDrag(by);
            const value = Number((start * 2 ** by).toPrecision(3));
            setText(phrase.write(value));
            setTrouble("");
            live(phrase.set(value));
          }}
        />
      )}
      <Flex gap="2" mt="2" wrap="wrap">
        {phrase.quick.map((q) => (
          <Press key={q} small onClick={() => void submit(q)}>
            {q === "0" ? (phrase.id === "label" ? "by rule" : "enough") : liked(q)}
          </Press>
        ))}
      </Flex>
    </form>
  );
}
