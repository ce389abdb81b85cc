import { Box, Flex } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import type { Catalogue, Rig, Schemas } from "../api/client";
import { Evidence } from "../ui/evidence";
import { length, seconds, short } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Pick } from "../ui/pick";
import { Sheet } from "../ui/sheet";

/** The frame of a map, sent ahead of its rows. */
type Axis = { input: string; name: string; unit: string; from: number; to: number; now: number };
type Plane = { x: Axis; y: Axis; columns: number; rows: number };
type Input = Schemas["ChooseInput"];
type Row = { row: number; knots: string[] };

/** Patches and how each is marked: never by colour alone. */
const fills = ["#d9962f", "#4f9d94", "#c8d6b4", "#e8c9a0", "#8fb8c9", "#c79a8b", "#b7a6c9", "#e6dc8c"];

const write = (value: number, unit: string) =>
  unit === "mm" ? length(value) : unit === "s" ? seconds(value) : `${short(value)}${unit ? ` ${unit}` : ""}`;

/** Which knot comes first over two numbers of the rig, filled in as it is worked out. */
export function ChoiceMap(props: {
  open: boolean;
  close: () => void;
  rig: Rig;
  inputs: Input[];
  catalogue: Catalogue;
}) {
  const { open, close, rig, inputs, catalogue } = props;
  const [x, setX] = useState("");
  const [y, setY] = useState("load");
  const across = inputs.find((i) => i.id === x)?.id ?? inputs.find((i) => i.id !== y)?.id ?? "";
  const { plane, rows, error } = useMap(open ? rig : undefined, across, y);
  const list = inputs.map((i) => ({ id: i.id, name: i.name }));
  return (
    <Sheet open={open} close={close} title="Which knot where" wide>
      <Flex gap="3" wrap="wrap">
        <Box flex="1" minW="200px">
          <Pick label="Across" value={across} set={setX} list={list.filter((i) => i.id !== y)} />
        </Box>
        <Box flex="1" minW="200px">
          <Pick label="Upward" value={y} set={setY} list={list.filter((i) => i.id !== across)} />
        </Box>
      </Flex>
      <Trouble error={error} />
      {plane && <Picture plane={plane} rows={rows} catalogue={catalogue} />}
    </Sheet>
  );
}

/** Reads the map line by line; a new question ends the old one. */
function useMap(rig: Rig | undefined, x: string, y: string) {
  const [plane, setPlane] = useState<Plane>();
  const [rows, setRows] = useState<Map<number, string[]>>(new Map());
  const [error, setError] = useState<unknown>();
  const body = rig && JSON.stringify(rig);
  useEffect(() => {
    if (!body || !x || !y || x === y) return;
    const stop = new AbortController();
    setError(undefined);
    const read = async () => {
      const answer = await fetch(`/api/map?${new URLSearchParams({ x, y })}`, {
        method: "POST",
        headers: { "Content-Type": "application/json" },
        body,
        signal: stop.signal,
      });
      if (!answer.ok || !answer.body) throw new Error("This map cannot be drawn. Choose other numbers.");
      const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader();
      let rest = "";
      let first = true;
      const known = new Map<number, string[]>();
      for (;;) {
        const { done, value } = await reader.read();
        if (done) return;
        const lines = (rest + value).split("\n");
        rest = lines.pop() ?? "";
        for (const line of lines) {
          if (first) setPlane(JSON.parse(line) as Plane);
          else {
            const r = JSON.parse(line) as Row;
            known.set(r.row, r.knots);
          }
          first = false;
        }
        setRows(new Map(known));
      }
    };
    read().catch((e: unknown) => {
      if (!stop.signal.aborted) setError(e);
    });
    return () => stop.abort();
  }, [body, x, y]);
  return { plane, rows, error };
}

