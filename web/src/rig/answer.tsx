import { Box, chakra, Flex, Heading } from "@chakra-ui/react";
import { memo, useState } from "react";
import { Link } from "react-router";
import type { Answer, Choice } from "../api/client";
import { Drawing } from "../ui/drawing";
import { Evidence, Mark } from "../ui/evidence";
import { capital, range, seconds, short, times } from "../ui/format";
import { Cautions } from "../ui/notes";
import { Card } from "../ui/page";
import { Verdict } from "../ui/verdict";
import { Chosen } from "./chosen";
import { StrengthBar } from "./strength-bar";
import { Wraps } from "./wraps";

type Props = {
  answer: Answer;
  fishing: boolean;
  look: "laid" | "braid" | "mono";
  selected: Choice | undefined;
  select: (knot: string) => void;
  attempt: (knot: string) => void;
  setWraps: (wraps: number) => void;
  setBare: (bare: boolean) => void;
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
          {answer.says && (
            <Card kind="warn" p="3" mb="3" fontWeight="700" data-testid="yourself">
              {answer.says}
            </Card>
          )}
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
          {answer.then && (
            <Box mt="3" data-testid="then">
              <strong>And then:</strong> {answer.then}
            </Box>
          )}
          <RuledOut list={answer.ruled_out} />
          <Small answer={answer} />
        </Box>
        {selected && (
          <Chosen
            {...props}
            choice={selected}
            wraps={
              <Wraps
                choice={selected}
                set={props.setWraps}
                bare={answer.rig.chain[1]?.joint?.finish === "bare"}
                setBare={props.setBare}
              />
            }
          />
        )}
      </Flex>
    </>
  );
});

/** Nothing will do: the knot that comes nearest, what it lacks, and what to do instead. */
function Nothing({ answer }: { answer: Answer }) {
  const near = answer.nearest;
  return (
    <Card kind="warn" p="4" data-testid="nothing">
      <Box className="head" fontSize="lg">
        No knot here does this.
      </Box>
      {answer.instead && <Box mb="2">{answer.instead}</Box>}
      {near && (
        <Box>
          Nearest comes the{" "}
          <Link to={`/knots/${near.knot}`} className="link strong">
            {near.name.toLowerCase()}
          </Link>
          . {near.reasons.map((r) => r.why).join(" ")} <strong>{near.change.join(" ")}</strong>
        </Box>
      )}
      <Box mt="2">
        <Cautions list={answer.cautions.filter((c) => !c.locked)} />
      </Box>
    </Card>
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
      <RowButton
        type="button"
        borderColor={on ? "kelp" : "rule"}
        boxShadow={on ? "var(--shadow)" : "none"}
        aria-pressed={on}
        onClick={() => select(c.knot)}
      >
        <What
          knot={c.knot}
          name={c.name}
          drawn={c.drawn}
          look={look}
          head={`${place}. ${c.name}${c.wraps ? `, ${c.wraps} wraps` : ""}`}
          reason={c.but[0]?.why ?? c.reason}
          against={c.but.length > 0}
          wet={c.wet}
          dry={c.dry}
          off={`off ${c.release_word} · ${seconds(c.seconds.likely)} to tie`}
          limit={bears(c)}
        />
        <Box w="190px" flex="none" display={{ base: "none", md: "block" }}>
          <StrengthBar choice={c} loadKN={answer.rig.peak_kn} fishing={fishing} width={190} />
          <Box fontSize="sm" mt="1" color={shade[c.strength.word]} fontWeight="700">
            {bears(c)}
          </Box>
          <Box fontSize="xs" color="quiet">
            strength <Mark tag={c.strength.efficiency.tag} /> · hold{" "}
            <Mark tag={(answer.rig.dry ? c.dry : c.wet).tag} />
          </Box>
        </Box>
      </RowButton>
    </Box>
  );
});

