import { Box, Flex } from "@chakra-ui/react";
import { type ReactNode, useEffect, useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import type { KnotPage, Schemas } from "../api/client";
import { useAttempts, useCatalogue, useKnot } from "../api/hooks";
import { AttemptDialog } from "../log/attempt";
import { Press } from "../ui/button";
import { Drawing, FaultDrawing, type Look } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { capital, range, seconds } from "../ui/format";
import { isTyping } from "../ui/keys";
import { Cautions, Trouble } from "../ui/notes";

const views = [
  { id: "tie", text: "As you tie it", says: "seen as you tie it" },
  { id: "across", text: "From across", says: "seen from behind, by someone facing you" },
  { id: "left", text: "Left-handed", says: "mirror image, for a left-handed tyer" },
  { id: "opposite", text: "Across a table", says: "the same drawing turned half round" },
] as const;

/** Pictures between two steps when playing or scrubbing. */
const frames = 8;

const looks = [
  { id: "laid", text: "Laid" },
  { id: "braid", text: "Braid" },
  { id: "mono", text: "Mono" },
] as const;

/** A knot: the drawing is the page. */
export function KnotView() {
  const { id = "" } = useParams();
  const { data, error } = useKnot(id);
  useEffect(() => {
    if (data) document.title = `${data.name} · Oarweed`;
  }, [data]);
  if (error) {
    return (
      <Box as="main" p="6">
        <Trouble error={error} />
        <Link to="/knots">
          <Press mt="4" as="span">
            All knots
          </Press>
        </Link>
      </Box>
    );
  }
  if (!data) return <Box p="6">Loading…</Box>;
  return <Page key={id} knot={data} />;
}

function Page({ knot }: { knot: KnotPage }) {
  const last = knot.steps.length;
  const [params, setParams] = useSearchParams();
  const [attempt, setAttempt] = useState(false);
  const clamp = (n: number) => Math.min(Math.max(n, 0), last);
  // Kept here and not only in the address, so that quick presses all count.
  const [step, setStep] = useState(() => clamp(Number(params.get("step") ?? 1) || 0));
  const view = views.find((v) => v.id === params.get("view")) ?? views[0];
  const look = looks.find((l) => l.id === params.get("look")) ?? looks[knot.kind === "terminal" ? 2 : 0];
  const labels = params.get("names") === "1";
  const set = (key: string, value: string) => {
    const next = new URLSearchParams(params);
    next.set(key, value);
    setParams(next, { replace: true });
  };
  const [playing, setPlaying] = useState(false);
  const go = (to: number) => {
    setPlaying(false);
    setStep(clamp(to));
  };
  // Playing, the working end travels from step to step and stops at the last.
  useEffect(() => {
    if (!playing) return;
    if (step >= last) return setPlaying(false);
    const tick = setTimeout(
      () => setStep((now) => Math.min(now + 1 / frames, last)),
      Number.isInteger(step) ? 700 : 90,
    );
    return () => clearTimeout(tick);
  }, [playing, step, last]);
  const shown = Math.ceil(step - 1e-9);
  const by = (steps: number) => {
    setPlaying(false);
    setStep((now) => clamp(steps > 0 ? Math.floor(now + 1e-9) + 1 : Math.ceil(now - 1e-9) - 1));
  };
  useEffect(() => {
    if (!playing && params.get("step") !== String(step)) set("step", String(step));
  });
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (isTyping(e)) return;
      const v = views[Number(e.key) - 1];
      if (e.key === "ArrowRight") by(1);
      else if (e.key === "ArrowLeft") by(-1);
      else if (v) set("view", v.id);
      else if (e.key === "a") setAttempt(true);
      else if (e.key === "p") setPlaying(!playing);
      else return;
      e.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  });
  return (
    <Box as="main" w="100%" maxW="1360px" mx="auto" px={{ base: 3, md: 6 }} py="4">
      <Flex align="baseline" gap="4" wrap="wrap">
        <Box as="h1" fontSize={{ base: "28px", md: "34px" }}>
          {knot.name}
        </Box>
        <Box color="quiet">
          {knot.summary}
          {knot.also?.length ? ` Also: ${knot.also.join(", ")}.` : ""}
        </Box>
      </Flex>
      <Flex gap="6" mt="3" direction={{ base: "column", lg: "row" }} align="flex-start">
        <Box flex="1.5" w="100%" minW="0">
          <Box
            position="relative"
            bg="sheet"
            border="2px solid"
            borderColor="rule"
            borderRadius="14px"
            overflow="hidden"
            onTouchStart={swipe(by)}
          >
            <Drawing
              id={knot.id}
              name={knot.name}
              drawn={knot.drawn}
              options={{ step, view: view.id, look: look.id, labels, ghost: step < last }}
              h={{ base: "330px", md: "430px" }}
              p="4"
              data-step={step}
            />
            {knot.drawn && (
              <Box
                position="absolute"
                left="14px"
                bottom="10px"
                fontSize="14px"
                color="quiet"
                bg="sheet"
                px="2"
                borderRadius="6px"
              >
                {capital(view.says)}
              </Box>
            )}
          </Box>
          <Flex gap="3" mt="3" align="stretch">
            <Press onClick={() => by(-1)} disabled={step === 0} minW="56px" aria-label="Step back">
              ◀
            </Press>
            <Flex
              flex="1"
              bg="amberWash"
              borderRadius="10px"
              px="4"
              py="2"
              align="center"
              gap="3"
              minH="66px"
              aria-live="polite"
              data-testid="step-text"
            >
              <Box className="head" fontSize="24px" whiteSpace="nowrap">
                {shown} / {last}
              </Box>
              <Box fontSize={{ base: "16px", md: "18px" }} lineHeight="1.3">
                {shown === 0 ? "The line laid ready." : knot.steps[shown - 1]}
              </Box>
            </Flex>
            <Press
              onClick={() => by(1)}
              disabled={step === last}
              look="main"
              minW="56px"
              aria-label="Step on"
            >
              ▶
            </Press>
          </Flex>
          <Flex as="nav" aria-label="Steps" gap="1" mt="2" wrap="wrap">
            {[...Array(last + 1).keys()].map((n) => (
              <Press
                key={n}
                onClick={() => go(n)}
                aria-pressed={n === step}
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
                <Press
                  onClick={() => {
                    if (step >= last) setStep(0);
                    setPlaying(!playing);
                  }}
                  aria-pressed={playing}
                  minW="84px"
                >
                  {playing ? "Pause" : "Play"}
                </Press>
                <input
                  type="range"
                  aria-label="Move the working end"
                  min={0}
                  max={last}
                  step={1 / frames}
                  value={step}
                  onChange={(e) => go(Number(e.target.value))}
                  style={{ flex: 1, minWidth: 110, minHeight: 44, accentColor: "var(--kelp)" }}
                />
              </>
            )}
            {knot.drawn && (
              <Press
                aria-pressed={labels}
                onClick={() => set("names", labels ? "0" : "1")}
                px="3"
                fontSize="15px"
              >
                Name the ends
              </Press>
            )}
          </Flex>
          {knot.drawn && (
            <Flex columnGap="4" rowGap="2" mt="2" wrap="wrap">
              <Choice label="Seen" list={views} value={view.id} set={(v) => set("view", v)} />
              <Choice label="Line" list={looks} value={look.id} set={(v) => set("look", v)} />
            </Flex>
          )}
          <Flex gap="2" mt="4" wrap="wrap">
            <Press onClick={() => setAttempt(true)} look="main">
              Record an attempt
            </Press>
            {knot.drill && (
              <Link to={`/knots/${knot.id}/drill`}>
                <Press as="span">Crossing drill</Press>
              </Link>
            )}
            <a href={`/api/knots/${knot.id}/handout.pdf?look=${look.id}`} target="_blank" rel="noreferrer">
              <Press as="span">Handout to print</Press>
            </a>
            <a href={`/api/knots/${knot.id}/handout.svg?look=${look.id}`} download={`${knot.id}.svg`}>
              <Press as="span">Handout as SVG</Press>
            </a>
            <Link
              to={`/compare?a=${knot.id}&b=${[...knot.grows_from, ...knot.leads_to][0]?.knot ?? "bowline"}`}
            >
              <Press as="span">Compare</Press>
            </Link>
            <Link to="/">
              <Press as="span">Back to the rig</Press>
            </Link>
          </Flex>
          <Recent knot={knot.id} />
        </Box>
        <Box flex="1" w="100%" minW="0">
          <Part title="Right when">
            {knot.checks.map((c) => (
              <Flex key={c} gap="2" py="0.5">
                <Box color="glass" fontWeight="700" aria-hidden>
                  ✓
                </Box>
                {c}
              </Flex>
            ))}
          </Part>
          <Part title="What goes wrong">
            {knot.faults.map((f) => (
              <Flex key={f.code} py="1.5" gap="3" borderTop="1px solid" borderColor="rule">
                <Box flex="1">
                  <Box fontWeight="700">
                    <Box as="span" color="flare" aria-hidden>
                      ✕{" "}
                    </Box>
                    {f.name}
                  </Box>
                  <Box fontSize="15.5px">
                    {capital(f.looks)}; {f.leads}. <strong>Put right:</strong> {f.mend}
                  </Box>
                </Box>
                {f.drawing && <LookAlike knot={knot} fault={f} look={look.id} />}
              </Flex>
            ))}
          </Part>
          <Part title="Numbers">
            <Numbers knot={knot} />
          </Part>
          <Part title="For and against">
            {Object.values(knot.tasks)
              .sort((a, b) => b.fit - a.fit)
              .map((t) => (
                <Box key={t.why} py="0.5">
                  {t.fit >= 0.7 ? "● " : t.fit >= 0.4 ? "◐ " : "○ "}
                  {capital(t.why)}.
                </Box>
              ))}
            {knot.ratio && (
              <Box py="0.5">
                Lines from {knot.ratio.min} to {knot.ratio.max} to 1: {knot.ratio.why}.
              </Box>
            )}
            <Box py="0.5">Shaken: {knot.shake.why}.</Box>
          </Part>
          {knot.grows_from.length + knot.leads_to.length > 0 && (
            <Part title="Shares its structure">
              {knot.grows_from.map((r) => (
                <Box key={r.knot} py="0.5">
                  Grows out of the <Kin {...r} />
                </Box>
              ))}
              {knot.leads_to
                .filter((r) => !knot.grows_from.some((g) => g.knot === r.knot))
                .map((r) => (
                  <Box key={r.knot} py="0.5">
                    Leads to the <Kin {...r} />
                  </Box>
                ))}
            </Part>
          )}
          <Box mt="4">
            <Cautions list={knot.caution_texts} />
          </Box>
        </Box>
      </Flex>
      <AttemptDialog knot={attempt ? knot.id : ""} close={() => setAttempt(false)} />
    </Box>
  );
}

