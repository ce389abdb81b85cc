import { Box, Flex, Grid, Heading } from "@chakra-ui/react";
import { Link } from "react-router";
import type { Answer, Choice, Rig } from "../api/client";
import { useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { Evidence, inSpace } from "../ui/evidence";
import { capital, force, length, range, reach, seconds, short } from "../ui/format";
import { Outcome } from "./whole";

/** The figures behind an answer, for the curious: each with its interval and its evidence. */
export function Why(p: { choice: Choice; answer: Answer; fishing: boolean; settled: Rig }) {
  const { choice: c, answer, fishing, settled } = p;
  const chance = useLasting(q.chances(settled)).data?.[c.knot];
  return (
    <Box data-testid="why">
      {c.decided && (
        <Box fontWeight="700" mb="2">
          {c.decided}
        </Box>
      )}
      <Holding choice={c} wet={!answer.rig.dry} people={answer.people} />
      <Holding choice={c} wet={answer.rig.dry ?? false} people={answer.people} />
      <Facts choice={c} fishing={fishing} />
      <Fact name="Comes off:">
        {c.release_how} {c.letting_go}
      </Fact>
      {c.backup && (
        <Fact name="Backed up by:">
          <Link to={`/knots/${c.backup}`} className="link">
            see it tied
          </Link>
        </Fact>
      )}
      {c.purchase && <Fact name="As a purchase:">{c.purchase}</Fact>}
      {chance && <Outcome chance={chance} fishing={fishing} />}
      <Contributions choice={c} />
      <Rated answer={answer} />
    </Box>
  );
}

function Facts({ choice: c, fishing }: { choice: Choice; fishing: boolean }) {
  return (
    <>
      <Fact name={`${capital(c.strength.fails)} at`}>
        {range(c.strength.capacity_kn, (kN) => force(kN, fishing))}, {c.strength.fails_at}
        <Evidence tag={c.strength.capacity_kn.tag} source={c.strength.capacity_kn.source} />
      </Fact>
      <Fact name="Keeps">
        {range(c.strength.efficiency, (v) => `${Math.round(v * 100)} %`)} of the line
        <Evidence tag={c.strength.efficiency.tag} source={c.strength.efficiency.source} />
      </Fact>
      <Fact name="Costs">
        {reach(c.consumes_m)} each time it is cut off
        <Evidence
          tag="computed"
          source="the line in the knot (drawn up in space where that is worked out, else our estimate), round the object, and the end that is left on"
        />
      </Fact>
      <Fact name="Drawn up">
        about {length(c.bulk_mm)} thick
        <Evidence
          tag={c.bulk_tag}
          source={
            c.bulk_tag === "computed"
              ? inSpace.source
              : "how thick it draws up, in diameters of its line: our own estimate"
          }
        />
      </Fact>
      <Fact name="Tied in">
        {range(c.seconds, seconds)}
        <Evidence tag={c.seconds.tag} source={c.seconds.source} />
      </Fact>
    </>
  );
}

function Fact({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <Box mt="1.5">
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
    <Box mt="1">
      <strong>{wet ? "Wet:" : "Dry:"}</strong> {h.class} – {h.why}.{" "}
      {!people && `In 100 like it ${of(h.chance)} hold (${of(h.chance_low)} to ${of(h.chance_high)}). `}
      <Evidence tag={h.tag} source={source} />
    </Box>
  );
}

function Contributions({ choice }: { choice: Choice }) {
  return (
    <Box mt="4">
      <Heading as="h3" fontSize="lg">
        How its place adds up
      </Heading>
      {choice.contributions
        .filter((p) => p.weight > 0)
        .map((p) => (
          <Grid
            key={p.criterion}
            templateColumns="130px 1fr 96px"
            gap="2"
            fontSize="md"
            py="0.5"
            alignItems="center"
          >
            <Box>{p.criterion}</Box>
            <Box h="12px" border="1px solid" borderColor="rule" borderRadius="sm" overflow="hidden">
              <Box h="100%" w={`${p.value * 100}%`} bg="glass" />
            </Box>
            <Box textAlign="right">
              {p.points.toFixed(1)} of {short(p.weight)}
            </Box>
          </Grid>
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

/** What was taken for granted: the line's strength and the defaults. */
function Rated({ answer }: { answer: Answer }) {
  const defaults = answer.defaults.filter((d) => d.field !== "chain[1].joint.tail_m");
  return (
    <Box mt="4">
      <Heading as="h3" fontSize="lg">
        How the {answer.line.name} was rated
      </Heading>
      {answer.line.options.map((o) => (
        <Box key={o.name} fontWeight={o.used ? 700 : 400}>
          {o.used ? "● " : "○ "}
          {capital(o.name)}: {range(o.mbl_kn, (v) => force(v, false))}
          {o.gives ? `, ${o.gives}` : ""} <Evidence tag={o.mbl_kn.tag} source={o.mbl_kn.source} />
        </Box>
      ))}
      <Box>{answer.line.why}</Box>
      <Box>
        Safety {short(answer.design_factor)} times: {answer.factor_why}{" "}
        <Evidence tag={answer.factor_tag} source="rope-industry guidance on breaking strength" />. The new,
        dry line is asked to bear {force(answer.needed_kn, false)} at its low end; what is left in the joint
        at its worst, twice the load.
      </Box>
      {defaults.map((d) => (
        <Box key={d.field}>
          Left out, so taken as {d.value}: {d.why}.
        </Box>
      ))}
    </Box>
  );
}