const RowButton = chakra("button", {
  base: {
    display: "flex",
    w: "100%",
    textAlign: "left",
    gap: "3",
    p: "3",
    alignItems: "center",
    bg: "sheet",
    border: "2px solid",
    borderRadius: "md",
    cursor: "pointer",
  },
});

/** What a ranked knot is and how it holds: most of it stays as it is while the load is dragged. */
const What = memo(function What(props: {
  knot: string;
  name: string;
  drawn: boolean;
  look: Props["look"];
  head: string;
  reason: string;
  against: boolean;
  wet: Choice["wet"];
  dry: Choice["dry"];
  off: string;
  limit: string;
}) {
  return (
    <>
      <Picture knot={props.knot} name={props.name} drawn={props.drawn} look={props.look} />
      <Box flex="1" minW="0">
        <Said head={props.head} reason={props.reason} against={props.against} />
        <Flex columnGap="2" rowGap="1" mt="1.5" align="center" wrap="wrap">
          <Verdicts wet={props.wet} dry={props.dry} off={props.off} />
          <Box fontSize="sm" display={{ base: "block", md: "none" }} fontWeight="700">
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
      fontSize="xs"
      display={{ base: "none", sm: "block" }}
    />
  );
});

const Said = memo(function Said(p: { head: string; reason: string; against: boolean }) {
  const { head, reason, against } = p;
  return (
    <>
      <Box className="head" fontSize="lg">
        {head}
      </Box>
      <Box fontSize="md" lineHeight="1.35">
        {against && (
          <Box as="span" color="amber" fontWeight="700">
            ▲{" "}
          </Box>
        )}
        {capital(reason.replace(/\.$/, ""))}.
      </Box>
    </>
  );
});

const Verdicts = memo(function Verdicts(p: { wet: Choice["wet"]; dry: Choice["dry"]; off: string }) {
  return (
    <>
      <Verdict when="wet" hold={p.wet} />
      <Verdict when="dry" hold={p.dry} />
      <Box color="quiet" fontSize="sm">
        {p.off}
      </Box>
    </>
  );
});

const shade = { enough: "glass", short: "amber", thin: "amber", yours: "ink" };
const sign = { enough: "✓", short: "▲ line short:", thin: "▲ thin:", yours: "" };

/** What a knot bears, with the word for it; none of approval where people depend on it. */
const bears = (c: Choice) =>
  `${sign[c.strength.word]} ${c.strength.fails} at ${times(c.strength.times)} × the load`.trim();

/** A multiple of the load: one decimal below ten. */

const RuledOut = memo(function RuledOut({ list }: { list: Answer["ruled_out"] }) {
  const near = list.filter((r) => r.near);
  const far = list.filter((r) => !r.near);
  if (list.length === 0) return null;
  return (
    <Box mt="3">
      {near.length > 0 && (
        <Box data-testid="ruled-out">
          <Heading as="h3" fontSize="lg" py="1">
            Ruled out
          </Heading>
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
    <Flex gap="3" py="1.5" px="2" fontSize="md" data-ruled={ruled.knot} align="baseline">
      <Box as="span" color="flare" fontWeight="700" aria-hidden>
        ✕
      </Box>
      <Box>
        <Link to={`/knots/${ruled.knot}`} className="link strong">
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
              {capital(o.name)}: {range(o.mbl_kn, (v) => `${short(v)} kN`)}
              {o.gives ? `, ${o.gives}` : ""} <Evidence tag={o.mbl_kn.tag} source={o.mbl_kn.source} />
            </Box>
          ))}
          <Box>{answer.line.why}</Box>
          <Box>
            Design factor {short(answer.design_factor)}: {answer.factor_why}{" "}
            <Evidence tag={answer.factor_tag} source="rope-industry guidance on breaking strength" />. The
            new, dry line is asked to bear {short(answer.needed_kn)} kN at its low end; what is left in the
            joint at its worst, twice the load.
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
