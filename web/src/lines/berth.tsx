import { Box, Flex, Grid } from "@chakra-ui/react";
import { useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { useCatalogue, useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Evidence } from "../ui/evidence";
import { typedNumber as number } from "../ui/format";
import { useMedia } from "../ui/media";
import { Cautions, Trouble } from "../ui/notes";
import { Page, Title } from "../ui/page";
import { Pick, Typed } from "../ui/pick";

type Line = { name: string; from: [number, number]; to: [number, number] };
type Answer = Schemas["MooringAnswer"];

/** Alongside, the quay to port: bow and stern lines, two springs; or on four posts. */
const berths = {
  alongside: (loa: number, beam: number): Line[] => {
    const y = -beam / 2;
    const quay = y - 0.8;
    return [
      { name: "bow line", from: [0.44 * loa, y * 0.38], to: [0.62 * loa, quay] },
      { name: "stern line", from: [-0.46 * loa, y * 0.8], to: [-0.64 * loa, quay] },
      { name: "fore spring", from: [0.3 * loa, y], to: [-0.18 * loa, quay] },
      { name: "aft spring", from: [-0.3 * loa, y], to: [0.18 * loa, quay] },
    ];
  },
  posts: (loa: number, beam: number): Line[] =>
    [
      { name: "bow line to port", x: 0.46, side: -1 },
      { name: "bow line to starboard", x: 0.46, side: 1 },
      { name: "stern line to port", x: -0.46, side: -1 },
      { name: "stern line to starboard", x: -0.46, side: 1 },
    ].map(({ name, x, side }) => ({
      name,
      from: [x * loa, side * 0.3 * beam],
      to: [x * loa + Math.sign(x) * 3, side * (beam / 2 + 2.5)],
    })),
};

/** What each line bears of the wind, the berth drawn from above; shore ends are dragged. */
export function MooringView() {
  const catalogue = useCatalogue().data;
  const [f, setF] = useState({
    loa: "9",
    beam: "3",
    t: "4",
    material: "polyamide",
    construction: "laid",
    mm: "14",
  });
  const [berth, setBerth] = useState<keyof typeof berths>("alongside");
  const [wind, setWind] = useState({ kn: 25, from: 300 });
  const [moved, setMoved] = useState<Record<string, [number, number]>>({});
  const set = (part: Partial<typeof f>) => setF((now) => ({ ...now, ...part }));
  const [loa, beam] = [number(f.loa), number(f.beam)];
  const lines = berths[berth](loa, beam).map((l) => ({ ...l, to: moved[l.name] ?? l.to }));
  const plan = {
    boat: { loa_m: loa, beam_m: beam, displacement_t: number(f.t) },
    wind: { kn: wind.kn, from_deg: wind.from },
    lines: lines.map((l) => ({
      ...l,
      line: { material: f.material, construction: f.construction, diameter_mm: number(f.mm) },
    })),
  } as Schemas["MooringPlan"];
  const { data, error } = useLasting(q.moor(plan));
  const material = catalogue?.materials.find((m) => m.id === f.material);
  return (
    <Page maxW="1280px">
      <Title>Moored in the wind</Title>
      <Grid mt="3" gap="6" templateColumns={{ base: "1fr", lg: "minmax(0, 1fr) 400px" }} alignItems="start">
        <Box opacity={error ? 0.5 : 1}>
          <Berth
            loa={loa || 9}
            beam={beam || 3}
            quay={berth === "alongside"}
            lines={lines}
            answer={error ? undefined : data}
            wind={wind}
            drag={(name, to) => setMoved((now) => ({ ...now, [name]: to }))}
          />
          <Slide
            name="Wind, knots"
            value={wind.kn}
            max={60}
            shown={`${wind.kn} kn`}
            set={(kn) => setWind({ ...wind, kn })}
          />
          <Slide
            name="From, clockwise from the bow"
            value={wind.from}
            max={359}
            shown={bearing(wind.from)}
            set={(from) => setWind({ ...wind, from })}
          />
        </Box>
        <Box>
          <Box data-moored="" fontSize="lg">
            {data?.says.map((s, i) => (
              <Box key={s} mt={i ? "1" : "0"} className={i ? undefined : "head"} fontSize={i ? "md" : "2xl"}>
                {s}
              </Box>
            ))}
          </Box>
          <Trouble error={error} />
          <Flex gap="2" my="4" wrap="wrap" role="group" aria-label="Berth">
            {(["alongside", "posts"] as const).map((b) => (
              <Press
                key={b}
                aria-pressed={b === berth}
                onClick={() => {
                  setBerth(b);
                  setMoved({});
                }}
              >
                {b === "alongside" ? "Alongside, port side to" : "Between four posts"}
              </Press>
            ))}
          </Flex>
          <Grid gap="3" templateColumns="1fr 1fr 1fr">
            <Typed label="Length, m" value={f.loa} set={(v) => set({ loa: v })} />
            <Typed label="Beam, m" value={f.beam} set={(v) => set({ beam: v })} />
            <Typed label="Weight, t" value={f.t} set={(t) => set({ t })} />
            <Pick
              label="Lines of"
              value={f.material}
              set={(m) =>
                set({
                  material: m,
                  construction: catalogue?.materials.find((x) => x.id === m)?.constructions[0] ?? "",
                })
              }
              list={
                catalogue?.materials.filter((m) => !m.fishing).map((m) => ({ id: m.id, name: m.name })) ?? []
              }
            />
            <Pick
              label="Made"
              value={f.construction}
              set={(construction) => set({ construction })}
              list={material?.constructions.map((c) => ({ id: c, name: c })) ?? []}
            />
            <Typed label="Diameter, mm" value={f.mm} set={(mm) => set({ mm })} />
          </Grid>
          <Box mt="4">
            <Cautions list={data?.cautions ?? []} />
          </Box>
          <Box mt="2" fontSize="sm" color="quiet">
            {data && (
              <>
                30 knots from ahead: {data.ahead_kn.likely.toFixed(1)} kN
                <Evidence tag={data.ahead_kn.tag} source={data.ahead_kn.source} />
                abeam {data.abeam.low} to {data.abeam.high} times that, taken as {data.abeam.likely}
                <Evidence tag={data.abeam.tag} source={data.abeam.source} />
                loads and margins
                <Evidence tag="computed" source="forces and moments in balance; see Method" />
              </>
            )}{" "}
            Swell, wash and jerks are not in it.
          </Box>
        </Box>
      </Grid>
    </Page>
  );
}

const points = [
  "ahead",
  "starboard bow",
  "starboard beam",
  "starboard quarter",
  "astern",
  "port quarter",
  "port beam",
  "port bow",
];
const bearing = (deg: number) => `${deg}°, ${points[Math.round(deg / 45) % 8]}`;

function Slide(p: { name: string; value: number; max: number; shown: string; set: (v: number) => void }) {
  return (
    <Flex as="label" align="center" gap="3" mt="2" minH="44px" wrap="wrap">
      <Box w="220px">{p.name}</Box>
      <input
        type="range"
        min={0}
        max={p.max}
        value={p.value}
        onChange={(e) => p.set(Number(e.target.value))}
        style={{ flex: 1, minWidth: "140px", accentColor: "var(--glass)", height: "44px" }}
      />
      <Box w="170px" fontWeight="700">
        {p.shown}
      </Box>
    </Flex>
  );
}

function Berth(p: {
  loa: number;
  beam: number;
  quay: boolean;
  lines: Line[];
  answer: Answer | undefined;
  wind: { kn: number; from: number };
  drag: (name: string, to: [number, number]) => void;
}) {
  const { loa, beam, lines, answer, wind } = p;
  const svg = useRef<SVGSVGElement>(null);
  const [held, setHeld] = useState<string>();
  const wide = 1.9 * loa;
  const high = Math.max(0.95 * loa, beam + 7);
  const top = p.quay ? -high * 0.5 : -high / 2;
  const at = (e: React.PointerEvent): [number, number] => {
    const m = svg.current?.getScreenCTM()?.inverse();
    if (!m) return [0, 0];
    const q = new DOMPoint(e.clientX, e.clientY).matrixTransform(m);
    return [Math.round(q.x * 10) / 10, Math.round(q.y * 10) / 10];
  };
  const quayY = -beam / 2 - 0.35;
  const ship = `M${0.5 * loa} 0C${0.34 * loa} ${-0.42 * beam} ${0.15 * loa} ${-beam / 2} ${-0.1 * loa} ${-beam / 2}L${-0.5 * loa} ${-0.4 * beam}V${0.4 * beam}L${-0.1 * loa} ${beam / 2}C${0.15 * loa} ${beam / 2} ${0.34 * loa} ${0.42 * beam} ${0.5 * loa} 0Z`;
  const shift = answer
    ? `translate(${answer.moved_m[0]} ${answer.moved_m[1]}) rotate(${answer.turn_deg})`
    : undefined;
  const size = loa / 21;
  // On a phone the loads alone, in letters that are read at arm's length.
  const narrow = useMedia("(max-width: 600px)");
  const letters = narrow ? loa / 11 : size;
  return (
    <svg
      ref={svg}
      viewBox={`${-wide / 2} ${top} ${wide} ${high}`}
      width="100%"
      role="img"
      aria-label={answer?.says.join(" ") ?? "The berth from above"}
      style={{ background: "var(--glass-wash)", borderRadius: "8px", touchAction: "none" }}
      onPointerMove={(e) => held && p.drag(held, at(e))}
      onPointerUp={() => setHeld(undefined)}
      onPointerLeave={() => setHeld(undefined)}
    >
      {p.quay && (
        <>
          <rect x={-wide / 2} y={top} width={wide} height={quayY - top} fill="var(--object)" />
          <line
            x1={-wide / 2}
            x2={wide / 2}
            y1={quayY}
            y2={quayY}
            stroke="var(--object-edge)"
            strokeWidth={size / 3}
          />
        </>
      )}
      <g transform={shift}>
        <path d={ship} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={size / 4} />
        <path d={ship} transform="scale(0.82 0.72)" fill="none" stroke="var(--line)" strokeWidth={size / 5} />
        {p.quay &&
          [0.3, -0.3].map((x) => (
            <rect
              key={x}
              x={x * loa - 0.4}
              y={-beam / 2 - 0.3}
              width="0.8"
              height="0.32"
              rx="0.15"
              fill="var(--kelp)"
            />
          ))}
      </g>
      {lines.map((l, i) => {
        const share = answer?.lines[i];
        const weak = share && share.margin > 0 && share.margin < 1;
        const slack = !share || share.load_kn < 0.01;
        const thick = slack
          ? size / 5
          : size / 5 + (size / 2.4) * Math.min(1, 1 / Math.max(0.4, share.margin));
        // Beyond the shore end, away from the boat; springs a line higher than the ends.
        const away = Math.sign(l.to[1]) || 1;
        const y =
          l.to[1] +
          away * size * (p.quay ? ([1.5, 1.5, 2.9, 4.3][i] ?? 1.5) : 1.5) +
          (away > 0 ? 0.7 * size : 0);
        return (
          <g key={l.name} data-line={l.name}>
            <line
              x1={l.from[0] + (answer?.moved_m[0] ?? 0)}
              y1={l.from[1] + (answer?.moved_m[1] ?? 0)}
              x2={l.to[0]}
              y2={l.to[1]}
              stroke={weak ? "var(--flare)" : "var(--rope-1-edge)"}
              strokeWidth={thick}
              strokeDasharray={slack ? `${size / 2} ${size / 3}` : undefined}
            />
            <circle
              cx={l.to[0]}
              cy={l.to[1]}
              r={size * 0.62}
              fill={held === l.name ? "var(--amber)" : "var(--kelp)"}
              stroke="var(--sheet)"
              strokeWidth={size / 6}
              style={{ cursor: "grab" }}
              onPointerDown={() => setHeld(l.name)}
            />
            <text
              x={l.to[0]}
              y={y}
              textAnchor="middle"
              style={{ fontSize: `${letters}px` }}
              fontWeight="700"
              fill={weak ? "var(--flare)" : "var(--ink)"}
              stroke="var(--sheet)"
              strokeWidth={size / 5}
              paintOrder="stroke"
            >
              {narrow ? "" : `${l.name} `}
              {share ? `${share.load_kn.toFixed(1)} kN` : ""}
            </text>
          </g>
        );
      })}
      <g transform={`translate(${0.4 * wide} ${top + high - 3.4 * size}) rotate(${wind.from})`}>
        <circle r={2.7 * size} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={size / 6} />
        <path
          d={`M${2.2 * size} 0H${-1.2 * size}`}
          stroke="var(--amber)"
          strokeWidth={size / 1.6}
          markerEnd="url(#wind)"
        />
      </g>
      <defs>
        <marker
          id="wind"
          viewBox="0 0 10 10"
          refX="6"
          refY="5"
          markerWidth="4"
          markerHeight="4"
          orient="auto"
        >
          <path d="M0 0L10 5L0 10z" fill="var(--amber)" />
        </marker>
      </defs>
    </svg>
  );
}
