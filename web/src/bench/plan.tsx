import { Box, Flex, Grid } from "@chakra-ui/react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, type Schemas, unwrap } from "../api/client";
import { useCatalogue, useKept } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { typedNumber as number } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Pick, Typed } from "../ui/pick";
import { Sheet } from "../ui/sheet";

/** How A is tied may be compared: each ticked one doubles the specimens. */
const factors = [
  { id: "lubricated", name: "A wetted before it is drawn up, and not" },
  { id: "trimmed", name: "A trimmed close, and not" },
  { id: "undressed", name: "A dressed, and drawn up as it fell" },
] as const;

/** Plans a series: which line, which two knots, how many pulls. */
export function Plan({ close, first }: { close: () => void; first?: [string, string] }) {
  const catalogue = useCatalogue().data;
  const locker = useQuery(q.lines()).data ?? [];
  const go = useNavigate();
  const [f, setF] = useState({
    name: "",
    from: "",
    material: "polyester",
    construction: "braid",
    mm: "10",
    label: "",
    a: first?.[0] ?? "bowline",
    b: first?.[1] ?? "figure-eight-loop",
    wraps: "",
    finishing: "",
    lubricated: false,
    trimmed: false,
    undressed: false,
    byA: "",
    byB: "",
    gauge: "",
    soak: "",
    n: "10",
    wet: "dry",
    speed: "5",
    good: "",
  });
  const set = (part: Partial<typeof f>) => setF((now) => ({ ...now, ...part }));
  const save = useKept((body: Schemas["BenchSeries"]) => unwrap(api.POST("/api/v1/series", { body })));
  const lay = useMutation({
    mutationFn: (body: Schemas["BenchPlan"]) => unwrap(api.POST("/api/v1/bench/plan", { body })),
  });
  const name = (id: string) => catalogue?.knots.find((k) => k.id === id)?.name ?? id;
  const line = locker.find((l) => l.name === f.from);
  const send = async () => {
    const counts = (text: string) =>
      text
        .split(/[ ,;]+/)
        .map(Number)
        .filter((n) => n > 0);
    const plan = {
      a: { knot: f.a, by: f.byA.trim() || undefined },
      b: { knot: f.b, by: f.byB.trim() || undefined },
      times: number(f.n),
      factors: {
        wraps: counts(f.wraps),
        finishing: counts(f.finishing),
        lubricated: f.lubricated ? [true, false] : [],
        trimmed: f.trimmed ? [true, false] : [],
        undressed: f.undressed ? [false, true] : [],
      },
    } as Schemas["BenchPlan"];
    const specimens = await lay.mutateAsync(plan).catch(() => undefined);
    if (!specimens) return;
    save.mutate(
      {
        id: 0,
        revision: 0,
        name: f.name.trim() || `${name(f.a)} and ${name(f.b).toLowerCase()}, ${f.wet}`,
        from: line?.name,
        line: line
          ? {
              material: line.material,
              construction: line.construction,
              diameter_mm: line.diameter_mm,
              label_kn: line.label_kn,
              wear: line.wear,
              own: line.code,
            }
          : {
              material: f.material,
              construction: f.construction as never,
              diameter_mm: number(f.mm),
              label_kn: number(f.label) || undefined,
            },
        wet: f.wet === "wet",
        speed_mm_s: number(f.speed),
        gauge_mm: number(f.gauge) || undefined,
        soak_min: f.wet === "wet" ? number(f.soak) || undefined : undefined,
        yardstick_kn: number(f.good) || undefined,
        specimens,
      } as Schemas["BenchSeries"],
      { onSuccess: (s) => go(`/bench/${s.id}`) },
    );
  };
  const material = catalogue?.materials.find((m) => m.id === f.material);
  const knots = catalogue?.knots.map((k) => ({ id: k.id, name: k.name })) ?? [];
  return (
    <Sheet
      open
      wide
      close={close}
      title="Plan a series"
      foot={
        <>
          <Press onClick={close}>Close</Press>
          <Press look="main" onClick={() => void send()} disabled={save.isPending || lay.isPending}>
            Plan it
          </Press>
        </>
      }
    >
      <Grid gap="3" templateColumns={{ base: "1fr", md: "repeat(2, 1fr)" }}>
        <Pick label="Knot A" value={f.a} set={(a) => set({ a })} list={knots} />
        <Pick label="Knot B, against it in the same piece" value={f.b} set={(b) => set({ b })} list={knots} />
        <Pick
          label="Line"
          value={f.from}
          set={(from) => set({ from })}
          any="another line"
          list={locker.map((l) => ({ id: l.name, name: l.name }))}
        />
        <Pick
          label="Wet or dry"
          value={f.wet}
          set={(wet) => set({ wet })}
          list={[
            { id: "dry", name: "dry" },
            { id: "wet", name: "wet" },
          ]}
        />
        {!line && (
          <>
            <Pick
              label="Made of"
              value={f.material}
              set={(m) =>
                set({
                  material: m,
                  construction: catalogue?.materials.find((x) => x.id === m)?.constructions[0] ?? "",
                })
              }
              list={catalogue?.materials.map((m) => ({ id: m.id, name: m.name })) ?? []}
            />
            <Pick
              label="Construction"
              value={f.construction}
              set={(construction) => set({ construction })}
              list={material?.constructions.map((c) => ({ id: c, name: c })) ?? []}
            />
            <Typed label="Diameter, mm" value={f.mm} set={(mm) => set({ mm })} />
            <Typed
              label="Strength on its label, kN, if it has one"
              value={f.label}
              set={(label) => set({ label })}
            />
          </>
        )}
        <Typed label="Pulls of each" value={f.n} set={(n) => set({ n })} />
        <Typed label="Wraps of A to compare, like 5 6 7" value={f.wraps} set={(w) => set({ wraps: w })} />
        <Typed label="Drawn out at, mm a second" value={f.speed} set={(speed) => set({ speed })} />
        <Typed
          label="Good is above, kN, if you have a yardstick"
          value={f.good}
          set={(good) => set({ good })}
        />
        <Typed label="Line between the knots, mm" value={f.gauge} set={(gauge) => set({ gauge })} />
        {f.wet === "wet" && <Typed label="Soaked, minutes" value={f.soak} set={(soak) => set({ soak })} />}
        <Typed
          label="Finishing wraps of A to compare, like 2 4"
          value={f.finishing}
          set={(finishing) => set({ finishing })}
        />
        <Typed label="A tied by" value={f.byA} set={(byA) => set({ byA })} />
        <Typed label="B tied by" value={f.byB} set={(byB) => set({ byB })} />
        {factors.map((x) => (
          <Flex as="label" key={x.id} gap="3" minH="44px" align="center">
            <input
              type="checkbox"
              checked={f[x.id]}
              onChange={(e) => set({ [x.id]: e.target.checked })}
              style={{ width: 22, height: 22 }}
            />
            {x.name}
          </Flex>
        ))}
        <Typed label="Name" value={f.name} set={(n) => set({ name: n })} />
      </Grid>
      <Flex mt="3" color="quiet">
        <Box>
          Two knots in one piece: the one that gives has its strength, the other at least as much. Each is
          tied at each end of the bench equally often.
        </Box>
      </Flex>
      <Trouble error={lay.error ?? save.error} />
    </Sheet>
  );
}
