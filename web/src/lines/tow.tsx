import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, unwrap } from "../api/client";
import { useKept } from "../api/hooks";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { reach } from "../ui/format";
import { Cautions, Trouble } from "../ui/notes";
import { Card, Page, Part, Title } from "../ui/page";
import { Paper } from "../ui/paper";
import { Files } from "./files";
import { LinesNav } from "./nav";
import { lq, type TowCard } from "./queries";
import { Threads } from "./threads";
import { TowSheet } from "./tow-edit";
import { Rider, RiderLoad } from "./tow-rider";
import { Scaled } from "./tow-scale";
import { UseSheet } from "./use-sheet";
import { metre, onto } from "./words";

/** Tow lines that are kept: who wants which length behind which boat, and where the line is made fast for it. */
export function TowView() {
  const { data, error } = useQuery(lq.tows());
  const [which, setWhich] = useState(0);
  const [edit, setEdit] = useState<TowCard | "new">();
  const line = data?.find((t) => t.id === which) ?? data?.[0];
  return (
    <Page maxW="1280px">
      <LinesNav />
      <Flex gap="2" align="center" wrap="wrap">
        <Title>Tow lines</Title>
        <Flex gap="2" wrap="wrap" role="group" aria-label="Tow lines" ml={{ md: 4 }}>
          {data?.map((t) => (
            <Press key={t.id} aria-pressed={t.id === line?.id} onClick={() => setWhich(t.id)}>
              {t.name}
            </Press>
          ))}
        </Flex>
        <Box flex="1" />
        <Files kind="tow-lines" />
        <Press look={data?.length === 0 ? "main" : undefined} onClick={() => setEdit("new")}>
          A new tow line
        </Press>
      </Flex>
      <Trouble error={error} />
      {data?.length === 0 && (
        <Card mt="3">
          None is kept yet. For one length alone there is{" "}
          <Link to="/jobs/tow-line" className="link">
            Which take-off
          </Link>
          .
        </Card>
      )}
      {line && <OneLine key={line.id} line={line} edit={() => setEdit(line)} />}
      {edit && <TowSheet line={edit === "new" ? undefined : edit} close={() => setEdit(undefined)} />}
    </Page>
  );
}

