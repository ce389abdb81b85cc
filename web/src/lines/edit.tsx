import { Box, Flex, Grid } from "@chakra-ui/react";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../api/client";
import { useCatalogue, useKept } from "../api/hooks";
import { Press } from "../ui/button";
import { typedNumber as number, poundsPerKN } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Pick, Typed } from "../ui/pick";
import { Sheet } from "../ui/sheet";
import { RopePiece } from "./rope";
import { colours } from "./words";

type Line = Schemas["LockerLine"];

/** A line is put into the locker, or what is known of it is changed. */
export function LineSheet(p: {
  line?: Line;
  from?: Partial<Line>;
  /** What is done with the line once it is kept. */
  kept?: (l: Line) => void;
  close: () => void;
}) {
  const l = p.line ?? p.from;
  const materials = useCatalogue().data?.materials ?? [];
  const [f, setF] = useState({
    name: l?.name ?? "",
    material: l?.material ?? "polyester",
    construction: l?.construction ?? "",
    mm: l?.diameter_mm ? String(l.diameter_mm) : "",
    label: l?.label_kn ? String(l.label_kn) : "",
    left: l?.length_m ? String(l.length_m) : "",
    colour: l?.colour ?? "white",
    lives: l?.lives ?? "",
    bought: l?.bought ?? "",
    retireBy: l?.retire_by ?? "",
    hours: l?.hours ? String(l.hours) : "",
    trips: l?.trips ? String(l.trips) : "",
    every: l?.look_every_days ? String(l.look_every_days) : "",
    note: l?.note ?? "",
  });
  const set = (part: Partial<typeof f>) => setF((now) => ({ ...now, ...part }));
  const material = materials.find((m) => m.id === f.material);
  const fishing = material?.fishing ?? false;
  const made = f.construction || material?.constructions[0] || "";
  const body = (part: Partial<Line> = {}): Line =>
    ({
      ...(p.line ?? { id: 0, revision: 0 }),
      ...(p.from?.mu ? { mu: p.from.mu, mu_spread: p.from.mu_spread } : {}),
      name: f.name,
      material: f.material,
      construction: material?.constructions.includes(made as never) ? made : material?.constructions[0],
      diameter_mm: f.mm ? number(f.mm) : undefined,
      label_kn: f.label ? number(f.label) : undefined,
      length_m: f.left ? number(f.left) : undefined,
      colour: f.colour,
      lives: f.lives || undefined,
      bought: f.bought || undefined,
      retire_by: f.retireBy || undefined,
      hours: f.hours ? number(f.hours) : undefined,
      trips: f.trips ? Math.round(number(f.trips)) : undefined,
      look_every_days: f.every ? Math.round(number(f.every)) : undefined,
      note: f.note || undefined,
      ...part,
    }) as Line;
  const save = useKept((b: Line) =>
    p.line
      ? unwrap(
          api.PUT("/api/v1/lines/{id}", {
            params: { path: { id: p.line.id }, header: { "If-Match": `"${p.line.revision}"` } },
            body: b,
          }),
        )
      : unwrap(api.POST("/api/v1/lines", { body: b })),
  );
  const remove = useKept((id: number) =>
    unwrap(api.DELETE("/api/v1/lines/{id}", { params: { path: { id } } })),
  );
  const today = new Date().toISOString().slice(0, 10);
  return (
    <Sheet
      open
      firm
      wide
      close={p.close}
      title={p.line ? p.line.name : "A line for the locker"}
      foot={
        <>
          <Press onClick={p.close}>Leave it</Press>
          <Press
            look="main"
            disabled={save.isPending}
            onClick={() =>
              save.mutate(body(), {
                onSuccess: (l) => {
                  p.close();
                  p.kept?.(l);
                },
              })
            }
          >
            {p.line ? "Keep it" : "Into the locker"}
          </Press>
        </>
      }
    >
      <Box maxW="420px">
        <RopePiece mm={number(f.mm) || (fishing ? 0.6 : 10)} colour={f.colour} made={made} w={420} />
      </Box>
      <Grid gap="3" templateColumns={{ base: "1fr", sm: "1fr 1fr", md: "1fr 1fr 1fr" }}>
        <Typed label="Name" value={f.name} set={(name) => set({ name })} />
        <Pick
          label="Material"
          value={f.material}
          set={(m) =>
            set({
              material: m,
              construction: materials.find((x) => x.id === m)?.constructions[0] ?? "",
            })
          }
          list={materials}
        />
        <Pick
          label="Made"
          value={made}
          set={(construction) => set({ construction: construction as typeof f.construction })}
          list={material?.constructions.map((c) => ({ id: c, name: c })) ?? []}
        />
        <Typed label="Diameter, mm" value={f.mm} set={(mm) => set({ mm })} />
        <Typed label="Strength on its label, kN" value={f.label} set={(label) => set({ label })} />
        <Typed label="Metres left" value={f.left} set={(left) => set({ left })} />
        <Pick
          label="Colour"
          value={f.colour}
          set={(colour) => set({ colour: colour as typeof f.colour })}
          list={colours.map((c) => ({ id: c, name: c }))}
        />
        <Typed label="Where it lives" value={f.lives} set={(lives) => set({ lives })} />
        <Typed label="Bought" type="date" value={f.bought} set={(bought) => set({ bought })} />
        <Typed label="Retire by" type="date" value={f.retireBy} set={(retireBy) => set({ retireBy })} />
        <Typed label="Hours before the log" value={f.hours} set={(hours) => set({ hours })} />
        <Typed label="Trips before the log" value={f.trips} set={(trips) => set({ trips })} />
        <Typed label="Look it over every, days" value={f.every} set={(every) => set({ every })} />
        <Typed label="Note" value={f.note} set={(note) => set({ note })} />
      </Grid>
      {fishing && (
        <Flex gap="2" mt="2" align="center" wrap="wrap">
          <Box color="quiet">
            {f.label ? `On its label ${(number(f.label) * poundsPerKN).toFixed(1)} lb:` : "By its class:"}
          </Box>
          {[6, 8, 12, 16, 20, 30, 50].map((lb) => (
            <Press
              key={lb}
              small
              onClick={() => set({ label: String(Math.round((1e4 * lb) / poundsPerKN) / 1e4) })}
            >
              {lb} lb
            </Press>
          ))}
        </Flex>
      )}
      <Box mt="2">
        <Trouble error={save.error ?? remove.error} />
      </Box>
      {p.line && (
        <Flex gap="2" mt="3" wrap="wrap">
          {p.line.retired ? (
            <Press onClick={() => save.mutate(body({ retired: undefined }), { onSuccess: p.close })}>
              Back into use
            </Press>
          ) : (
            <Press onClick={() => save.mutate(body({ retired: today }), { onSuccess: p.close })}>
              Retire it today
            </Press>
          )}
          <Press
            look="bare"
            onClick={() => remove.mutate(p.line?.id ?? 0, { onSuccess: () => location.assign("/lines") })}
          >
            Take it out of the locker
          </Press>
        </Flex>
      )}
    </Sheet>
  );
}
