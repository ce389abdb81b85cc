import { Box, Flex, Heading } from "@chakra-ui/react";
import { useState } from "react";
import { Link } from "react-router";
import type { Answer, Choice } from "../api/client";
import { Press } from "../ui/button";
import { Drawing, type Look } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { capital, force, range, reach, seconds, short } from "../ui/format";
import { Cautions, Flag } from "../ui/notes";
import { Card } from "../ui/page";
import { Inspection } from "./inspection";

type Props = {
  choice: Choice;
  answer: Answer;
  fishing: boolean;
  look: Look;
  attempt: (knot: string) => void;
  /** The control of its wraps, where it has any. */
  wraps?: React.ReactNode;
  children?: React.ReactNode;
};

/** The chosen knot: what it bears, how it holds, how it comes off, and what to do with it. */
export function Chosen({ choice: c, answer, fishing, look, attempt, wraps, children }: Props) {
  const [why, setWhy] = useState(false);
  return (
    <Card flex="1" minW="0" w="100%" p="4" data-testid="chosen">
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
        <Facts choice={c} fishing={fishing} two={answer.other !== undefined} />
      </Flex>
      <Flex direction="column" gap="2" mt="3">
        {c.flags.map((f) => (
          <Flag key={f} text={f} />
        ))}
        <Holding choice={c} wet={!answer.rig.dry} people={answer.people} />
        <Box fontSize="md">
          <strong>Off:</strong> {c.release_how} {c.letting_go}
        </Box>
        {c.backup && (
          <Box fontSize="md">
            <strong>Backup:</strong>{" "}
            <Link to={`/knots/${c.backup}`} className="link">
              see it tied
            </Link>
          </Box>
        )}
        {c.purchase && <Box fontSize="md">{c.purchase}</Box>}
        {c.decided && (
          <Box fontSize="md">
            <strong>Why here:</strong> {c.decided}
          </Box>
        )}
        {wraps}
      </Flex>
      <Flex gap="2" mt="3" wrap="wrap" className="no-print">
        <Press look="main" asChild>
          <Link to={`/knots/${c.knot}?look=${look}`}>See it tied</Link>
        </Press>
        <Press onClick={() => attempt(c.knot)}>Record an attempt</Press>
        <Beside choice={c} answer={answer} />
        <Press look="bare" aria-expanded={why} onClick={() => setWhy(!why)}>
          Why this place
        </Press>
      </Flex>
      {why && <Contributions choice={c} />}
      {answer.people && <Inspection rig={answer.rig} knot={c.knot} />}
      {children}
      <Box mt="4" pt="3" borderTop="1.5px dashed" borderColor="rule">
        <Cautions
          list={[
            ...answer.cautions.filter((x) => !x.locked),
            ...c.cautions.filter((x) => !answer.cautions.some((y) => y.id === x.id)),
          ]}
        />
      </Box>
    </Card>
  );
}

function Facts({ choice: c, fishing, two }: { choice: Choice; fishing: boolean; two: boolean }) {
  return (
    <Box minW="0">
      <Heading as="h2" fontSize="xl">
        {c.name}
      </Heading>
      <Fact name={`${capital(c.strength.fails)} at`}>
        {range(c.strength.capacity_kn, (kN) => force(kN, fishing))}, {c.strength.fails_at}
        <Evidence tag={c.strength.capacity_kn.tag} source={c.strength.capacity_kn.source} />
      </Fact>
      <Fact name="Keeps">
        {range(c.strength.efficiency, (v) => `${Math.round(v * 100)} %`)} of the line
        <Evidence tag={c.strength.efficiency.tag} source={c.strength.efficiency.source} />
      </Fact>
      <Fact name="Takes">
        {reach(c.needs_m)} of line to tie
        {two && c.needs_other_m ? `, ${reach(c.needs_other_m)} of the other` : ""}
        {c.left_on_mm ? `; leave ${short(c.left_on_mm)} mm on` : `; tail ${reach(c.tail_m)}`}
        <Evidence
          tag="computed"
          source="the larger of what the fingers need (common practice, no source) and the line in the knot, round the object, and the usual tail (our estimates), a backup included where people depend on it"
        />
      </Fact>
      <Fact name="Costs">
        {reach(c.consumes_m)} each time it is cut off
        <Evidence
          tag="computed"
          source="the line in the knot and round the object (our estimates) and the end that is left on"
        />
      </Fact>
      <Fact name="Drawn up">
        about {short(c.bulk_mm)} mm thick
        <Evidence tag="memory" source="how thick it draws up, in diameters of its line: our own estimate" />
      </Fact>
      <Fact name="Tied in">
        {range(c.seconds, seconds)}
        <Evidence tag={c.seconds.tag} source={c.seconds.source} />
      </Fact>
    </Box>
  );
}

/** The next knot in rank, to compare with. */
function Beside({ choice, answer }: { choice: Choice; answer: Answer }) {
  const beside = answer.ranked.find((x) => x.knot !== choice.knot);
  if (!beside) return null;
  const material = answer.rig.chain[2]?.line?.material ?? "";
  return (
    <Press asChild>
      <Link to={`/compare?a=${choice.knot}&b=${beside.knot}&in=${material}&mm=${answer.line.diameter_mm}`}>
        Compare with the {beside.name.toLowerCase()}
      </Link>
    </Press>
  );
}

function Fact({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <Box mt="1.5" fontSize="base">
      <Box as="span" color="quiet">
        {name}{" "}
      </Box>
      {children}
    </Box>
  );
}

/** How it holds: the chance with its ends, worked out or read from use; no number where people depend on it. */
function Holding({ choice, wet, people }: { choice: Choice; wet: boolean; people: boolean }) {
  const h = wet ? choice.wet : choice.dry;
  // Nothing is certain: never all of a hundred, never none.
  const of = (p: number | undefined) => Math.min(99, Math.max(1, Math.round(100 * (p ?? 0))));
  const source = h.worked
    ? "friction of rope on object and rope on rope, taught by use: see Method"
    : "by use, not worked out: what the word comes to is our own reading";
  return (
    <Box fontSize="md">
      <strong>{wet ? "Wet:" : "Dry:"}</strong> {h.class} – {h.why}.{" "}
      {!people && `In 100 like it ${of(h.chance)} hold (${of(h.chance_low)} to ${of(h.chance_high)}). `}
      <Evidence tag={h.tag} source={source} />
    </Box>
  );
}

function Contributions({ choice }: { choice: Choice }) {
  return (
    <Box mt="3" aria-label="How the score adds up">
      {choice.contributions
        .filter((p) => p.weight > 0)
        .map((p) => (
          <Flex key={p.criterion} align="center" gap="2" fontSize="md" py="0.5">
            <Box w="120px">{p.criterion}</Box>
            <Box flex="1" h="12px" border="1px solid" borderColor="rule" borderRadius="sm" overflow="hidden">
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
      <Box fontSize="sm" color="quiet">
        The weights are our own judgement: common practice, no source.
      </Box>
    </Box>
  );
}
