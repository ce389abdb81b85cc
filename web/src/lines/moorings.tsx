import { Box, Flex, Grid } from "@chakra-ui/react";
import { queryOptions, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../api/client";
import { useCatalogue, useKept, useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Evidence } from "../ui/evidence";
import { typedNumber as number } from "../ui/format";
import { Cautions, Trouble } from "../ui/notes";
import { Page, Part, Title } from "../ui/page";
import { Paper } from "../ui/paper";
import { Pick, Typed } from "../ui/pick";
import { useAfloat, WindStrip } from "./afloat";
import { Berth } from "./berth";
import { Files } from "./files";
import { MooredLine } from "./moored-line";
import { bearing, Order, Slide } from "./moored-parts";
import { LinesNav } from "./nav";
import { type Berth as BerthRecord, lq, type Plan } from "./queries";

type Line = Schemas["RigLine"];
const kinds = { alongside: "Alongside, port side to", posts: "Between four posts" } as const;

/** A plan for a boat as she usually lies, worked out on the server. */
const usual = (boat: Schemas["MooringBoat"], kind: keyof typeof kinds, line: Line) =>
  queryOptions({
    queryKey: [...q.taught(), "usual-berth", boat, kind, line],
    queryFn: () => unwrap(api.POST("/api/v1/moorings/usual", { body: { boat, kind, line } })),
    retry: false,
  });

/** What each line bears, which wind the berth stands, who does what in which order. */
export function MooringsView() {
  const catalogue = useCatalogue().data;
  const berths = useQuery(lq.berths()).data ?? [];
  const afloat = useAfloat();
  const [f, setF] = useState({
    loa: "9",
    beam: "3",
    t: "4",
    side: "",
    material: "polyamide",
    construction: "laid" as Line["construction"],
    mm: "14",
  });
  const [kind, setKind] = useState<keyof typeof kinds>("alongside");
  const [wind, setWind] = useState({ kn: 25, from: 300 });
  const [follow, setFollow] = useState(false);
  /** The plan once it is another than the usual one. */
  const [own, setOwn] = useState<Plan>();
  const [from, setFrom] = useState<BerthRecord>();
  const [name, setName] = useState("");
  const [heading, setHeading] = useState("");
  const [at, setAt] = useState(0);
  const [paper, setPaper] = useState(false);
  const boat = {
    loa_m: number(f.loa),
    beam_m: number(f.beam),
    displacement_t: number(f.t),
    side_m2: f.side ? number(f.side) : undefined,
  };
  const line = { material: f.material, construction: f.construction, diameter_mm: number(f.mm) } as Line;
  const laid = useLasting(usual(boat, kind, line));
  const base = own ?? laid.data;
  // A wind from north says nothing of the bow until its heading is known.
  const told = afloat?.wind.known && (afloat.wind.relative || number(heading) > 0) ? afloat.wind : undefined;
  const live = follow ? told : undefined;
  const blows = live
    ? {
        kn: Math.round(live.kn),
        from: Math.round(live.relative ? live.from_deg : (live.from_deg - number(heading) + 360) % 360),
      }
    : wind;
  const plan = base && { ...base, boat, wind: { kn: blows.kn, from_deg: blows.from } };
  const solved = useLasting({ ...lq.moor(plan as Plan), enabled: Boolean(plan) });
  const { data, error } = solved;
  const set = (part: Partial<typeof f>) => setF((now) => ({ ...now, ...part }));
  /** A line of the boat that is changed for all of them that are not of the locker. */
  const all = (part: Partial<typeof f>) => {
    const next = { ...f, ...part };
    setF(next);
    if (own)
      setOwn({
        ...own,
        lines: own.lines.map((l) =>
          l.own
            ? l
            : {
                ...l,
                line: {
                  material: next.material,
                  construction: next.construction,
                  diameter_mm: number(next.mm),
                } as Line,
              },
        ),
      });
  };
  const change = (i: number, part: Partial<Schemas["MooringLine"]>) =>
    base && setOwn({ ...base, lines: base.lines.map((l, k) => (k === i ? { ...l, ...part } : l)) });
  const open = (b: BerthRecord) => {
    setFrom(b);
    setOwn({ boat: b.boat, wind: b.wind, lines: b.lines });
    set({
      loa: String(b.boat.loa_m),
      beam: String(b.boat.beam_m),
      t: String(b.boat.displacement_t),
      side: b.boat.side_m2 ? String(b.boat.side_m2) : "",
    });
    setWind({ kn: b.wind.kn, from: b.wind.from_deg });
    setName(b.name);
    setHeading(b.heading_deg ? String(b.heading_deg) : "");
    setAt(0);
  };
  const save = useKept((b: BerthRecord) =>
    b.id
      ? unwrap(
          api.PUT("/api/v1/moorings/{id}", {
            params: { path: { id: b.id }, header: { "If-Match": `"${b.revision}"` } },
            body: b,
          }),
        )
      : unwrap(api.POST("/api/v1/moorings", { body: b })),
  );
  const remove = useKept((id: number) =>
    unwrap(api.DELETE("/api/v1/moorings/{id}", { params: { path: { id } } })),
  );
  const keep = (over: BerthRecord | undefined, part: Partial<BerthRecord> = {}) =>
    plan &&
    save.mutate(
      {
        id: over?.id ?? 0,
        revision: over?.revision ?? 0,
        name,
        ...plan,
        heading_deg: heading ? number(heading) : undefined,
        lying: over?.lying,
        note: over?.note,
        ...part,
      } as BerthRecord,
      { onSuccess: open },
    );
  const material = catalogue?.materials.find((m) => m.id === f.material);
  const quay = Boolean(plan?.lines.every((l) => (l.to[1] ?? 0) <= -boat.beam_m / 2));
  return (
    <Page maxW="1360px">
      <LinesNav />
      <Flex gap="2" align="center" wrap="wrap">
        <Title>Moorings</Title>
        <Flex gap="2" wrap="wrap" role="group" aria-label="Plans" ml={{ md: 4 }}>
          {berths.map((b) => (
            <Press key={b.id} aria-pressed={from?.id === b.id} onClick={() => open(b)}>
              {b.lying ? "⚓ " : ""}
              {b.name}
            </Press>
          ))}
        </Flex>
        <Box flex="1" />
        <Files kind="moorings" />
      </Flex>
      <WindStrip now={afloat} />
      <Grid
        mt="3"
        gap="6"
        templateColumns={{ base: "minmax(0, 1fr)", lg: "minmax(0, 1fr) 420px" }}
        alignItems="start"
      >
        <Box opacity={error ? 0.5 : 1}>
          {plan && (
            <Berth
              loa={boat.loa_m || 9}
              beam={boat.beam_m || 3}
              quay={quay}
              lines={plan.lines}
              answer={error ? undefined : data}
              wind={blows}
              at={at}
              touch={setAt}
              drag={(i, to) => change(i, { to })}
            />
          )}
          <Flex gap="4" mt="1" color="quiet" fontSize="sm" wrap="wrap">
            <span>Numbers: the order in which lines go on</span>
            <span>✺ it rubs here</span>
            <span>Drag a shore end</span>
          </Flex>
          <Slide
            name="Wind, knots"
            value={blows.kn}
            max={60}
            shown={`${blows.kn} kn`}
            set={(kn) => {
              setFollow(false);
              setWind({ ...blows, kn });
            }}
          />
          <Slide
            name="From, off the bow"
            value={blows.from}
            max={359}
            shown={bearing(blows.from)}
            set={(from) => {
              setFollow(false);
              setWind({ ...blows, from });
            }}
          />
          {told && (
            <Press mt="1" aria-pressed={follow} onClick={() => setFollow(!follow)}>
              The wind that blows
            </Press>
          )}
          {afloat?.wind.known && !told && (
            <Box mt="1">Say where the bow points to: this wind is told from north.</Box>
          )}
        </Box>
        <Box>
          <Box data-moored="" fontSize="lg">
            {data?.says.map((s, i) => (
              <Box key={s} mt={i ? "1" : "0"} className={i ? undefined : "head"} fontSize={i ? "md" : "2xl"}>
                {s}
              </Box>
            ))}
          </Box>
          <Trouble error={error ?? laid.error ?? save.error ?? remove.error} />
          {plan && data && (
            <MooredLine
              plan={plan}
              answer={data}
              at={at}
              choose={setAt}
              change={(part) => change(at, part)}
              add={() => {
                const like = plan.lines[at];
                if (!base || !like) return;
                const [x = 0, y = 0] = like.to;
                setOwn({
                  ...base,
                  lines: [
                    ...base.lines,
                    { ...like, name: `${like.name ?? "line"}, doubled`, to: [x + 0.6, y] },
                  ],
                });
                setAt(base.lines.length);
              }}
              remove={() => {
                if (!base) return;
                setOwn({ ...base, lines: base.lines.filter((_, k) => k !== at) });
                setAt(0);
              }}
            />
          )}
        </Box>
      </Grid>
      <Grid mt="5" gap="6" templateColumns={{ base: "minmax(0, 1fr)", md: "1fr 1fr", xl: "1fr 1fr 1.1fr" }}>
        <Order title="Make fast" list={data?.moor ?? []} />
        <Order title="Let go" list={data?.unmoor ?? []} />
        <Box>
          <Part title="Boat and lines">
            <Flex gap="2" mb="3" wrap="wrap" role="group" aria-label="Berth">
              {(Object.keys(kinds) as (keyof typeof kinds)[]).map((k) => (
                <Press
                  key={k}
                  aria-pressed={!own && k === kind}
                  onClick={() => {
                    setKind(k);
                    setOwn(undefined);
                    setFrom(undefined);
                    setName("");
                    setAt(0);
                  }}
                >
                  {kinds[k]}
                </Press>
              ))}
            </Flex>
            <Grid gap="3" templateColumns="1fr 1fr 1fr">
              <Typed label="Length, m" value={f.loa} set={(v) => set({ loa: v })} />
              <Typed label="Beam, m" value={f.beam} set={(v) => set({ beam: v })} />
              <Typed label="Weight, t" value={f.t} set={(t) => set({ t })} />
              <Typed label="Side, m² (if known)" value={f.side} set={(side) => set({ side })} />
              <Pick
                label="Lines of"
                value={f.material}
                set={(m) =>
                  all({
                    material: m,
                    construction: catalogue?.materials.find((x) => x.id === m)
                      ?.constructions[0] as Line["construction"],
                  })
                }
                list={catalogue?.materials.filter((m) => !m.fishing) ?? []}
              />
              <Pick
                label="Made"
                value={f.construction ?? ""}
                set={(made) => all({ construction: made as Line["construction"] })}
                list={material?.constructions.map((c) => ({ id: c, name: c })) ?? []}
              />
              <Typed label="Diameter, mm" value={f.mm} set={(mm) => all({ mm })} />
              <Typed label="Bow points to, °" value={heading} set={setHeading} />
              <Box>
                <Typed label="Name of the plan" value={name} set={setName} />
              </Box>
            </Grid>
            <Flex gap="2" mt="3" wrap="wrap">
              <Press look="main" onClick={() => keep(from)} disabled={!plan || save.isPending}>
                Keep this plan
              </Press>
              {from && (
                <>
                  <Press
                    aria-pressed={Boolean(from.lying)}
                    onClick={() => keep(from, { lying: !from.lying })}
                  >
                    She lies here now
                  </Press>
                  <Press
                    look="bare"
                    onClick={() =>
                      remove.mutate(from.id, {
                        onSuccess: () => {
                          setFrom(undefined);
                          setOwn(undefined);
                          setName("");
                        },
                      })
                    }
                  >
                    Remove it
                  </Press>
                </>
              )}
              <Press onClick={() => setPaper(true)} disabled={!data}>
                Card for the crew
              </Press>
            </Flex>
          </Part>
          <Cautions list={data?.cautions ?? []} />
          <Box mt="2" fontSize="sm" color="quiet">
            {data && (
              <>
                30 knots from ahead: {data.ahead_kn.likely.toFixed(1)} kN
                <Evidence tag={data.ahead_kn.tag} source={data.ahead_kn.source} />
                abeam {data.abeam.low} to {data.abeam.high} times that, taken as {data.abeam.likely}
                <Evidence tag={data.abeam.tag} source={data.abeam.source} />
                loads and margins
                <Evidence tag="computed" source="forces and moments in balance; see Method" />
                rule for dock lines: {data.rule_mm} mm
                <Evidence
                  tag="trade"
                  source="1/8 inch for each 9 feet of length; common practice, no source"
                />
              </>
            )}{" "}
            Swell and wash are not in it.
          </Box>
        </Box>
      </Grid>
      {paper && data && plan && (
        <Paper name="crew" close={() => setPaper(false)}>
          <Box maxW="720px">
            <Box className="head" fontSize="28px">
              {name || "At her berth"}
            </Box>
            <Box mb="3">{data.says[0]}</Box>
            <Berth
              loa={boat.loa_m || 9}
              beam={boat.beam_m || 3}
              quay={quay}
              lines={plan.lines}
              answer={data}
              wind={blows}
              touch={() => undefined}
              drag={() => undefined}
            />
            <Grid gap="6" mt="4" templateColumns="1fr 1fr">
              <Order title="Make fast" list={data.moor} />
              <Order title="Let go" list={data.unmoor} />
            </Grid>
            <Box mt="3">
              {data.cautions.map((c) => (
                <Box key={c.id}>{c.text}</Box>
              ))}
            </Box>
          </Box>
        </Paper>
      )}
    </Page>
  );
}
