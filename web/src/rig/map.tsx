import { Box, chakra, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type { Catalogue, Rig, Schemas } from "../api/client";
import { q } from "../api/queries";
import { Evidence } from "../ui/evidence";
import { force, length, seconds, short } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Pick } from "../ui/pick";
import { Sheet } from "../ui/sheet";
import { withInput } from "./document";

type Plane = Schemas["WhatifPlane"];
type Input = Schemas["InputRange"];

/** Patches and how each is marked: never by colour alone. */
const fills = ["#d9962f", "#4f9d94", "#c8d6b4", "#e8c9a0", "#8fb8c9", "#c79a8b", "#b7a6c9", "#e6dc8c"];

const write = (value: number, unit: string, fishing: boolean) => {
  const v = Number(value.toPrecision(2));
  if (unit === "mm") return length(v);
  if (unit === "s") return seconds(v);
  if (unit === "kN") return force(v, fishing);
  return `${short(v)}${unit ? ` ${unit}` : ""}`;
};

/** Round values along a logarithmic axis, four or five of them, with how far along they stand in per cent. */
export function ticks(from: number, to: number): { value: number; at: number }[] {
  const all: number[] = [];
  for (let e = Math.floor(Math.log10(from)); e <= Math.ceil(Math.log10(to)); e++)
    for (const m of [1, 2, 5]) all.push(Number((m * 10 ** e).toPrecision(1)));
  const at = (v: number) => (100 * Math.log(v / from)) / Math.log(to / from);
  return all.filter((v) => v >= from && v <= to).map((value) => ({ value, at: at(value) }));
}

type Props = {
  rig: Rig;
  inputs: Input[];
  catalogue: Catalogue;
  fishing: boolean;
  change: (rig: Rig) => void;
};

/** The map in a sheet of its own. */
export function ChoiceMap({ open, close, ...p }: Props & { open: boolean; close: () => void }) {
  return (
    <Sheet open={open} close={close} title="Which knot where" wide>
      {open && <ChoicePlane {...p} />}
    </Sheet>
  );
}

/** Which knot comes first over two numbers of the rig, filled in as it is worked out. */
export function ChoicePlane({ rig, inputs, catalogue, fishing, change }: Props) {
  const [x, setX] = useState("");
  const [y, setY] = useState("load");
  const across = inputs.find((i) => i.id === x)?.id ?? inputs.find((i) => i.id !== y)?.id ?? "";
  const { data, error } = useQuery({
    ...q.map(rig, across, y),
    enabled: across !== "" && across !== y,
  });
  const list = inputs.map((i) => ({ id: i.id, name: i.name }));
  return (
    <>
      <Flex gap="3" wrap="wrap">
        <Box flex="1" minW="200px">
          <Pick label="Across" value={across} set={setX} list={list.filter((i) => i.id !== y)} />
        </Box>
        <Box flex="1" minW="200px">
          <Pick label="Upward" value={y} set={setY} list={list.filter((i) => i.id !== across)} />
        </Box>
      </Flex>
      <Trouble error={error} />
      {data?.plane && (
        <Picture
          plane={data.plane}
          rows={data.rows}
          catalogue={catalogue}
          fishing={fishing}
          set={(x, y) => change(withInput(withInput(rig, across, x), data.plane?.y.input ?? "", y))}
        />
      )}
    </>
  );
}

type Rows = Map<number, string[]>;
/** What no knot will do. */
const nothing = "#6b2b20";

/** The knots of a map, those that fill most of it first. */
function knotsOf(rows: Rows): string[] {
  const count = new Map<string, number>();
  for (const r of rows.values()) for (const k of r) count.set(k, (count.get(k) ?? 0) + 1);
  return [...count.keys()].sort((a, b) => (count.get(b) ?? 0) - (count.get(a) ?? 0));
}

/** For each knot the patch with most of its own around it, for its number, so that the map reads without colour. */
export function middles(rows: Rows, known: string[]) {
  const reach = 4;
  return known.map((k, n) => {
    const patches = [...rows].flatMap(([y, r]) => r.flatMap((id, x) => (id === k ? [{ x, y }] : [])));
    const around = (p: { x: number; y: number }) => {
      let count = 0;
      for (let y = p.y - reach; y <= p.y + reach; y++)
        for (let x = p.x - reach; x <= p.x + reach; x++) if (rows.get(y)?.[x] === k) count++;
      return count;
    };
    const own = patches.map(around);
    const most = Math.max(...own);
    const inmost = patches.filter((_, i) => own[i] === most);
    return { n: n + 1, at: inmost[Math.floor(inmost.length / 2)], big: patches.length > 20 };
  });
}

/** How far along a logarithmic axis the rig stands, in per cent; nothing where it does not. */
const share = (a: Schemas["WhatifAxis"]) =>
  a.now > 0 ? (100 * Math.log(a.now / a.from)) / Math.log(a.to / a.from) : undefined;

