import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, conflictOf, type Schemas, unwrap } from "../api/client";
import { useCatalogue, useKept } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Evidence } from "../ui/evidence";
import { typedNumber as number } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";
import { Pick, Typed } from "../ui/pick";
import { BenchNav } from "./nav";

type Trial = { heavy: string; light: string; degrees: string };

const newtonsPerKg = 9.80665;
const three = (v: number) => Number(v.toFixed(3));

/** Two weights over a rail: when does the line begin to slide? */
export function FrictionView() {
  const [trials, setTrials] = useState<Trial[]>([{ heavy: "", light: "", degrees: "180" }]);
  useEffect(() => {
    document.title = "Friction · Oarweed";
  }, []);
  const whole = trials
    .filter((t) => t.heavy && t.light)
    .map((t) => ({
      heavy_n: number(t.heavy) * newtonsPerKg,
      light_n: number(t.light) * newtonsPerKg,
      degrees: number(t.degrees),
    }));
  const surfaces = useCatalogue().data?.surfaces.filter((x) => !x.rope) ?? [];
  const [surface, setSurface] = useState("");
  const { data, error } = useQuery(q.friction({ trials: whole, surface }));
  const set = (i: number, part: Partial<Trial>) =>
    setTrials((now) => now.map((t, k) => (k === i ? { ...t, ...part } : t)));
  return (
    <Page maxW="1100px">
      <BenchNav />
      <Title>How slippery is your line?</Title>
      <Box mt="1" maxW="70ch">
        Lay the line over your own rail with a weight on each end. Make one side heavier, a little at a time,
        until it begins to slide. Three times over says much more than once.
      </Box>
      <Grid templateColumns={{ base: "1fr", md: "260px minmax(0, 1fr)" }} gap="6" mt="4" alignItems="start">
        <Rail heavy={trials[0]?.heavy || "?"} light={trials[0]?.light || "?"} />
        <Box>
          <Box maxW="360px" mb="3">
            <Pick
              label="The rail is of"
              value={surface}
              set={setSurface}
              any="smooth metal"
              list={surfaces.map((x) => ({ id: x.id, name: x.name }))}
            />
          </Box>
          {trials.map((t, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: trials in their order
            <Grid key={i} templateColumns={{ base: "1fr 1fr", md: "1fr 1fr 1fr" }} gap="3" mb="3">
              <Typed label="It slid at, kg" value={t.heavy} set={(heavy) => set(i, { heavy })} />
              <Typed label="Other side, kg" value={t.light} set={(light) => set(i, { light })} />
              <Typed label="Wrapped, degrees" value={t.degrees} set={(degrees) => set(i, { degrees })} />
            </Grid>
          ))}
          <Press
            onClick={() =>
              setTrials([...trials, { heavy: "", light: trials.at(-1)?.light ?? "", degrees: "180" }])
            }
          >
            Once more
          </Press>
          <Trouble error={error} />
          {data && whole.length > 0 && <Found friction={data} />}
        </Box>
      </Grid>
    </Page>
  );
}

function Found({ friction }: { friction: Schemas["FrictionFound"] }) {
  const lines = useQuery(q.lines());
  const [into, setInto] = useState("");
  const keep = useKept((l: Schemas["LockerLine"]) =>
    unwrap(
      api.PUT("/api/v1/lines/{id}", {
        params: { path: { id: l.id }, header: { "If-Match": `"${l.revision}"` } },
        body: l,
      }),
    ),
  );
  const line = lines.data?.find((l) => String(l.id) === into);
  const { likely: mu, low, high } = friction.metal;
  return (
    <Card mt="4" p="4" data-friction="">
      <Flex align="baseline" gap="3" wrap="wrap">
        <Box className="head" fontSize="44px" lineHeight="1">
          μ {friction.mu.likely.toFixed(2)}
        </Box>
        <Box>
          {friction.n === 1 ? "from one trial" : `from ${friction.n} trials`}: between{" "}
          {friction.mu.low.toFixed(2)} and {friction.mu.high.toFixed(2)}, nine times in ten.{" "}
          <Evidence tag="yours" source="your own trials over a rail, by the capstan equation" />
        </Box>
      </Flex>
      <Box mt="2" color="quiet">
        On smooth metal that is {mu.toFixed(2)} ({low.toFixed(2)} to {high.toFixed(2)}). A line of the locker
        carries it from now on into every rig it is used in: it takes the place of what is remembered of its
        material.
      </Box>
      <Grid templateColumns={{ base: "1fr", md: "minmax(0, 1fr) auto" }} gap="3" mt="3" alignItems="end">
        <Pick
          label="Line of the locker"
          value={into}
          set={setInto}
          any="choose one"
          list={lines.data?.map((l) => ({ id: String(l.id), name: l.name })) ?? []}
        />
        <Press
          look="main"
          disabled={!line || keep.isPending}
          onClick={() =>
            line &&
            keep.mutate({
              ...line,
              mu: three(mu),
              mu_spread: three(Math.max(high / mu, mu / low)),
            })
          }
        >
          Use it for this line
        </Press>
      </Grid>
      {keep.isSuccess && <Box mt="2">Kept with the line.</Box>}
      <Trouble
        error={
          conflictOf(keep.error) ? new Error("The line was changed meanwhile: choose it again.") : keep.error
        }
      />
    </Card>
  );
}

function Rail({ heavy, light }: { heavy: string; light: string }) {
  return (
    <svg
      viewBox="0 0 260 240"
      width="100%"
      role="img"
      aria-label="A line over a rail with a weight on each end"
    >
      <circle cx="130" cy="60" r="38" fill="var(--object)" stroke="var(--object-edge)" strokeWidth="3" />
      <path d="M84 170V60a46 46 0 0 1 92 0V130" fill="none" stroke="var(--rope-1-edge)" strokeWidth="14" />
      <path d="M84 170V60a46 46 0 0 1 92 0V130" fill="none" stroke="var(--rope-1)" strokeWidth="10" />
      <rect x="48" y="168" width="72" height="56" rx="6" fill="var(--kelp)" />
      <rect x="148" y="128" width="56" height="44" rx="6" fill="var(--kelp)" />
      <text x="84" y="203" textAnchor="middle" fontSize="18" fontWeight="700" fill="var(--kelp-ink)">
        {heavy} kg
      </text>
      <text x="176" y="156" textAnchor="middle" fontSize="16" fontWeight="700" fill="var(--kelp-ink)">
        {light} kg
      </text>
      <path d="M30 176v34m-6 -7l6 7l6 -7" fill="none" stroke="var(--flare)" strokeWidth="3" />
    </svg>
  );
}
