import { Box, Flex, Grid } from "@chakra-ui/react";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import type { Schemas } from "../api/client";
import { useCatalogue, useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { reach } from "../ui/format";
import { Cautions, Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";
import { Select, Typed } from "../ui/pick";

type Tow = Schemas["TowAnswer"];
type On = "pylon" | "hook" | "eye";

const things = [
  { id: "pylon", name: "a pylon" },
  { id: "hook", name: "an open hook" },
  { id: "eye", name: "a closed eye" },
];

/** Where a tow line is made fast for the length that a rider wants: the line to scale, the place, the hitch. */
export function TowLine() {
  const catalogue = useCatalogue().data;
  const [search, setSearch] = useSearchParams();
  const [typed, setTyped] = useState({
    takeoffs: search.get("takeoffs") ?? "60ft,65ft,…,85ft",
    want: search.get("want") ?? "68ft",
    on: (search.get("on") ?? "pylon") as On,
  });
  const { data, error } = useLasting(q.tow(typed));
  // What was typed stays in the address: a reload and a copied link keep it.
  const set = (part: Partial<typeof typed>) => {
    setTyped({ ...typed, ...part });
    setSearch({ ...typed, ...part }, { replace: true });
  };
  const told = ["person", "tow", "hardware"];
  return (
    <Page maxW="1160px">
      <Title>Tow line</Title>
      <Box h="2" />
      <Cautions list={catalogue?.cautions.filter((c) => told.includes(c.id)) ?? []} />
      {data && (
        <Box mt="3" opacity={error ? 0.45 : 1}>
          <Scaled tow={data} />
        </Box>
      )}
      <Grid templateColumns={{ base: "1fr", md: "2fr 1fr 1fr" }} gap="3" mt="3">
        <Typed
          label="Take-offs, from the handle; the last is the end"
          value={typed.takeoffs}
          set={(takeoffs) => set({ takeoffs })}
          wide
        />
        <Typed label="The rider wants" value={typed.want} set={(want) => set({ want })} wide />
        <Box>
          Made fast to
          <Box mt="1">
            <Select label="Made fast to" value={typed.on} set={(on) => set({ on: on as On })} list={things} />
          </Box>
        </Box>
      </Grid>
      <Box mt="2">
        <Trouble error={error} />
      </Box>
      {data && <Place tow={data} stale={Boolean(error)} />}
      <Flex gap="3" mt="5" className="no-print">
        <Press asChild>
          <Link to="/jobs/make-fast-tow">Make it fast, step by step</Link>
        </Press>
        <Press asChild>
          <Link to="/jobs/coil">Coil it</Link>
        </Press>
        <Press asChild look="bare">
          <Link to="/jobs">All jobs</Link>
        </Press>
      </Flex>
    </Page>
  );
}

const feet = (m: number) => `${Number((m / 0.3048).toPrecision(3))} ft`;

function Place({ tow, stale }: { tow: Tow; stale: boolean }) {
  return (
    <Card mt="3" opacity={stale ? 0.45 : 1} data-testid="tow" role="status">
      <Flex gap="5" align="center" wrap={{ base: "wrap", md: "nowrap" }}>
        {tow.hitch && (
          <Link to={`/knots/${tow.hitch}`} aria-label="See the hitch tied">
            <Drawing id={tow.hitch} name={tow.hitch} drawn w="190px" h="160px" />
          </Link>
        )}
        <Box>
          <Box className="head" fontSize="2xl">
            The {feet(tow.takeoff_m)} take-off{tow.hitch ? `, up ${reach(tow.take_up_m)}` : ""}
          </Box>
          <Box fontSize="lg">
            {tow.says}
            <Evidence tag="computed" source="take-off less wanted length, along the line" />
          </Box>
          {tow.hitch && (
            <Box mt="2" color="quiet">
              A hitch rubs the cover where it sits: feel it before every run, and shift the place.
            </Box>
          )}
        </Box>
      </Flex>
    </Card>
  );
}

/** The line to scale from handle to boat, its take-offs, and where it is made fast. */
function Scaled({ tow }: { tow: Tow }) {
  const total = Math.max(...tow.takeoffs_m, tow.want_m);
  const x = (m: number) => 40 + (1010 * m) / total;
  const at = tow.takeoff_m - tow.take_up_m;
  const step = total > 12 ? 5 : 1;
  const ticks = Array.from({ length: Math.floor(total / step) + 1 }, (_, i) => i * step);
  // Numbers of take-offs that stand too near one another are left out: the loops stay.
  const apart = (i: number) => i === 0 || x(tow.takeoffs_m[i] ?? 0) - x(tow.takeoffs_m[i - 1] ?? 0) > 44;
  return (
    <Box overflowX="auto" tabIndex={0} role="group" aria-label="The line to scale">
      <svg
        viewBox="0 0 1100 190"
        style={{ minWidth: 640, width: "100%", display: "block" }}
        role="img"
        aria-label={`Take-offs at ${tow.takeoffs_m.map(feet).join(", ")} from the handle; made fast at ${feet(at)}`}
      >
        <path
          d={`M0 128${"q11 -7 22 0t22 0".repeat(25)}`}
          fill="none"
          stroke="var(--glass)"
          strokeWidth="2"
          opacity="0.5"
        />
        <path
          d={`M${x(at) - 22} 108H1100V146H${x(at) - 8}Z`}
          fill="var(--glass-wash)"
          stroke="var(--object-edge)"
          strokeWidth="2"
        />
        <rect
          x={x(at) - 9}
          y="42"
          width="18"
          height="68"
          rx="4"
          fill="var(--object)"
          stroke="var(--object-edge)"
          strokeWidth="1.5"
        />
        <Cord d={`M40 76H${x(at)}`} />
        {total - at > 0.02 && <Cord d={`M${x(at)} 80C${x(at) + 20} 98 ${x(total) - 30} 96 ${x(total)} 92`} />}
        {tow.hitch ? (
          <Cord d={`M${x(at) - 12} 70L${x(at) + 12} 82M${x(at) - 12} 82L${x(at) + 12} 70`} now />
        ) : (
          <circle cx={x(at)} cy="76" r="13" fill="none" stroke="var(--flare)" strokeWidth="5" />
        )}
        <path d="M40 76L22 60M40 76L22 92" stroke="var(--rope-1-edge)" strokeWidth="4" />
        <path d="M20 48V104" stroke="var(--ink)" strokeWidth="10" strokeLinecap="round" />
        {tow.takeoffs_m.map((m, i) => {
          const y = m > at + 0.02 ? 92 : 76;
          const here = m === tow.takeoff_m;
          return (
            <g key={m}>
              <circle
                cx={x(m)}
                cy={y + 9}
                r="8"
                fill="none"
                stroke={here ? "var(--flare)" : "var(--rope-1-edge)"}
                strokeWidth="4"
              />
              {(apart(i) || here) && (
                <text
                  x={x(m)}
                  y={y > 80 ? 124 : 62}
                  textAnchor="middle"
                  fontSize="15"
                  fontWeight={here ? 700 : 400}
                  fill="var(--ink)"
                >
                  {feet(m)}
                </text>
              )}
            </g>
          );
        })}
        <path d={`M${x(at)} 8V40`} stroke="var(--amber)" strokeWidth="2" strokeDasharray="5 4" />
        <text x={x(at) - 8} y="20" textAnchor="end" fontSize="17" fontWeight="700" fill="var(--amber)">
          {feet(tow.want_m)} wanted
        </text>
        {tow.hitch && (
          <g stroke="var(--ink)" strokeWidth="1.6">
            <path d={`M${x(at)} 140V158M${x(tow.takeoff_m)} 128V158M${x(at)} 153H${x(tow.takeoff_m)}`} />
          </g>
        )}
        {ticks.map((m) => (
          <g key={m}>
            <path d={`M${x(m)} 166V174`} stroke="var(--ink)" strokeWidth="1.6" />
            <text x={x(m)} y="188" textAnchor="middle" fontSize="14" fill="var(--quiet)">
              {m} m
            </text>
          </g>
        ))}
        <path d={`M40 170H${x(total)}`} stroke="var(--ink)" strokeWidth="1.6" />
      </svg>
    </Box>
  );
}

const Cord = ({ d, now = false }: { d: string; now?: boolean }) => (
  <g fill="none" strokeLinecap="round">
    <path d={d} stroke="var(--rope-1-edge)" strokeWidth="8" />
    <path d={d} stroke={now ? "var(--flare)" : "var(--rope-1)"} strokeWidth="5.5" />
  </g>
);
