import { Box, Flex } from "@chakra-ui/react";
import { memo, useState } from "react";
import { Link } from "react-router";
import type { Answer, Choice } from "../api/client";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Evidence, Mark } from "../ui/evidence";
import { capital, force, length, range, seconds, short } from "../ui/format";
import { Cautions, Flag } from "../ui/notes";
import { Verdict } from "../ui/verdict";
import { StrengthBar } from "./strength-bar";

type Props = {
  answer: Answer;
  fishing: boolean;
  look: "laid" | "braid" | "mono";
  selected: Choice | undefined;
  select: (knot: string) => void;
  attempt: (knot: string) => void;
  /** Shown beneath the chosen knot. */
  children?: React.ReactNode;
};

/** The ranked knots, with the chosen one beside them. Drawn anew only when the answer is: a change first shows in the sentence. */
export const AnswerPanel = memo(function AnswerPanel(props: Props) {
  const { answer, selected } = props;
  const locked = answer.cautions.filter((c) => c.locked);
  return (
    <>
      {/* These stand whatever the answer is. */}
      {locked.length > 0 && (
        <Box mb="4">
          <Cautions list={locked} />
        </Box>
      )}
      <Flex gap="6" direction={{ base: "column", lg: "row" }} align="flex-start">
        <Box flex="1.35" minW="0" w="100%">
          {answer.ranked.length === 0 && <Nothing answer={answer} />}
          <Flex
            as="ol"
            direction="column"
            gap="2"
            aria-label="Knots that can do it, best first"
            listStyleType="none"
          >
            {answer.ranked.map((c, i) => (
              <Row key={c.knot} {...props} choice={c} place={i + 1} />
            ))}
          </Flex>
          <RuledOut list={answer.ruled_out} />
          <Small answer={answer} />
        </Box>
        {selected && <Chosen {...props} choice={selected} />}
      </Flex>
    </>
  );
});

function Nothing({ answer }: { answer: Answer }) {
  return (
    <Box bg="flareWash" border="2px solid" borderColor="flare" borderRadius="10px" p="4">
      <Box className="head" fontSize="20px">
        No knot here does this.
      </Box>
      The reasons are below. Change a phrase of the sentence
      {answer.ruled_out.some((r) => r.near) ? ", starting with what rules out the first of them." : "."} Some
      jobs want a splice or made-up gear, not a knot.
    </Box>
  );
}

const Row = memo(function Row({
  choice: c,
  place,
  answer,
  fishing,
  look,
  selected,
  select,
}: Props & { choice: Choice; place: number }) {
  const on = selected?.knot === c.knot;
  return (
    <Box as="li" data-ranked={c.knot}>
      <Flex
        as="button"
        w="100%"
        textAlign="left"
        gap="3"
        p="3"
        align="center"
        bg="sheet"
        border="2px solid"
        borderColor={on ? "kelp" : "rule"}
        borderRadius="12px"
        boxShadow={on ? "var(--shadow)" : "none"}
        cursor="pointer"
        aria-pressed={on}
        onClick={() => select(c.knot)}
      >
        <What
          knot={c.knot}
          name={c.name}
          drawn={c.drawn}
          look={look}
          head={`${place}. ${c.name}${c.wraps ? `, ${c.wraps} wraps` : ""}`}
          reason={c.reason}
          wet={c.wet}
          dry={c.dry}
          off={`off ${c.release_word} · ${seconds(c.seconds.likely)} to tie`}
          limit={`${c.strength.word === "enough" ? "✓" : "▲"} ${c.strength.fails} at ${times(c.strength.times)} × the load`}
        />
        <Box w="190px" flex="none" display={{ base: "none", md: "block" }}>
          <StrengthBar
            choice={c}
            loadKN={answer.rig.peak_kn}
            neededKN={answer.needed_kn}
            fishing={fishing}
            width={190}
          />
          <Box
            fontSize="14px"
            mt="1"
            color={c.strength.word === "enough" ? "glass" : "amber"}
            fontWeight="700"
          >
            {c.strength.word === "enough" ? "✓" : "▲"} {c.strength.fails} at {times(c.strength.times)} × the
            load
          </Box>
          <Box fontSize="13px" color="quiet">
            strength <Mark tag={c.strength.efficiency.tag} /> · hold{" "}
            <Mark tag={(answer.rig.dry ? c.dry : c.wet).tag} />
          </Box>
        </Box>
      </Flex>
    </Box>
  );
});

/** What a ranked knot is and how it holds: most of it stays as it is while the load is dragged. */
const What = memo(function What(props: {
  knot: string;
  name: string;
  drawn: boolean;
  look: Props["look"];
  head: string;
  reason: string;
  wet: Choice["wet"];
  dry: Choice["dry"];
  off: string;
  limit: string;
}) {
  return (
    <>
      <Picture knot={props.knot} name={props.name} drawn={props.drawn} look={props.look} />
      <Box flex="1" minW="0">
        <Said head={props.head} reason={props.reason} />
        <Flex columnGap="2" rowGap="1" mt="1.5" align="center" wrap="wrap">
          <Verdicts wet={props.wet} dry={props.dry} off={props.off} />
          <Box fontSize="14px" display={{ base: "block", md: "none" }} fontWeight="700">
            {props.limit}
          </Box>
        </Flex>
      </Box>
    </>
  );
});