function Kin(r: KnotPage["grows_from"][number]) {
  return (
    <>
      <Link to={`/knots/${r.knot}`} style={{ textDecoration: "underline", textUnderlineOffset: 4 }}>
        {r.name.toLowerCase()}
      </Link>
      : {r.why}.
    </>
  );
}

/** The knot and its faulty look-alike side by side; the difference is ringed. */
function LookAlike({ knot, fault, look }: { knot: KnotPage; fault: KnotPage["faults"][number]; look: Look }) {
  const frame = {
    w: "104px",
    h: "104px",
    bg: "sheet",
    borderRadius: "8px",
    p: "1",
    border: "1.5px solid",
  } as const;
  return (
    <Flex gap="1" flex="none" data-lookalike={fault.code}>
      <Box
        textAlign="center"
        fontSize="13px"
        color="glass"
        fontWeight="700"
        display={{ base: "none", xl: "block" }}
      >
        <Drawing id={knot.id} name={knot.name} drawn options={{ look }} {...frame} borderColor="glass" />✓
        right
      </Box>
      <Box textAlign="center" fontSize="13px" color="flare" fontWeight="700">
        <FaultDrawing id={fault.drawing ?? ""} look={look} {...frame} borderColor="flare" />✕ wrong
      </Box>
    </Flex>
  );
}