function OneLine({ line: t, edit }: { line: TowCard; edit: () => void }) {
  const [at, setAt] = useState(0);
  const [paper, setPaper] = useState<"boat" | "coil">();
  const [use, setUse] = useState(false);
  const rider = t.riders[at];
  const place = t.places[at];
  const last = t.takeoffs_m.at(-1) ?? 0;
  const bare = { takeoffs_m: t.takeoffs_m, takeoff_m: last, take_up_m: 0, want_m: last, hitch: "" };
  const good = place && !place.wrong ? place : undefined;
  const run = useKept((i: number) =>
    unwrap(api.POST("/api/v1/tow-lines/{id}/runs", { params: { path: { id: t.id } }, body: { rider: i } })),
  );
  return (
    <Box data-tow-line={t.name}>
      <Box mt="3">
        <Scaled tow={good ?? bare} on={t.on} say={metre} rubbed={t.rubbed} />
      </Box>
      <Box fontSize="lg" mt="2">
        {t.line_name ? (
          <Link to={`/lines/${t.own}`} className="link">
            {t.line_name}
          </Link>
        ) : (
          "A line"
        )}{" "}
        of {metre(last)}, the shortest take-off at {metre(t.takeoffs_m[0] ?? 0)}, on the {onto[t.on]}
        {t.boat ? ` of the ${t.boat}` : ""}.{" "}
        <Press small onClick={edit}>
          Change
        </Press>
      </Box>
      {[...t.says, ...(t.state?.slice(0, 1) ?? [])].map((s) => (
        <Box
          key={s}
          color={t.says.includes(s) ? "flare" : "quiet"}
          fontWeight={t.says.includes(s) ? 700 : 400}
        >
          {s}
        </Box>
      ))}
      <Grid
        gap="5"
        mt="4"
        templateColumns={{ base: "minmax(0, 1fr)", lg: "440px minmax(0, 1fr)" }}
        alignItems="start"
      >
        <Box role="group" aria-label="Riders">
          {t.riders.map((r, i) => (
            <Rider
              key={`${r.name} ${r.boat ?? ""}`}
              rider={r}
              place={t.places[i]}
              takeoffs={t.takeoffs_m}
              on={i === at}
              press={() => setAt(i)}
            />
          ))}
          {t.riders.length === 0 && (
            <Card>Nobody rides on it yet. Add riders under Change: ask each for his length.</Card>
          )}
          <Flex gap="2" mt="3" wrap="wrap">
            <Press onClick={edit}>Add a rider</Press>
            <Press onClick={() => setPaper("coil")}>Coil card</Press>
            <Press onClick={() => setUse(true)}>Log a use</Press>
          </Flex>
        </Box>
        {rider && place && (
          <Card p="0" overflow="hidden" data-place={rider.name}>
            <Box p="4">
              {place.wrong ? (
                <Box fontSize="lg" fontWeight="700" color="flare" role="alert">
                  {place.wrong}
                </Box>
              ) : (
                <>
                  <Box className="head" fontSize="3xl" lineHeight="1.15">
                    The {metre(place.takeoff_m)} take-off
                    {place.hitch ? `, up ${reach(place.take_up_m)}` : ", as it is"}
                  </Box>
                  <Flex gap="4" mt="2" align="center" wrap={{ base: "wrap", md: "nowrap" }}>
                    <Link to={`/knots/${place.hitch || "loop-through-itself"}`} aria-label="See it tied">
                      <Drawing
                        id={place.hitch || "loop-through-itself"}
                        name={place.hitch || "Loop passed through itself"}
                        drawn
                        w="190px"
                        h="150px"
                      />
                    </Link>
                    <Box>
                      {place.says}
                      <Evidence tag={place.tag} source="take-off less wanted length, along the line" />
                      {rider.kn ? <Box mt="1">{rider.kn} knots wanted: say it back.</Box> : null}
                    </Box>
                  </Flex>
                  <Box mt="3">
                    <Threads on={t.on} says={t.threads} />
                  </Box>
                  <Flex gap="2" mt="3" wrap="wrap">
                    <Press look="main" onClick={() => run.mutate(at)} disabled={run.isPending}>
                      Record a run
                    </Press>
                    <Press onClick={() => setPaper("boat")}>Card for the boat</Press>
                    <Press asChild look="bare">
                      <Link to="/jobs/make-fast-tow">Step by step</Link>
                    </Press>
                  </Flex>
                </>
              )}
              <Trouble error={run.error} />
            </Box>
            <Box bg="flareWash" borderTop="2px solid" borderColor="flare" p="3">
              <Cautions list={t.cautions} />
              <RiderLoad />
            </Box>
          </Card>
        )}
      </Grid>
      {t.runs && t.runs.length > 0 && (
        <Part title="Where hitches sat" mt="5">
          <Flex gap="4" wrap="wrap">
            {t.runs.map((r) => (
              <Box
                key={r.place_m}
                color={t.rubbed.some((x) => x.place_m === r.place_m) ? "flare" : undefined}
              >
                {metre(r.place_m)}: {r.n} {r.n === 1 ? "run" : "runs"}
              </Box>
            ))}
          </Flex>
        </Part>
      )}
      {paper === "boat" && place && rider && (
        <Paper name="tow-card" close={() => setPaper(undefined)}>
          <Box maxW="720px">
            <Box className="head" fontSize="30px">
              {rider.name}: {metre(rider.want_m)}
              {rider.kn ? ` at ${rider.kn} knots` : ""}
            </Box>
            <Box className="head" fontSize="24px">
              The {metre(place.takeoff_m)} take-off
              {place.hitch ? `, up ${reach(place.take_up_m)}` : ", as it is"}
            </Box>
            <Scaled tow={place} on={t.on} say={metre} />
            <Box mt="2">{place.says}</Box>
            <Threads on={t.on} says={t.threads} />
            <Box mt="3">
              {t.cautions.map((c) => (
                <Box key={c.id}>{c.text}</Box>
              ))}
            </Box>
          </Box>
        </Paper>
      )}
      {paper === "coil" && (
        <Paper name="coil-card" close={() => setPaper(undefined)}>
          <Box maxW="640px">
            <Box className="head" fontSize="30px">
              {t.name}, {metre(last)}
            </Box>
            <svg viewBox="0 0 400 170" width="400" role="img" aria-label="Coils with the handle on top">
              {[0, 1, 2, 3].flatMap((i) =>
                (
                  [
                    ["#573a0d", 9],
                    ["#dc9a35", 5.5],
                  ] as const
                ).map(([stroke, wide]) => (
                  <ellipse
                    key={`${i} ${stroke}`}
                    cx="200"
                    cy={112 - 13 * i}
                    rx="128"
                    ry="38"
                    fill="none"
                    stroke={stroke}
                    strokeWidth={wide}
                  />
                )),
              )}
              <path d="M312 60q14 -30 -12 -50" fill="none" stroke="#573a0d" strokeWidth="9" />
              <path d="M312 60q14 -30 -12 -50" fill="none" stroke="#dc9a35" strokeWidth="5.5" />
              <path d="M278 8h44" stroke="#111" strokeWidth="9" strokeLinecap="round" />
            </svg>
            <Box fontSize="20px">
              <strong>{t.coils} coils of 40 cm.</strong> From the boat's end, the handle last and on top; half
              a twist to each.
            </Box>
            <Box mt="2">
              Take-offs at {t.takeoffs_m.map(metre).join(", ")} from the handle. While you coil, feel the
              cover
              {t.rubbed.length > 0
                ? `, most of all at ${t.rubbed.map((r) => metre(r.place_m)).join(" and ")}`
                : ""}
              , and look at every loop.
            </Box>
          </Box>
        </Paper>
      )}
      {use && (
        <UseSheet line={t.own} knot={place?.hitch || undefined} rig={t.name} close={() => setUse(false)} />
      )}
    </Box>
  );
}
