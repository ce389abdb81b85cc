import { Box, Flex, Grid } from "@chakra-ui/react";
import { useId, useState } from "react";
import { Link } from "react-router";
import { type HoldQuery, useCatalogue, useHold } from "../api/hooks";
import { Press } from "../ui/button";
import { Evidence } from "../ui/evidence";
import { force, short } from "../ui/format";
import { Cautions, Trouble } from "../ui/notes";
import { Pick } from "../ui/pick";

const cell = { padding: "6px 6px", verticalAlign: "bottom" } as const;

/** A hand force in newtons; friction is not known to more than two figures. */
const newtons = (n: number) => (n < 9950 ? `${short(Number(n.toPrecision(2)))} N` : force(n / 1000, false));

/** How many turns, and what hand, hold a load. */
export function HoldView() {
  const catalogue = useCatalogue().data;
  const [q, setQ] = useState<HoldQuery>({
    hitch: "turns",
    object: "100 mm",
    line: "12 mm",
    material: "polyester",
    surface: "polished-steel",
    wet: true,
    load: "2.4 kN",
    hand: "100 N",
  });
  const { data, error } = useHold(q);
  const set = (part: Partial<HoldQuery>) => setQ({ ...q, ...part });
  const hitches = catalogue?.hitches ?? [];
  const counts = hitches.find((h) => h.id === q.hitch)?.counts;
  const hand = (n: number | null | undefined) =>
    n === null || n === undefined ? "none holds" : n === 0 ? "locks" : newtons(n);
  return (
    <Box as="main" w="100%" maxW="900px" mx="auto" px={{ base: 3, md: 6 }} py="5">
      <Box as="h1" fontSize="30px">
        Turns and hand force
      </Box>
      <Grid templateColumns={{ base: "1fr 1fr", md: "2fr 1fr 1fr 1fr" }} gap="3" mt="3">
        <Box gridColumn={{ base: "1 / -1", md: "auto" }}>
          <Pick label="Made fast with" value={q.hitch} set={(hitch) => set({ hitch })} list={hitches} />
        </Box>
        <Typed label="Thickness of the object" value={q.object} set={(object) => set({ object })} />
        <Typed label="Line" value={q.line} set={(line) => set({ line })} />
        <Pick
          label="Material"
          value={q.material}
          set={(material) => set({ material })}
          list={catalogue?.materials.map((m) => ({ id: m.id, name: m.name })) ?? []}
        />
        <Pick
          label="Surface"
          value={q.surface}
          set={(surface) => set({ surface })}
          list={catalogue?.surfaces.map((m) => ({ id: m.id, name: m.name })) ?? []}
        />
        <Pick
          label="Wet or dry"
          value={q.wet ? "wet" : "dry"}
          set={(w) => set({ wet: w === "wet" })}
          list={[
            { id: "wet", name: "wet" },
            { id: "dry", name: "dry" },
          ]}
        />
        <Typed label="Load" value={q.load} set={(load) => set({ load })} />
        <Typed label="Your hand" value={q.hand} set={(h) => set({ hand: h })} />
      </Grid>
      <Box mt="3">
        <Trouble error={error} />
      </Box>
      {data && (
        <Box opacity={error ? 0.45 : 1}>
          <Box className="head" fontSize="22px" mt="2" data-testid="hold">
            {data.says}
          </Box>
          {data.trade && (
            <Box data-testid="trade">
              From use, {q.wet ? "wet" : "dry"}: <strong>{data.trade.class}</strong> – {data.trade.why}. The
              ranking goes by this, not by the friction below. <Evidence tag={data.trade.tag} />
            </Box>
          )}
          <table
            style={{
              width: "100%",
              marginTop: 12,
              borderCollapse: "collapse",
              textAlign: "right",
              fontSize: "clamp(14px, 4vw, 17px)",
            }}
          >
            <thead>
              <tr>
                <th scope="col" style={{ ...cell, textAlign: "left" }}>
                  {counts}
                </th>
                {["hand at the lowest friction", "likely", "highest", "locks by itself"].map((head) => (
                  <th key={head} scope="col" style={cell}>
                    {head}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {data.rows.map((r) => (
                <tr
                  key={r.n}
                  style={{
                    whiteSpace: "nowrap",
                    background: data.turns === r.n ? "var(--glass-wash)" : undefined,
                  }}
                >
                  <td style={{ ...cell, fontWeight: 700, textAlign: "left" }}>
                    {data.turns === r.n && "✓ "}
                    {r.n || "as made"}
                  </td>
                  <td style={cell}>{hand(r.lowest_n)}</td>
                  <td style={cell}>{hand(r.likely_n)}</td>
                  <td style={cell}>{hand(r.highest_n)}</td>
                  <td style={cell}>{r.locks > 0 ? `${Math.round(r.locks * 100)} in 100` : "never"}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <Flex gap="2" mt="2" align="center" wrap="wrap" fontSize="15px">
            Friction of this line {data.mu.low}, likely {data.mu.likely}, up to {data.mu.high}
            <Evidence tag={data.mu.tag} source={data.mu.source} />
            hand force
            <Evidence
              tag="computed"
              source="capstan equation and riding-turn theory; each hitch's events are in docs/method.md"
            />
          </Flex>
        </Box>
      )}
      <Box mt="4">
        <Cautions
          list={
            catalogue?.cautions.filter((c) => c.id === "stored-energy" || c.id === "memory-figures") ?? []
          }
        />
      </Box>
      <Box mt="5" className="no-print">
        <Link to="/jobs">
          <Press as="span">All jobs</Press>
        </Link>
      </Box>
    </Box>
  );
}

function Typed({ label, value, set }: { label: string; value: string; set: (v: string) => void }) {
  const id = useId();
  return (
    <Box minW="0">
      <label htmlFor={id} style={{ fontSize: 15 }}>
        {label}
      </label>
      <input
        id={id}
        value={value}
        onChange={(e) => set(e.target.value)}
        style={{
          minHeight: 44,
          width: "100%",
          padding: "0 10px",
          border: "1.5px solid var(--ink)",
          borderRadius: 8,
          background: "var(--sheet)",
        }}
      />
    </Box>
  );
}
