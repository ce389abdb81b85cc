import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, type Schemas, unwrap } from "../api/client";
import { useCatalogue, useKept } from "../api/hooks";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { typedNumber as number, reach } from "../ui/format";
import { Cautions, Trouble } from "../ui/notes";
import { Card, Page, Part, Title } from "../ui/page";
import { Paper } from "../ui/paper";
import { Pick, Typed } from "../ui/pick";
import { Sheet } from "../ui/sheet";
import { Files } from "./files";
import { LinesNav } from "./nav";
import { lq, type TowBook, type TowCard } from "./queries";
import { Threads } from "./threads";
import { Scaled } from "./tow-scale";
import { UseSheet } from "./use-sheet";
import { byLabel } from "./words";

/** A length as typed: metres, or feet where it says so. */
const metres = (text: string) =>
  /(ft|feet|')\s*$/i.test(text)
    ? Math.round(30480 * number(text.replace(/[^\d.,].*$/, ""))) / 1e5
    : number(text.replace(/\s*m\s*$/, ""));

const m = (v: number) => `${Number(v.toFixed(2))} m`;
const onto = { pylon: "pylon", tower: "tower", hook: "open hook", eye: "closed eye" } as const;

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
      {edit && <Edit line={edit === "new" ? undefined : edit} close={() => setEdit(undefined)} />}
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
        <Scaled tow={good ?? bare} on={t.on} say={m} rubbed={t.rubbed} />
      </Box>
      <Box fontSize="lg" mt="2">
        {t.line_name ? (
          <Link to={`/lines/${t.own}`} className="link">
            {t.line_name}
          </Link>
        ) : (
          "A line"
        )}{" "}
        of {m(last)}, the shortest take-off at {m(t.takeoffs_m[0] ?? 0)}, on the {onto[t.on]}
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
                    The {m(place.takeoff_m)} take-off
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
                {m(r.place_m)}: {r.n} {r.n === 1 ? "run" : "runs"}
              </Box>
            ))}
          </Flex>
        </Part>
      )}
      {paper === "boat" && place && rider && (
        <Paper name="tow-card" close={() => setPaper(undefined)}>
          <Box maxW="720px">
            <Box className="head" fontSize="30px">
              {rider.name}: {m(rider.want_m)}
              {rider.kn ? ` at ${rider.kn} knots` : ""}
            </Box>
            <Box className="head" fontSize="24px">
              The {m(place.takeoff_m)} take-off{place.hitch ? `, up ${reach(place.take_up_m)}` : ", as it is"}
            </Box>
            <Scaled tow={place} on={t.on} say={m} />
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
              {t.name}, {m(last)}
            </Box>
            <svg viewBox="0 0 400 170" width="400" role="img" aria-label="Coils with the handle on top">
              {[0, 1, 2, 3].map((i) => (
                <ellipse
                  key={i}
                  cx="200"
                  cy={104 - 7 * i}
                  rx={130 - 4 * i}
                  ry={44 - 2 * i}
                  fill="none"
                  stroke="#573a0d"
                  strokeWidth="9"
                />
              ))}
              <path d="M300 70q30 -40 0 -60" fill="none" stroke="#573a0d" strokeWidth="6" />
              <path d="M278 8h44" stroke="#111" strokeWidth="9" strokeLinecap="round" />
            </svg>
            <Box fontSize="20px">
              <strong>{t.coils} coils of 40 cm.</strong> From the boat's end, the handle last and on top; half
              a twist to each.
            </Box>
            <Box mt="2">
              Take-offs at {t.takeoffs_m.map(m).join(", ")} from the handle. While you coil, feel the cover
              {t.rubbed.length > 0
                ? `, most of all at ${t.rubbed.map((r) => m(r.place_m)).join(" and ")}`
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

/** A rider's load is worked out from the helm's own figures: nobody publishes them. */
function RiderLoad() {
  const [f, setF] = useState({ force: "300 N", mass: "95", speed: "6.7", seconds: "4" });
  const set = (part: Partial<typeof f>) => setF((now) => ({ ...now, ...part }));
  const { data, error } = useQuery({
    queryKey: ["rider-load", f],
    queryFn: () =>
      unwrap(
        api.GET("/api/v1/loads/{kind}", {
          params: {
            path: { kind: "rider" },
            query: {
              force: f.force,
              mass: number(f.mass),
              speed: number(f.speed),
              seconds: number(f.seconds),
            },
          },
        }),
      ),
    retry: false,
  });
  return (
    <details style={{ marginTop: "8px" }}>
      <summary style={{ minHeight: "44px", display: "flex", alignItems: "center", cursor: "pointer" }}>
        What the rider asks of the line: worked out, approved by nobody
      </summary>
      <Grid gap="2" templateColumns={{ base: "1fr 1fr", md: "repeat(4, 1fr)" }}>
        <Typed label="Steady pull" value={f.force} set={(force) => set({ force })} />
        <Typed label="Rider and board, kg" value={f.mass} set={(mass) => set({ mass })} />
        <Typed label="Speed, m/s" value={f.speed} set={(speed) => set({ speed })} />
        <Typed label="Start takes, s" value={f.seconds} set={(seconds) => set({ seconds })} />
      </Grid>
      <Trouble error={error} />
      {data && (
        <Box mt="2">
          {data.says}
          <Evidence tag={data.load_kn.tag} source={data.load_kn.source} />
        </Box>
      )}
    </details>
  );
}

/** A rider with the length he wants, drawn on the line's own scale. */
function Rider(p: {
  rider: TowBook["riders"][number];
  place: TowCard["places"][number] | undefined;
  takeoffs: number[];
  on: boolean;
  press: () => void;
}) {
  const { rider, place, takeoffs } = p;
  const last = Math.max(...takeoffs);
  // The end with the take-offs fills the row: from two spacings before the shortest.
  const first = Math.max(0, (takeoffs[0] ?? 0) - 0.35 * (last - (takeoffs[0] ?? 0) || last));
  const x = (v: number) => 6 + (168 * (v - first)) / (last - first || 1);
  const want = Math.min(Math.max(rider.want_m, first), last);
  return (
    <Press
      w="100%"
      mt="2"
      justifyContent="flex-start"
      textAlign="left"
      aria-pressed={p.on}
      onClick={p.press}
      gap="3"
      py="2"
      data-rider={rider.name}
      css={{
        "&[aria-pressed=true]": { background: "var(--sheet)", color: "var(--ink)", borderWidth: "3px" },
      }}
    >
      <Box w={{ base: "62px", sm: "86px" }} flex="none" minW="0">
        <Box fontWeight="700" overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
          {rider.name}
        </Box>
        {rider.boat && (
          <Box fontSize="sm" color="quiet" overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
            {rider.boat}
          </Box>
        )}
      </Box>
      <Box className="head" fontSize="xl" w="56px" flex="none" textAlign="right">
        {rider.want_m.toFixed(1)}
      </Box>
      <svg viewBox="0 0 180 40" style={{ flex: "1 1 60px", minWidth: 0 }} aria-hidden="true">
        <path d="M0 16H178" stroke="var(--rope-1-edge)" strokeWidth="7" />
        <path d="M0 16H178" stroke="var(--rope-1)" strokeWidth="4.4" />
        {takeoffs.map((v) => (
          <ellipse
            key={v}
            cx={x(v)}
            cy="27"
            rx="4.4"
            ry="7"
            fill="none"
            stroke={place && !place.wrong && v === place.takeoff_m ? "var(--flare)" : "var(--rope-1-edge)"}
            strokeWidth={place && !place.wrong && v === place.takeoff_m ? 3.4 : 2.2}
          />
        ))}
        <path
          d={`M${x(want)} 17V4M${x(want) - 5} 2H${x(want) + 5}L${x(want)} 9Z`}
          stroke="var(--ink)"
          fill="var(--ink)"
        />
      </svg>
      <Box w={{ base: "96px", sm: "112px" }} flex="none" fontSize="sm" whiteSpace="normal" lineHeight="1.25">
        {place?.wrong ? (
          <Box color="flare">longer than it reaches</Box>
        ) : (
          <>
            <strong>{m(place?.takeoff_m ?? 0)}</strong>
            <br />
            {place?.hitch ? `take up ${reach(place.take_up_m)}` : "as it is"}
          </>
        )}
      </Box>
    </Press>
  );
}

function Edit({ line: t, close }: { line: TowCard | undefined; close: () => void }) {
  const locker = (useQuery(lq.locker()).data ?? []).filter((l) => !l.retired && !byLabel(l));
  const materials = useCatalogue().data?.materials.filter((x) => !x.fishing) ?? [];
  const [f, setF] = useState({
    name: t?.name ?? "",
    boat: t?.boat ?? "",
    on: t?.on ?? ("pylon" as TowBook["on"]),
    own: t?.own ?? "",
    material: t?.line.material ?? "hmpe",
    mm: t?.line.diameter_mm ? String(t.line.diameter_mm) : "6",
    shortest: "18.3",
    every: "1.5",
    count: "6",
    takeoffs: t ? t.takeoffs_m.map((v) => `${v}`).join(", ") : "",
  });
  const set = (part: Partial<typeof f>) => setF((now) => ({ ...now, ...part }));
  const [riders, setRiders] = useState(
    (t?.riders ?? []).map((r) => ({
      name: r.name,
      boat: r.boat ?? "",
      want: String(r.want_m),
      kn: r.kn ? String(r.kn) : "",
    })),
  );
  const spaced = Array.from(
    { length: Math.max(0, Math.min(60, Math.round(number(f.count)))) },
    (_, i) => Math.round(1000 * (metres(f.shortest) + i * metres(f.every))) / 1000,
  );
  const save = useKept((body: TowBook) =>
    t
      ? unwrap(
          api.PUT("/api/v1/tow-lines/{id}", {
            params: { path: { id: t.id }, header: { "If-Match": `"${t.revision}"` } },
            body,
          }),
        )
      : unwrap(api.POST("/api/v1/tow-lines", { body })),
  );
  const remove = useKept((id: number) =>
    unwrap(api.DELETE("/api/v1/tow-lines/{id}", { params: { path: { id } } })),
  );
  const send = () => {
    const own = locker.find((l) => l.code === f.own);
    save.mutate(
      {
        id: t?.id ?? 0,
        revision: t?.revision ?? 0,
        name: f.name,
        boat: f.boat || undefined,
        on: f.on,
        own: f.own || undefined,
        line: own
          ? {
              material: own.material,
              construction: own.construction,
              diameter_mm: own.diameter_mm,
              label_kn: own.label_kn,
            }
          : { material: f.material, diameter_mm: number(f.mm) },
        takeoffs_m: f.takeoffs.trim()
          ? f.takeoffs
              .split(/;|,(?=\s)|\s+(?=\d)/)
              .filter(Boolean)
              .map(metres)
          : spaced,
        riders: riders.map((r) => ({
          name: r.name,
          boat: r.boat || undefined,
          want_m: metres(r.want),
          kn: r.kn ? number(r.kn) : undefined,
        })),
        runs: t?.runs,
      } as Schemas["TowlineBook"],
      { onSuccess: close },
    );
  };
  return (
    <Sheet
      open
      firm
      wide
      close={close}
      title={t ? t.name : "A new tow line"}
      foot={
        <>
          <Press onClick={close}>Leave it</Press>
          <Press look="main" onClick={send} disabled={save.isPending}>
            Keep it
          </Press>
        </>
      }
    >
      <Grid gap="3" templateColumns={{ base: "1fr", sm: "1fr 1fr", md: "1fr 1fr 1fr" }}>
        <Typed label="Name" value={f.name} set={(name) => set({ name })} />
        <Typed label="Boat" value={f.boat} set={(boat) => set({ boat })} />
        <Pick
          label="Made fast to"
          value={f.on}
          set={(on) => set({ on: on as TowBook["on"] })}
          list={Object.entries(onto).map(([id, name]) => ({
            id,
            name: `a ${name}`.replace("a open", "an open"),
          }))}
        />
        <Pick
          label="Line of the locker"
          any="none"
          value={f.own}
          set={(own) => set({ own })}
          list={locker.map((l) => ({ id: l.code ?? "", name: l.name }))}
        />
        {!f.own && (
          <>
            <Pick
              label="Material"
              value={f.material}
              set={(material) => set({ material })}
              list={materials}
            />
            <Typed label="Diameter, mm" value={f.mm} set={(mm) => set({ mm })} />
          </>
        )}
      </Grid>
      <Part title="Take-offs, from the handle" mt="4">
        {!t && (
          <Grid gap="3" templateColumns="1fr 1fr 1fr">
            <Typed label="Shortest, m or ft" value={f.shortest} set={(shortest) => set({ shortest })} />
            <Typed label="Every, m or ft" value={f.every} set={(every) => set({ every })} />
            <Typed label="How many" value={f.count} set={(count) => set({ count })} />
          </Grid>
        )}
        <Box mt="2">
          <Typed
            label={t ? "Lengths, m or ft" : "or each length, m or ft"}
            value={f.takeoffs}
            set={(takeoffs) => set({ takeoffs })}
          />
        </Box>
        {!t && !f.takeoffs && <Box color="quiet">{spaced.map(m).join(", ")}</Box>}
      </Part>
      <Part title="Riders: ask each for his length, say it back" mt="4">
        {riders.map((r, i) => {
          const one = (part: Partial<typeof r>) =>
            setRiders(riders.map((x, k) => (k === i ? { ...x, ...part } : x)));
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: two riders may have one name while it is typed.
            <Grid
              key={i}
              gap="2"
              mt="1"
              templateColumns={{ base: "1fr 1fr", md: "2fr 2fr 1fr 1fr auto" }}
              alignItems="end"
            >
              <Typed label="Rider" value={r.name} set={(name) => one({ name })} />
              <Typed label="Behind which boat" value={r.boat} set={(boat) => one({ boat })} />
              <Typed label="Wants, m or ft" value={r.want} set={(want) => one({ want })} />
              <Typed label="Knots" value={r.kn} set={(kn) => one({ kn })} />
              <Press
                look="bare"
                aria-label={`Remove ${r.name || "this rider"}`}
                onClick={() => setRiders(riders.filter((_, k) => k !== i))}
              >
                ✕
              </Press>
            </Grid>
          );
        })}
        <Press
          small
          mt="2"
          onClick={() => setRiders([...riders, { name: "", boat: f.boat, want: "", kn: "" }])}
        >
          Add a rider
        </Press>
      </Part>
      <Trouble error={save.error ?? remove.error} />
      {t && (
        <Press look="bare" onClick={() => remove.mutate(t.id, { onSuccess: close })}>
          Remove this tow line
        </Press>
      )}
    </Sheet>
  );
}
