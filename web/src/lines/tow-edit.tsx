import { Box, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../api/client";
import { useCatalogue, useKept } from "../api/hooks";
import { Press } from "../ui/button";
import { typedNumber as number } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Part } from "../ui/page";
import { Pick, Typed } from "../ui/pick";
import { Sheet } from "../ui/sheet";
import { lq, type TowBook, type TowCard } from "./queries";
import { byLabel, metre, onto } from "./words";

/** A length as typed: metres, or feet where it says so. */
const metres = (text: string) =>
  /(ft|feet|')\s*$/i.test(text)
    ? Math.round(30480 * number(text.replace(/[^\d.,].*$/, ""))) / 1e5
    : number(text.replace(/\s*m\s*$/, ""));

/** A tow line is made, or changed: its take-offs, what it is made fast to, who rides on it. */
export function TowSheet({ line: t, close }: { line: TowCard | undefined; close: () => void }) {
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
        {!t && !f.takeoffs && <Box color="quiet">{spaced.map(metre).join(", ")}</Box>}
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