const Picture = memo(function Picture(p: {
  knot: string;
  name: string;
  drawn: boolean;
  look: Props["look"];
}) {
  return (
    <Drawing
      id={p.knot}
      name={p.name}
      drawn={p.drawn}
      options={{ look: p.look }}
      w="76px"
      h="76px"
      flex="none"
      fontSize="11px"
      display={{ base: "none", sm: "block" }}
    />
  );
});

const Said = memo(function Said({ head, reason }: { head: string; reason: string }) {
  return (
    <>
      <Box className="head" fontSize="19px">
        {head}
      </Box>
      <Box fontSize="15.5px" lineHeight="1.35">
        {capital(reason)}.
      </Box>
    </>
  );
});

const Verdicts = memo(function Verdicts(p: { wet: Choice["wet"]; dry: Choice["dry"]; off: string }) {
  return (
    <>
      <Verdict when="wet" hold={p.wet} />
      <Verdict when="dry" hold={p.dry} />
      <Box color="quiet" fontSize="14px">
        {p.off}
      </Box>
    </>
  );
});

/** A multiple of the load: one decimal below ten. */
const times = (x: number) => (x < 10 ? x.toFixed(1) : String(Math.round(x)));

function Chosen({ choice: c, answer, fishing, look, attempt, children }: Props & { choice: Choice }) {
  const [why, setWhy] = useState(false);
  const beside = answer.ranked.find((x) => x.knot !== c.knot);
  const write = (kN: number) => force(kN, fishing);
  return (
    <Box
      flex="1"
      minW="0"
      w="100%"
      bg="sheet"
      border="2px solid"
      borderColor="rule"
      borderRadius="12px"
      p="4"
      data-testid="chosen"
    >
      <Flex gap="4">
        <Drawing
          id={c.knot}
          name={c.name}
          drawn={c.drawn}
          options={{ look }}
          w={{ base: "120px", md: "190px" }}
          h={{ base: "120px", md: "190px" }}
          flex="none"
        />
        <Box minW="0">
          <Box as="h2" className="head" fontSize="24px">
            {c.name}
          </Box>
          <Fact name={c.strength.fails === "slips" ? "Slips at" : "Breaks at"}>
            {range(c.strength.capacity_kn, write)}
            <Evidence tag={c.strength.capacity_kn.tag} source={c.strength.capacity_kn.source} />
          </Fact>
          <Fact name="Keeps">
            {range(c.strength.efficiency, (v) => `${Math.round(v * 100)} %`)} of the line
            <Evidence tag={c.strength.efficiency.tag} source={c.strength.efficiency.source} />
          </Fact>
          <Fact name="Takes">
            {length(c.needs_m * 1000)} of line, {length(c.tail_m * 1000)} of it tail
            <Evidence
              tag="computed"
              source="the line in the knot and round the object (our estimates) plus the shortest tail (common practice, no source)"
            />
          </Fact>
          <Fact name="Tied in">
            {range(c.seconds, seconds)}
            <Evidence tag={c.seconds.tag} source={c.seconds.source} />
          </Fact>
        </Box>
      </Flex>
      <Flex direction="column" gap="2" mt="3">
        {c.flags.map((f) => (
          <Flag key={f} text={f} />
        ))}
        <Holding choice={c} wet={!answer.rig.dry} />
        <Box fontSize="15.5px">
          <strong>Off:</strong> {c.release_how}
        </Box>
      </Flex>
      <Flex gap="2" mt="3" wrap="wrap" className="no-print">
        <Link to={`/knots/${c.knot}?look=${look}`}>
          <Press as="span" look="main">
            See it tied
          </Press>
        </Link>
        <Press onClick={() => attempt(c.knot)}>Record an attempt</Press>
        {beside && (
          <Link to={`/compare?a=${c.knot}&b=${beside.knot}&in=${answer.rig.chain[2]?.line?.material ?? ""}`}>
            <Press as="span">Compare with the {beside.name.toLowerCase()}</Press>
          </Link>
        )}
        <Press look="bare" aria-expanded={why} onClick={() => setWhy(!why)}>
          Why this place
        </Press>
      </Flex>
      {why && <Contributions choice={c} />}
      {children}
      <Box mt="4" pt="3" borderTop="1.5px dashed" borderColor="rule">
        <Cautions
          list={[
            ...answer.cautions.filter((x) => !x.locked),
            ...c.cautions.filter((x) => !answer.cautions.some((y) => y.id === x.id)),
          ]}
        />
      </Box>
    </Box>
  );
}

function Fact({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <Box mt="1.5" fontSize="16px">
      <Box as="span" color="quiet">
        {name}{" "}
      </Box>
      {children}
    </Box>
  );
}