function Picture(props: {
  plane: Plane;
  rows: Rows;
  catalogue: Catalogue;
  fishing: boolean;
  set: (x: number, y: number) => void;
}) {
  const { plane, rows, catalogue, fishing, set } = props;
  const known = knotsOf(rows);
  const [tx, ty] = [ticks(plane.x.from, plane.x.to), ticks(plane.y.from, plane.y.to)];
  const tick = { position: "absolute", fontSize: "xs", whiteSpace: "nowrap" } as const;
  return (
    <Flex mt="4" data-testid="map" data-rows={rows.size} gap="4" direction={{ base: "column", md: "row" }}>
      <Box flex="1.6" ps="64px">
        <Box fontSize="sm" ms="-64px">
          ↑ {plane.y.name}
        </Box>
        <Box position="relative">
          {ty.map((t) => (
            <Box
              key={t.value}
              {...tick}
              right="100%"
              pe="1.5"
              top={`${100 - t.at}%`}
              transform="translateY(-50%)"
            >
              {write(t.value, plane.y.unit, fishing)} ╴
            </Box>
          ))}
          <Patches plane={plane} rows={rows} known={known} set={set} />
        </Box>
        <Box position="relative" h="20px">
          {tx.map((t) => (
            <Box key={t.value} {...tick} left={`${t.at}%`} transform="translateX(-50%)">
              {write(t.value, plane.x.unit, fishing)}
            </Box>
          ))}
        </Box>
        <Box textAlign="end" fontSize="sm">
          {plane.x.name} →
        </Box>
      </Box>
      <Legend plane={plane} known={known} catalogue={catalogue} />
    </Flex>
  );
}

function Patches(props: { plane: Plane; rows: Rows; known: string[]; set: (x: number, y: number) => void }) {
  const { plane, rows, known, set } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const order = known.join(" ");
  useEffect(() => {
    const g = canvas.current?.getContext("2d");
    if (!g) return;
    const place = order.split(" ");
    g.clearRect(0, 0, plane.columns, plane.rows);
    // A row stands for those around it until they are known.
    for (let y = 0; y < plane.rows; y++) {
      let from = y;
      for (let d = 0; !rows.has(from) && d <= plane.rows; d++) from = y + (d % 2 ? 1 : -1) * Math.ceil(d / 2);
      rows.get(from)?.forEach((k, x) => {
        g.fillStyle = k ? (fills[place.indexOf(k) % fills.length] ?? "#ccc") : nothing;
        g.fillRect(x, plane.rows - 1 - y, 1, 1);
      });
    }
  }, [rows, plane, order]);
  const [cx, cy] = [share(plane.x), share(plane.y)];
  const on = { position: "absolute", transform: "translate(-50%,-50%)", pointerEvents: "none" } as const;
  const press = (e: React.MouseEvent<HTMLElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    const along = (a: Schemas["WhatifAxis"], share: number) => a.from * (a.to / a.from) ** share;
    set(
      along(plane.x, (e.clientX - box.left) / box.width),
      along(plane.y, 1 - (e.clientY - box.top) / box.height),
    );
  };
  return (
    <Box
      position="relative"
      border="2px solid"
      borderColor="ink"
      cursor="crosshair"
      onClick={press}
      data-testid="patches"
      title="Press where your rig shall stand"
    >
      <Canvas ref={canvas} htmlWidth={plane.columns} htmlHeight={plane.rows} />
      {middles(rows, known).map(
        (m) =>
          m.at &&
          m.big && (
            <Box
              key={m.n}
              {...on}
              left={`${(100 * (m.at.x + 0.5)) / plane.columns}%`}
              top={`${100 - (100 * (m.at.y + 0.5)) / plane.rows}%`}
              fontWeight="700"
              color="#10231d"
              bg="#fffdf6cc"
              px="1.5"
              borderRadius="sm"
            >
              {m.n}
            </Box>
          ),
      )}
      {cx !== undefined && cy !== undefined && (
        <Box
          {...on}
          left={`${cx}%`}
          top={`${100 - cy}%`}
          w="22px"
          h="22px"
          borderRadius="full"
          border="4px solid #10231d"
          outline="3px solid #fffdf6"
          title="your rig"
        />
      )}
    </Box>
  );
}

const Canvas = chakra("canvas", {
  base: { width: "100%", height: "min(46vh, 380px)", imageRendering: "pixelated", display: "block" },
});

function Legend({ plane, known, catalogue }: { plane: Plane; known: string[]; catalogue: Catalogue }) {
  const name = (id: string) => catalogue.knots.find((k) => k.id === id)?.name ?? "nothing will do";
  return (
    <Box flex="1" fontSize="md">
      {known.map((k, n) => (
        <Flex key={k || "none"} gap="2" align="center" py="1">
          <Box
            w="26px"
            h="26px"
            flex="none"
            borderRadius="sm"
            border="1.5px solid"
            borderColor="ink"
            textAlign="center"
            fontWeight="700"
            color={k ? "#10231d" : "#fff"}
            bg={k ? fills[n % fills.length] : nothing}
          >
            {n + 1}
          </Box>
          {name(k)}
        </Flex>
      ))}
      {share(plane.x) !== undefined && (
        <Flex gap="2" align="center" py="1">
          <Box w="22px" h="22px" flex="none" borderRadius="full" border="4px solid" borderColor="ink" /> your
          rig
        </Flex>
      )}
      <Box color="quiet" fontSize="sm" mt="2">
        Each number and colour is the knot that comes first there, everything else as in your rig. Press a
        place to set the rig to it. Both scales double at equal steps.{" "}
        <Evidence tag="computed" source="the ranking, worked out once for every patch" />
      </Box>
    </Box>
  );
}
