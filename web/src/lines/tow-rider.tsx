import { Box, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, unwrap } from "../api/client";
import { Press } from "../ui/button";
import { Evidence } from "../ui/evidence";
import { typedNumber as number, reach } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Typed } from "../ui/pick";
import type { TowBook, TowCard } from "./queries";
import { metre } from "./words";

/** A rider's load is worked out from the helm's own figures: nobody publishes them. */
export function RiderLoad() {
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
export function Rider(p: {
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
            <strong>{metre(place?.takeoff_m ?? 0)}</strong>
            <br />
            {place?.hitch ? `take up ${reach(place.take_up_m)}` : "as it is"}
          </>
        )}
      </Box>
    </Press>
  );
}