function Holding({ choice, wet }: { choice: Choice; wet: boolean }) {
  const h = wet ? choice.wet : choice.dry;
  return (
    <Box fontSize="15.5px">
      <strong>{wet ? "Wet:" : "Dry:"}</strong> {h.class} – {h.why}.{" "}
      <Evidence tag={h.tag} source={h.mu?.source} />
    </Box>
  );
}

function Contributions({ choice }: { choice: Choice }) {
  return (
    <Box mt="3" aria-label="How the score adds up">
      {choice.contributions
        .filter((p) => p.weight > 0)
        .map((p) => (
          <Flex key={p.criterion} align="center" gap="2" fontSize="15px" py="0.5">
            <Box w="120px">{p.criterion}</Box>
            <Box flex="1" h="12px" border="1px solid" borderColor="rule" borderRadius="6px" overflow="hidden">
              <Box h="100%" w={`${p.value * 100}%`} bg="glass" />
            </Box>
            <Box w="90px" textAlign="right">
              {p.points.toFixed(1)} of {p.weight}
            </Box>
          </Flex>
        ))}
      <Flex justify="space-between" borderTop="1.5px solid" borderColor="ink" fontWeight="700" mt="1">
        <span>Together</span>
        <span>{choice.score.toFixed(1)} of 100</span>
      </Flex>
      <Box fontSize="14px" color="quiet">
        The weights are our own judgement: common practice, no source.
      </Box>
    </Box>
  );
}

const RuledOut = memo(function RuledOut({ list }: { list: Answer["ruled_out"] }) {
  const near = list.filter((r) => r.near);
  const far = list.filter((r) => !r.near);
  if (list.length === 0) return null;
  return (
    <Box mt="3">
      {near.length > 0 && (
        <Box data-testid="ruled-out">
          <Box as="h3" className="head" fontSize="18px" py="1">
            Ruled out
          </Box>
          {near.slice(0, 3).map((r) => (
            <RuledRow key={r.knot} ruled={r} />
          ))}
          {near.length > 3 && (
            <details>
              <Box as="summary" minH="44px" py="2" cursor="pointer">
                and{" "}
                {near
                  .slice(3)
                  .map((r) => r.name.toLowerCase())
                  .join(", ")}
              </Box>
              {near.slice(3).map((r) => (
                <RuledRow key={r.knot} ruled={r} />
              ))}
            </details>
          )}
        </Box>
      )}
      {far.length > 0 && (
        <Fold summary={`${far.length} more are made for other work`}>
          {() => far.map((r) => <RuledRow key={r.knot} ruled={r} />)}
        </Fold>
      )}
    </Box>
  );
});

/** Something folded away, made only when it is opened: most of the catalogue stands in one. */
function Fold({ summary, children }: { summary: string; children: () => React.ReactNode }) {
  const [open, setOpen] = useState(false);
  return (
    <details onToggle={(e) => setOpen(e.currentTarget.open)}>
      <Box as="summary" minH="44px" py="2" cursor="pointer" color="quiet">
        {summary}
      </Box>
      {open && children()}
    </details>
  );
}

function RuledRow({ ruled }: { ruled: Answer["ruled_out"][number] }) {
  return (
    <Flex gap="3" py="1.5" px="2" fontSize="15.5px" data-ruled={ruled.knot} align="baseline">
      <Box as="span" color="flare" fontWeight="700" aria-hidden>
        ✕
      </Box>
      <Box>
        <Link to={`/knots/${ruled.knot}`} style={{ fontWeight: 700, textDecoration: "underline" }}>
          {ruled.name}
        </Link>{" "}
        {ruled.reasons.map((r) => r.why).join(" ")}
      </Box>
    </Flex>
  );
}

/** What was taken for granted: the line's strength and the defaults. */
const Small = memo(function Small({ answer }: { answer: Answer }) {
  const defaults = answer.defaults.filter((d) => d.field !== "chain[1].joint.tail_m");
  return (
    <Fold summary={`How the ${answer.line.name} was rated`}>
      {() => (
        <Box px="2" pb="2">
          {answer.line.options.map((o) => (
            <Box key={o.name} fontWeight={o.used ? 700 : 400}>
              {o.used ? "● " : "○ "}
              {capital(o.name)}: {range(o.mbl_kn, (v) => `${short(v)} kN`)}{" "}
              <Evidence tag={o.mbl_kn.tag} source={o.mbl_kn.source} />
            </Box>
          ))}
          <Box>{answer.line.why}</Box>
          <Box>
            Design factor {short(answer.design_factor)}: {answer.factor_why}{" "}
            <Evidence tag={answer.factor_tag} source="rope-industry guidance on breaking strength" />. Asked
            for: {short(answer.needed_kn)} kN.
          </Box>
          {defaults.map((d) => (
            <Box key={d.field}>
              Left out, so taken as {d.value}: {d.why}.
            </Box>
          ))}
        </Box>
      )}
    </Fold>
  );
});
