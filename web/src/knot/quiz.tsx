import { Box, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Drawing, FaultDrawing } from "../ui/drawing";
import { capital } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";
import { type Asked, ask, type Given, judge } from "./quizzed";

type Fault = Schemas["QuizFault"];

/** The drawer of bad examples: is it right, and if not, where is it wrong? */
export function QuizView() {
  const faults = useQuery(q.drawnFaults());
  useEffect(() => {
    document.title = "Find the fault · Oarweed";
  }, []);
  return (
    <Page maxW="1100px" py="4">
      <Title>Find the fault</Title>
      <Trouble error={faults.error} />
      {faults.data && faults.data.length > 0 && <Quiz faults={faults.data} />}
    </Page>
  );
}

function Quiz({ faults }: { faults: Fault[] }) {
  const [pair, setPair] = useState(true);
  const [seed, setSeed] = useState(() => Math.floor(Math.random() * 1e6));
  const [turn, setTurn] = useState(0);
  const [score, setScore] = useState({ right: 0, of: 0 });
  const [given, setGiven] = useState<Given>();
  const asked = useMemo(() => ask(faults, seed, turn, pair), [faults, seed, turn, pair]);
  const verdict = given && judge(asked, given);
  const answer = (g: Given) => {
    if (given) return;
    setGiven(g);
    setScore((s) => ({ right: s.right + (judge(asked, g).right ? 1 : 0), of: s.of + 1 }));
  };
  const next = () => {
    setGiven(undefined);
    setTurn(turn + 1);
  };
  return (
    <>
      <Flex gap="2" mt="2" align="center" wrap="wrap">
        {[true, false].map((p) => (
          <Press
            key={String(p)}
            small
            aria-pressed={pair === p}
            onClick={() => {
              setPair(p);
              setGiven(undefined);
              setSeed(seed + 1);
              setTurn(0);
            }}
          >
            {p ? "Side by side" : "One alone"}
          </Press>
        ))}
        <Box flex="1" />
        <Box fontWeight="700" data-testid="score">
          {score.of === 0 ? "" : `${score.right} of ${score.of} found`}
        </Box>
      </Flex>
      <Box className="head" fontSize="xl" mt="3">
        {asked.fault.of}:{" "}
        {pair ? "one of these is wrong. Touch it where it is." : "right, or wrong? If wrong, touch where."}
      </Box>
      <Flex gap="4" mt="3" wrap="wrap" justify="center">
        {asked.shown.map((wrong, i) => (
          <Shown
            key={`${seed} ${turn} ${wrong ? "a" : "b"}`}
            asked={asked}
            wrong={wrong}
            place={i}
            open={given !== undefined}
            touch={(at) => answer({ place: i, at })}
            found={given?.at && given.place === i ? given.at : undefined}
          />
        ))}
      </Flex>
      {!given && (
        <Flex gap="2" mt="3" wrap="wrap" justify="center" role="group" aria-label="Answer in words">
          {!pair && <Press onClick={() => answer({})}>It is right</Press>}
          {asked.names.map((n) => (
            <Press key={n} small look="bare" onClick={() => answer({ name: n })}>
              {pair ? `One is: ${n.toLowerCase()}` : `Wrong: ${n.toLowerCase()}`}
            </Press>
          ))}
        </Flex>
      )}
      <Box aria-live="polite" data-testid="quiz-verdict" mt="3">
        {verdict && (
          <Card kind={verdict.right ? "good" : "warn"} p="4">
            <Box className="head" fontSize="2xl" color={verdict.right ? "glass" : "flare"}>
              {verdict.right ? "✓" : "✕"} {verdict.says}
            </Box>
            <Box mt="1" fontSize="lg">
              {asked.wrong ? (
                <>
                  <strong>{asked.fault.name}:</strong> {asked.fault.looks}; {asked.fault.leads}.{" "}
                  <strong>Put right:</strong> {asked.fault.mend}
                </>
              ) : (
                `So it has to look. ${capital(asked.fault.name)} would show so: ${asked.fault.looks}.`
              )}
            </Box>
            <Flex gap="2" mt="3" wrap="wrap">
              <Press look="main" onClick={next} autoFocus>
                Next
              </Press>
              <Press asChild>
                <Link to={`/knots/${asked.fault.knot}`}>See the {asked.fault.of.toLowerCase()}</Link>
              </Press>
            </Flex>
          </Card>
        )}
      </Box>
    </>
  );
}

/** A drawing to touch. Answered, the wrong one shows its ring. */
function Shown(p: {
  asked: Asked;
  wrong: boolean;
  place: number;
  open: boolean;
  touch: (at: [number, number]) => void;
  found: [number, number] | undefined;
}) {
  const { asked, wrong, place, open, touch, found } = p;
  const { fault } = asked;
  const [x, y, w, h] = fault.frame as [number, number, number, number];
  const press = (e: React.MouseEvent<HTMLElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    touch([x + ((e.clientX - box.left) / box.width) * w, y + ((e.clientY - box.top) / box.height) * h]);
  };
  const size = { w: "100%", h: "100%" } as const;
  return (
    <Card
      p="3"
      w={{ base: "100%", md: asked.shown.length > 1 ? "calc(50% - 8px)" : "min(560px, 100%)" }}
      borderColor={open ? (wrong ? "flare" : "glass") : undefined}
      data-shown={wrong ? "wrong" : "right"}
    >
      <Box
        position="relative"
        mx="auto"
        w="100%"
        maxW={`calc(min(46vh, 380px) * ${w / h})`}
        aspectRatio={`${w} / ${h}`}
        cursor={open ? "default" : "crosshair"}
        onClick={open ? undefined : press}
        aria-hidden="true"
        data-place={place}
      >
        {wrong ? (
          <FaultDrawing id={fault.drawing} look="laid" bare={!open} {...size} />
        ) : fault.right ? (
          <FaultDrawing id={fault.right} look="laid" bare {...size} />
        ) : (
          <Drawing id={fault.knot} name="" drawn options={{ look: "laid" }} {...size} />
        )}
        {found && (
          <Box
            position="absolute"
            left={`${((found[0] - x) / w) * 100}%`}
            top={`${((found[1] - y) / h) * 100}%`}
            w="18px"
            h="18px"
            m="-9px 0 0 -9px"
            borderRadius="full"
            border="3px solid"
            borderColor="ink"
            bg="sheet"
          />
        )}
      </Box>
      <Box textAlign="center" fontWeight="700" minH="26px" color={wrong ? "flare" : "glass"}>
        {open ? (wrong ? "✕ wrong" : "✓ right") : ""}
      </Box>
    </Card>
  );
}
