import { Box, chakra, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import type { KnotPage } from "../api/client";
import { useRole } from "../api/hooks";
import { q } from "../api/queries";
import { Proof } from "../bench/proof";
import { InUse } from "../lines/in-use";
import { AttemptDialog } from "../log/attempt";
import { useAddress } from "../ui/address";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { capital } from "../ui/format";
import { useKey } from "../ui/keys";
import { Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";
import { prefs } from "../ui/prefs";
import { Beside, Recent } from "./beside";
import { frames, hands, looks, swipe, useSteps, views } from "./steps";
import { Aid } from "./told";
import { Worded } from "./words";

/** A knot: the drawing is the page. */
export function KnotView() {
  const { id = "" } = useParams();
  const { data, error } = useQuery(q.knot(id));
  useEffect(() => {
    if (data) document.title = `${data.name} · Oarweed`;
  }, [data]);
  if (error) {
    return (
      <Box as="main" p="6">
        <Trouble error={error} />
        <Press asChild mt="4">
          <Link to="/knots">All knots</Link>
        </Press>
      </Box>
    );
  }
  if (!data) return <Box p="6">Loading…</Box>;
  return <Tied key={id} knot={data} />;
}

function Tied({ knot }: { knot: KnotPage }) {
  const address = useAddress();
  const [params, change] = address;
  const steps = useSteps(knot.steps.length, address);
  const [attempt, setAttempt] = useState(false);
  // A link from before has the hand as one of the views.
  const left = (params.get("hand") ?? (params.get("view") === "left" ? "left" : prefs().hand)) === "left";
  const view = views.find((v) => v.id === params.get("view")) ?? views[0];
  const look = looks.find((l) => l.id === params.get("look")) ?? looks[knot.kind === "terminal" ? 2 : 0];
  const labels = params.get("names") === "1";
  const set = (key: string, value: string) => change({ [key]: value });
  useKey("on", () => steps.by(1));
  useKey("back", () => steps.by(-1));
  const turn = () => set("hand", left ? "right" : "left");
  useKey("views", (e) => (e.key === "4" ? turn() : set("view", views[Number(e.key) - 1]?.id ?? "tie")));
  useKey("attempt", () => setAttempt(true));
  useKey("play", steps.play);
  return (
    <Page maxW="1360px" py="4">
      <Flex align="baseline" gap="4" wrap="wrap">
        <Title>{knot.name}</Title>
        <Box color="quiet">
          {knot.summary}
          {knot.also?.length ? ` Also: ${knot.also.join(", ")}.` : ""}
        </Box>
      </Flex>
      <Flex gap="6" mt="3" direction={{ base: "column", lg: "row" }} align="flex-start">
        <Box flex="1.5" w="100%" minW="0">
          <Card position="relative" p="0" overflow="hidden" onTouchStart={swipe(steps.by)}>
            <Drawing
              id={knot.id}
              name={knot.name}
              drawn={knot.drawn}
              options={{
                step: steps.step,
                view: view.id,
                left,
                look: look.id,
                labels,
                tones: labels,
                ghost: steps.step < knot.steps.length,
              }}
              h={{ base: "330px", md: "430px" }}
              p="4"
              data-step={steps.step}
            />
            {knot.drawn && (
              <Box
                position="absolute"
                left="14px"
                bottom="10px"
                fontSize="sm"
                color="quiet"
                bg="sheet"
                px="2"
                borderRadius="sm"
              >
                {capital(view.says)}
                {left ? ", for a left-handed tyer" : ""}
              </Box>
            )}
          </Card>
          <StepText knot={knot} steps={steps} left={left} />
          <Rail knot={knot} steps={steps} labels={labels} name={() => set("names", labels ? "0" : "1")} />
          {knot.drawn && (
            <Flex columnGap="4" rowGap="2" mt="2" wrap="wrap">
              <Choice label="Hand" list={hands} value={left ? "left" : "right"} set={(v) => set("hand", v)} />
              <Choice label="Seen" list={views} value={view.id} set={(v) => set("view", v)} />
              <Choice label="Line" list={looks} value={look.id} set={(v) => set("look", v)} />
            </Flex>
          )}
          <Aid knot={knot} left={left} />
          <Actions knot={knot} look={look.id} view={view.id} left={left} record={() => setAttempt(true)} />
          <Recent knot={knot.id} />
        </Box>
        <Box flex="1" w="100%" minW="0">
          <Beside knot={knot} look={look.id} view={view.id} left={left} />
        </Box>
      </Flex>
      <AttemptDialog knot={attempt ? knot.id : ""} close={() => setAttempt(false)} />
    </Page>
  );
}

type StepsProps = { knot: KnotPage; steps: ReturnType<typeof useSteps>; left: boolean };

/** The words of a step between the way back and the way on. */
function StepText({ knot, steps, left }: StepsProps) {
  const last = knot.steps.length;
  return (
    <Flex gap="3" mt="3" align="stretch">
      <Press onClick={() => steps.by(-1)} disabled={steps.step === 0} minW="56px" aria-label="Step back">
        ◀
      </Press>
      <Card
        kind="note"
        flex="1"
        display="flex"
        alignItems="center"
        gap="3"
        minH="66px"
        // Playing, it would be read out without end.
        aria-live={steps.playing ? "off" : "polite"}
        data-testid="step-text"
      >
        <Box className="head" fontSize="xl" whiteSpace="nowrap">
          {steps.shown} / {last}
        </Box>
        <Box fontSize={{ base: "base", md: "lg" }} lineHeight="1.3">
          {steps.shown === 0 ? (
            "The line laid ready."
          ) : (
            <Worded text={(left ? knot.left : knot).steps[steps.shown - 1] ?? ""} />
          )}
        </Box>
      </Card>
      <Press
        onClick={() => steps.by(1)}
        disabled={steps.step === last}
        look="main"
        minW="56px"
        aria-label="Step on"
      >
        ▶
      </Press>
    </Flex>
  );
}

const Slider = chakra("input", {
  base: { flex: 1, minW: "110px", minH: "44px", accentColor: "var(--kelp)" },
});

/** Every step as a button, the play button, and the end on its way under a slider. */
function Rail({
  knot,
  steps,
  labels,
  name,
}: Omit<StepsProps, "left"> & { labels: boolean; name: () => void }) {
  const last = knot.steps.length;
  return (
    <Flex as="nav" aria-label="Steps" gap="1" mt="2" wrap="wrap">
      {[...Array(last + 1).keys()].map((n) => (
        <Press
          key={n}
          onClick={() => steps.go(n)}
          aria-pressed={n === steps.step}
          aria-label={n === 0 ? "Ready" : `Step ${n}`}
          minW="44px"
          px="2"
          borderColor="rule"
          title={n === 0 ? "The line laid ready" : knot.steps[n - 1]}
        >
          {n === 0 ? "•" : n}
        </Press>
      ))}
      {knot.drawn && (
        <>
          <Press onClick={steps.play} aria-pressed={steps.playing} minW="84px">
            {steps.playing ? "Pause" : "Play"}
          </Press>
          <Slider
            type="range"
            aria-label="Move the working end"
            min={0}
            max={last}
            step={1 / frames}
            value={steps.step}
            onChange={(e) => steps.go(Number(e.target.value))}
          />
          <Press small aria-pressed={labels} onClick={name}>
            Name the ends
          </Press>
        </>
      )}
    </Flex>
  );
}

function Actions(p: { knot: KnotPage; look: string; view: string; left: boolean; record: () => void }) {
  const { knot, look, view, left, record } = p;
  const role = useRole();
  const own = useQuery({ ...q.knotNotes(), enabled: role !== "learner" }).data?.some(
    (n) => n.knot === knot.id,
  );
  const handout = `/api/v1/knots/${knot.id}/handout`;
  const beside = [...knot.grows_from, ...knot.leads_to][0]?.knot ?? "bowline";
  return (
    <Flex gap="2" mt="4" wrap="wrap">
      <Press asChild look="main">
        <Link to={`/knots/${knot.id}/show${left ? "?hand=left" : ""}`}>▶ Show it</Link>
      </Press>
      {/* A joined learner keeps tries of his own, on his own page. */}
      {role !== "learner" && <Press onClick={record}>Record an attempt</Press>}
      {role !== "learner" && (
        <>
          <Proof knot={knot.id} />
          <InUse knot={knot.id} />
        </>
      )}
      {knot.drill && (
        <Press asChild>
          <Link to={`/knots/${knot.id}/drill`}>Crossing drill</Link>
        </Press>
      )}
      <Press asChild>
        <a href={`${handout}.pdf?look=${look}&left=${left}&view=${view}`} target="_blank" rel="noreferrer">
          Handout to print
        </a>
      </Press>
      {own && (
        <Press asChild>
          <a
            href={`${handout}.pdf?look=${look}&left=${left}&view=${view}&notes=true`}
            target="_blank"
            rel="noreferrer"
          >
            With your notes
          </a>
        </Press>
      )}
      <Press asChild>
        <a href={`${handout}.svg?look=${look}&left=${left}&view=${view}`} download={`${knot.id}.svg`}>
          Handout as a picture file
        </a>
      </Press>
      <Press asChild>
        <Link to={`/compare?a=${knot.id}&b=${beside}`}>Compare</Link>
      </Press>
      <Press asChild>
        <Link to="/">Back to the rig</Link>
      </Press>
    </Flex>
  );
}

function Choice<T extends string>(props: {
  label: string;
  list: readonly { id: T; text: string }[];
  value: T;
  set: (id: T) => void;
}) {
  return (
    <Flex role="group" aria-label={props.label} gap="1" wrap="wrap">
      {props.list.map((o) => (
        <Press
          key={o.id}
          small
          aria-pressed={o.id === props.value}
          onClick={() => props.set(o.id)}
          data-choice={o.id}
        >
          {o.text}
        </Press>
      ))}
    </Flex>
  );
}