function Picture({
  plane,
  rows,
  catalogue,
}: {
  plane: Plane;
  rows: Map<number, string[]>;
  catalogue: Catalogue;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const name = (id: string) => catalogue.knots.find((k) => k.id === id)?.name ?? "nothing will do";
  const count = new Map<string, number>();
  for (const r of rows.values()) for (const k of r) count.set(k, (count.get(k) ?? 0) + 1);
  const known = [...count.keys()].sort((a, b) => (count.get(b) ?? 0) - (count.get(a) ?? 0));
  const place = known.join(" ");
  useEffect(() => {
    const g = canvas.current?.getContext("2d");
    if (!g) return;
    const order = place.split(" ");
    g.clearRect(0, 0, plane.columns, plane.rows);
    // A row stands for those around it until they are known.
    for (let y = 0; y < plane.rows; y++) {
      let from = y;
      for (let d = 0; !rows.has(from) && d <= plane.rows; d++) from = y + (d % 2 ? 1 : -1) * Math.ceil(d / 2);
      const row = rows.get(from);
      row?.forEach((k, x) => {
        g.fillStyle = k ? (fills[order.indexOf(k) % fills.length] ?? "#ccc") : "#6b2b20";
        g.fillRect(x, plane.rows - 1 - y, 1, 1);
      });
    }
  }, [rows, plane, place]);
  const share = (a: { from: number; to: number; now: number }) =>
    a.now > 0 ? (100 * Math.log(a.now / a.from)) / Math.log(a.to / a.from) : undefined;
  const [cx, cy] = [share(plane.x), share(plane.y)];
  // One number in the middle of each knot's patches, so that the map reads without colour.
  const marks = known.map((k, n) => {
    let [sx, sy, m] = [0, 0, 0];
    for (const [y, r] of rows)
      r.forEach((id, x) => {
        if (id === k) {
          sx += x;
          sy += y;
          m++;
        }
      });
    const near = [...rows].flatMap(([y, r]) => r.map((id, x) => ({ id, x, y }))).filter((p) => p.id === k);
    near.sort(
      (a, b) => (a.x - sx / m) ** 2 + (a.y - sy / m) ** 2 - (b.x - sx / m) ** 2 - (b.y - sy / m) ** 2,
    );
    return { n: n + 1, at: near[0], big: m > 20 };
  });
  return (
    <Box mt="4" data-testid="map" data-rows={rows.size}>
      <Flex gap="4" direction={{ base: "column", md: "row" }}>
        <Box flex="1.6">
          <Flex fontSize="14px" justify="space-between">
            <span>
              ↑ {plane.y.name}, up to {write(plane.y.to, plane.y.unit)}
            </span>
          </Flex>
          <Box position="relative" border="2px solid" borderColor="ink">
            <canvas
              ref={canvas}
              width={plane.columns}
              height={plane.rows}
              style={{
                width: "100%",
                height: "min(46vh, 380px)",
                imageRendering: "pixelated",
                display: "block",
              }}
            />
            {marks.map(
              (m) =>
                m.at &&
                m.big && (
                  <Box
                    key={m.n}
                    position="absolute"
                    left={`${(100 * (m.at.x + 0.5)) / plane.columns}%`}
                    top={`${100 - (100 * (m.at.y + 0.5)) / plane.rows}%`}
                    transform="translate(-50%,-50%)"
                    fontWeight="700"
                    color="#10231d"
                    bg="#fffdf6cc"
                    px="1.5"
                    borderRadius="8px"
                  >
                    {m.n}
                  </Box>
                ),
            )}
            {cx !== undefined && cy !== undefined && (
              <Box
                position="absolute"
                left={`${cx}%`}
                top={`${100 - cy}%`}
                transform="translate(-50%,-50%)"
                w="22px"
                h="22px"
                borderRadius="50%"
                border="4px solid #10231d"
                outline="3px solid #fffdf6"
                title="your rig"
              />
            )}
          </Box>
          <Flex justify="space-between" fontSize="14px">
            <span>{write(plane.x.from, plane.x.unit)}</span>
            <span>{plane.x.name} →</span>
            <span>{write(plane.x.to, plane.x.unit)}</span>
          </Flex>
        </Box>
        <Box flex="1" fontSize="15.5px">
          {known.map((k, n) => (
            <Flex key={k || "none"} gap="2" align="center" py="1">
              <Box
                w="26px"
                h="26px"
                flex="none"
                borderRadius="6px"
                border="1.5px solid"
                borderColor="ink"
                textAlign="center"
                fontWeight="700"
                color={k ? "#10231d" : "#fff"}
                bg={k ? fills[n % fills.length] : "#6b2b20"}
              >
                {n + 1}
              </Box>
              {name(k)}
            </Flex>
          ))}
          {cx !== undefined && (
            <Flex gap="2" align="center" py="1">
              <Box w="22px" h="22px" flex="none" borderRadius="50%" border="4px solid" borderColor="ink" />{" "}
              your rig
            </Flex>
          )}
          <Box color="quiet" fontSize="14px" mt="2">
            Each patch is the first in rank there, everything else as in your rig. Both scales double at equal
            steps. <Evidence tag="computed" source="the ranking, worked out once for every patch" />
          </Box>
        </Box>
      </Flex>
    </Box>
  );
}