/** A sideways swipe: 1 to go on, −1 to go back. */
function swipe(turn: (by: number) => void) {
  return (e: React.TouchEvent) => {
    const from = e.touches[0]?.clientX ?? 0;
    e.currentTarget.addEventListener(
      "touchend",
      (end) => {
        const by = ((end as TouchEvent).changedTouches[0]?.clientX ?? from) - from;
        if (Math.abs(by) > 40) turn(by < 0 ? 1 : -1);
      },
      { once: true },
    );
  };
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
          aria-pressed={o.id === props.value}
          onClick={() => props.set(o.id)}
          px="3"
          fontSize="15px"
          data-choice={o.id}
        >
          {o.text}
        </Press>
      ))}
    </Flex>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box mb="5">
      <Box as="h2" fontSize="20px" mb="1">
        {title}
      </Box>
      {children}
    </Box>
  );
}

type Names = (id: string) => string;

function materials(e: { materials?: string[] }, name: Names): string {
  return e.materials?.length ? ` in ${e.materials.map(name).join(", ")}` : "";
}

function Numbers({ knot }: { knot: KnotPage }) {
  const catalogue = useCatalogue().data;
  const name: Names = (id) => catalogue?.materials.find((m) => m.id === id)?.name ?? id;
  const row = (
    name: string,
    value: string,
    figure?: { tag: Schemas["EvidenceFigure"]["tag"]; source?: string },
  ) => (
    <Flex key={name} py="0.5" gap="2" align="center" borderTop="1px solid" borderColor="rule">
      <Box flex="1">{name}</Box>
      <Box fontWeight="700" whiteSpace="nowrap">
        {value}
      </Box>
      <Box w="100px">{figure && <Evidence tag={figure.tag} source={figure.source} />}</Box>
    </Flex>
  );
  const percent = (v: number) => `${Math.round(v * 100)} %`;
  return (
    <>
      {knot.efficiency.map((e) =>
        row(
          `Strength kept${materials(e, name)}`,
          range({ ...e.value, tag: e.tag, source: e.source }, percent),
          {
            tag: e.tag,
            source: e.source,
          },
        ),
      )}
      {knot.hold?.map((h) =>
        row(`Hold${materials(h, name)}: dry, wet`, h.dry === h.wet ? h.dry : `${h.dry}, ${h.wet}`, {
          tag: h.tag,
          source: h.why,
        }),
      )}
      {knot.network &&
        row("Hold", "by friction", {
          tag: "computed",
          source: "worked out in the rig from line, object and friction (riding-turn theory)",
        })}
      {row(
        "Tail",
        range(knot.tail, (v) => `${v} diameters`),
        knot.tail,
      )}
      {row("Time, practised", range(knot.seconds, seconds), knot.seconds)}
      {row("Hard to learn", `${knot.difficulty} of 5`, { tag: "trade", source: "our own judgement" })}
      {row("Easy to check", `${knot.inspect} of 5`, { tag: "trade", source: "our own judgement" })}
      {knot.wraps &&
        row(
          "Wraps",
          knot.wraps.rules
            .map((r) => (r.up_to_lb ? `${r.n} to ${r.up_to_lb} lb` : `${r.n} above`))
            .join(", "),
          knot.wraps.loss,
        )}
      <Box borderTop="1px solid" borderColor="rule" pt="1">
        <strong>Coming off:</strong> {knot.release.how}
      </Box>
    </>
  );
}

function Recent({ knot }: { knot: string }) {
  const { data } = useAttempts(knot);
  if (!data?.length) return null;
  return (
    <Box mt="4" fontSize="15.5px" data-testid="recent">
      <Box as="h2" fontSize="18px" mb="1">
        Last attempts
      </Box>
      {data.slice(0, 4).map((a) => (
        <Box key={a.id}>
          {a.learner}: {a.outcome}
          {a.seconds ? `, ${seconds(a.seconds)}` : ""}
          {a.conditions !== "dry" ? `, ${a.conditions}` : ""}
        </Box>
      ))}
    </Box>
  );
}
