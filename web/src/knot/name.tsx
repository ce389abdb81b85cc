import { Box, Flex } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import { useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { useDraft } from "../ui/draft";
import { useMedia } from "../ui/media";
import { Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";
import { Crossing } from "./crossing";
import { Told } from "./named";
import {
  apart,
  bare,
  exchanged,
  knotted,
  length,
  type Meeting,
  most,
  path,
  piece,
  ring,
  smooth,
  type Tracing,
  turned,
  withObject,
  without,
  withRope,
} from "./traced";

type Tool = "rope" | "ring" | "bar";

const wide = 1000;
/** How high the bare ground is: on a phone higher than it is wide. */
const usual = { desk: 720, phone: 1150 };

/** A tied knot traced over its photo, or on bare ground: which knot is it? */
export function NameView() {
  const [draft, keep] = useDraft<{ now: Tracing; before: Tracing[] }>("traced", () => ({
    now: bare,
    before: [],
  }));
  const { now } = draft;
  const [tool, setTool] = useState<Tool | undefined>(now.ropes.length ? undefined : "rope");
  const photo = usePhoto();
  const phone = useMedia("(max-width: 600px)");
  // As tall as the photo; without one, as what was drawn over it.
  const lowest = Math.max(...now.ropes.flatMap((r) => r.points.map((p) => p[1] ?? 0)), 0);
  const height = photo.shape
    ? Math.max(400, Math.min(2000, wide / photo.shape))
    : Math.max(phone ? usual.phone : usual.desk, lowest + 60);
  const set = (next: Tracing) => keep({ now: next, before: [...draft.before.slice(-30), now] });
  const answer = useLasting({ ...q.traced(now), enabled: knotted(now) > 0 });
  const told = knotted(now) > 0 ? answer.data : undefined;
  const meets = told?.meetings ?? [];
  useEffect(() => {
    document.title = "Name what you tied · Oarweed";
  }, []);
  const drawn = (points: number[][]) => {
    if (tool === "rope") {
      const line = smooth(points);
      if (line.length < 2 || length(line) < 40) return;
      set(withRope(now, line));
    } else {
      const [a, b] = [points[0], points[points.length - 1]];
      if (!a || !b || apart(a, b) < 12) return;
      set(tool === "ring" ? withObject(now, ring(a, apart(a, b)), true) : withObject(now, [a, b], false));
    }
    setTool(undefined);
  };
  return (
    <Page maxW="1240px" py="4">
      <Title>Name what you tied</Title>
      <Flex gap="5" mt="2" direction={{ base: "column", lg: "row" }} align="flex-start">
        <Box flex="1.7" w="100%" minW="0">
          <Tools
            tool={tool}
            take={(t) => setTool(t === tool ? undefined : t)}
            now={now}
            photo={photo}
            undo={
              draft.before.length
                ? () =>
                    keep({ now: draft.before[draft.before.length - 1], before: draft.before.slice(0, -1) })
                : undefined
            }
            clear={() => {
              set(bare);
              setTool("rope");
            }}
          />
          <Box mb="1.5" minH="26px" fontWeight={tool ? "700" : undefined} color={tool ? "flare" : "quiet"}>
            {tool ? hint[tool] : "Touch a crossing to turn it over."}
          </Box>
          <Ground
            now={now}
            meets={meets}
            height={height}
            photo={photo.url}
            tool={tool}
            drawn={drawn}
            turn={(m) => set(turned(now, m))}
            wrong={told?.matches[0]?.changes ?? []}
          />
        </Box>
        <Box flex="1" w="100%" aria-live="polite" data-testid="named">
          <Trouble error={answer.error ?? undefined} />
          {!told && !answer.error && <Steps />}
          {told && !answer.error && <Told told={told} turn={(m) => set(turned(now, m))} />}
          {told && meets.length > 0 && told.left > 0 && (
            <ByEar meets={meets} turn={(m) => set(turned(now, m))} />
          )}
          {knotted(now) > 0 && (
            <Flex gap="2" mt="4" wrap="wrap">
              <Press small onClick={() => set(exchanged(now))}>
                Standing part and end the other way
              </Press>
              <Press small onClick={() => set(without(now, now.ropes.length - 1))}>
                Take the last line away
              </Press>
            </Flex>
          )}
        </Box>
      </Flex>
    </Page>
  );
}

function Steps() {
  return (
    <Card as="ol" ps="8" listStyleType="decimal" fontSize="lg" css={{ "& li + li": { mt: 2 } }}>
      <li>Lay the knot flat and open, take a photo, or draw on the bare ground.</li>
      <li>Draw along the line in one go, from its standing part to its end.</li>
      <li>Draw what it is tied round: a ring, or a post or rail.</li>
      <li>Touch each crossing until the right strand lies on top.</li>
    </Card>
  );
}

/** A photo to draw over. It stays on this device. */
function usePhoto() {
  const [url, setUrl] = useState("");
  const [shape, setShape] = useState(0);
  const [trouble, setTrouble] = useState("");
  useEffect(() => () => URL.revokeObjectURL(url), [url]);
  const take = async (file: File | undefined) => {
    if (!file) return;
    try {
      const picture = await createImageBitmap(file);
      setShape(picture.width / picture.height);
      setUrl(URL.createObjectURL(file));
      setTrouble("");
    } catch {
      setTrouble("This file is no picture that can be shown. Choose a JPEG or PNG.");
    }
  };
  return { url, shape, trouble, take, drop: () => (setUrl(""), setShape(0)) };
}

function Tools(p: {
  tool: Tool | undefined;
  take: (t: Tool) => void;
  now: Tracing;
  photo: ReturnType<typeof usePhoto>;
  undo: (() => void) | undefined;
  clear: () => void;
}) {
  const { tool, take, now, photo, undo, clear } = p;
  const file = useRef<HTMLInputElement>(null);
  const tools: [Tool, string, boolean][] = [
    ["rope", knotted(now) ? "A second line" : "The line", knotted(now) < most],
    ["ring", "Ring or eye", true],
    ["bar", "Post or rail", true],
  ];
  return (
    <>
      <Flex gap="2" wrap="wrap" mb="2" role="group" aria-label="Draw">
        {tools.map(([id, name, can]) => (
          <Press key={id} small aria-pressed={tool === id} disabled={!can} onClick={() => take(id)}>
            {name}
          </Press>
        ))}
        <Press small onClick={() => file.current?.click()}>
          {photo.url ? "Another photo" : "Photo"}
        </Press>
        {photo.url && (
          <Press small look="bare" onClick={photo.drop}>
            No photo
          </Press>
        )}
        <input
          ref={file}
          type="file"
          accept="image/*"
          hidden
          aria-label="A photo of the knot"
          onChange={(e) => void photo.take(e.target.files?.[0])}
        />
        <Box flex="1" />
        <Press small disabled={!undo} onClick={undo}>
          Undo
        </Press>
        <Press small disabled={now.ropes.length === 0} onClick={clear}>
          Clear
        </Press>
      </Flex>
      {photo.trouble && (
        <Box role="alert" color="flare" mb="2">
          {photo.trouble}
        </Box>
      )}
    </>
  );
}

const hint: Record<Tool, string> = {
  rope: "Draw along the line in one go: from its standing part to its end.",
  ring: "Draw from the middle of the ring out to its edge.",
  bar: "Draw along the post or rail, from one end to the other.",
};

/** What is drawn on, with a button at every crossing. */
function Ground(p: {
  now: Tracing;
  meets: Meeting[];
  height: number;
  photo: string;
  tool: Tool | undefined;
  drawn: (points: number[][]) => void;
  turn: (m: Meeting) => void;
  wrong: (number[] | null)[];
}) {
  const { now, meets, height, photo, tool, drawn, turn, wrong } = p;
  const svg = useRef<SVGSVGElement>(null);
  const pen = usePen(svg, height, drawn, tool);
  const isWrong = (m: Meeting) =>
    wrong.some((e) => {
      const said = m.over === "b" ? [...m.b, ...m.a] : [...m.a, ...m.b];
      return e?.join() === said.join();
    });
  return (
    <Box
      position="relative"
      w="100%"
      maxW={`calc(max(100vh - 215px, 300px) * ${wide / height})`}
      border="1.5px solid"
      borderColor="rule"
      borderRadius="md"
      bg="sheet"
      overflow="hidden"
    >
      <svg
        ref={svg}
        viewBox={`0 0 ${wide} ${height}`}
        width="100%"
        style={{
          display: "block",
          touchAction: tool ? "none" : "auto",
          cursor: tool ? "crosshair" : "default",
        }}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it is drawn on, by the keyboard too
        tabIndex={tool ? 0 : -1}
        role="application"
        aria-label={
          tool
            ? `${hint[tool]} By keys: arrows lead the pen, Enter sets a point, End finishes.`
            : "The tracing"
        }
        {...pen.on}
      >
        {photo && <image href={photo} width={wide} height={height} preserveAspectRatio="xMidYMid meet" />}
        <Ropes now={now} meets={meets} photo={photo !== ""} />
        {pen.line.length > 1 && (
          <path
            d={path(pen.line)}
            fill="none"
            stroke="var(--move)"
            strokeWidth="8"
            strokeLinecap="round"
            strokeLinejoin="round"
          />
        )}
        {pen.at && (
          <circle cx={pen.at[0]} cy={pen.at[1]} r="12" fill="none" stroke="var(--move)" strokeWidth="4" />
        )}
        <Ends now={now} tall={height > wide} />
      </svg>
      {!tool &&
        meets.map((m, i) => (
          <Crossing
            key={`${m.a.join()} ${m.b.join()}`}
            type="button"
            open={!m.over}
            wrong={Boolean(m.over) && isWrong(m)}
            data-spot={i}
            data-over={m.over ?? ""}
            aria-label={spoken(m, i)}
            left={`${(m.x / wide) * 100}%`}
            top={`${(m.y / height) * 100}%`}
            onClick={() => turn(m)}
          >
            {m.over ? "" : "?"}
          </Crossing>
        ))}
    </Box>
  );
}

const spoken = (m: Meeting, i: number) =>
  `Crossing ${i + 1}: ${!m.over ? "not marked" : m.over === "a" ? "the strand drawn first lies over" : "the strand drawn later lies over"}`;

/** A pen led by finger, mouse or arrow keys. */
function usePen(
  svg: React.RefObject<SVGSVGElement | null>,
  height: number,
  drawn: (points: number[][]) => void,
  tool: Tool | undefined,
) {
  const [line, setLine] = useState<number[][]>([]);
  const [at, setAt] = useState<number[]>();
  const down = useRef(false);
  // Moves come faster than the page is drawn: what was drawn is kept here, and shown from there.
  const ink = useRef<number[][]>([]);
  const draw = (points: number[][]) => {
    ink.current = points;
    setLine(points);
  };
  const place = (e: React.PointerEvent) => {
    const box = svg.current?.getBoundingClientRect();
    if (!box) return [0, 0];
    return [((e.clientX - box.left) / box.width) * wide, ((e.clientY - box.top) / box.height) * height];
  };
  const finish = () => {
    down.current = false;
    if (ink.current.length > 1) drawn(ink.current);
    draw([]);
    setAt(undefined);
  };
  const key = (e: React.KeyboardEvent) => {
    if (!tool) return;
    const by = e.shiftKey ? 60 : 20;
    const step = { ArrowRight: [by, 0], ArrowLeft: [-by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[e.key];
    const pen = at ?? [wide / 2, height / 2];
    if (step) {
      setAt([
        Math.max(0, Math.min(wide, (pen[0] ?? 0) + (step[0] ?? 0))),
        Math.max(0, Math.min(height, (pen[1] ?? 0) + (step[1] ?? 0))),
      ]);
    } else if (e.key === "Enter" || e.key === " ") draw([...ink.current, pen]);
    else if (e.key === "End") finish();
    else if (e.key === "Backspace") draw(ink.current.slice(0, -1));
    else return;
    e.preventDefault();
  };
  return {
    line,
    at,
    on: {
      onKeyDown: key,
      onPointerDown: (e: React.PointerEvent) => {
        if (!tool || e.button > 0) return;
        svg.current?.setPointerCapture(e.pointerId);
        down.current = true;
        draw([place(e)]);
      },
      onPointerMove: (e: React.PointerEvent) => {
        if (!down.current) return;
        const p = place(e);
        const before = ink.current[ink.current.length - 1];
        if (!before || apart(before, p) > 3) draw([...ink.current, p]);
      },
      onPointerUp: () => down.current && finish(),
      onPointerCancel: () => {
        down.current = false;
        draw([]);
      },
    },
  };
}

/** Over a photo, where most rope is brown or white, the first line is red. */
const colour = (now: Tracing, i: number, photo: boolean) => {
  if (i === now.object) return { edge: "var(--object-edge)", body: "var(--object)" };
  const first = now.ropes.findIndex((_, k) => k !== now.object);
  return i === first
    ? photo
      ? { edge: "var(--sheet)", body: "var(--move)" }
      : { edge: "var(--rope-1-edge)", body: "var(--rope-1)" }
    : { edge: "var(--rope-2-edge)", body: "var(--rope-2)" };
};

/** The ropes as they lie: at each marked crossing the upper one once more over the lower. */
function Ropes({ now, meets, photo }: { now: Tracing; meets: Meeting[]; photo: boolean }) {
  const laid = (
    points: number[][],
    i: number,
    key: string,
    closed?: boolean,
    cap: "round" | "butt" = "round",
  ) => {
    const { edge, body } = colour(now, i, photo);
    const line = {
      d: path(points, closed),
      fill: "none",
      strokeLinejoin: "round",
      strokeLinecap: cap,
    } as const;
    return (
      <g key={key}>
        {cap === "butt" && <path {...line} stroke="var(--sheet)" strokeWidth="34" />}
        <path {...line} stroke={edge} strokeWidth="24" />
        <path {...line} stroke={body} strokeWidth="17" />
      </g>
    );
  };
  return (
    <g>
      {now.ropes.map((r, i) => laid(r.points, i, `rope ${i}`, r.closed))}
      {meets.map((m) => {
        if (!m.over) return null;
        const [rope = 0, segment = 0] = m.over === "a" ? m.a : m.b;
        const r = now.ropes[rope];
        if (!r) return null;
        // A ring is a line that comes back: about its first point the piece runs on at its other end.
        const points = r.closed ? [...r.points, ...r.points.slice(0, 12)] : r.points;
        return laid(
          piece(points, segment, [m.x, m.y], 26),
          rope,
          `${m.a.join()} ${m.b.join()}`,
          false,
          "butt",
        );
      })}
    </g>
  );
}

/** Which end is which. */
function Ends({ now, tall }: { now: Tracing; tall: boolean }) {
  const phone = useMedia("(max-width: 600px)");
  const size = phone || tall ? 42 : 24;
  const label = (p: number[] | undefined, text: string) =>
    p && (
      <text
        key={text + p.join()}
        x={(p[0] ?? 0) + ((p[0] ?? 0) > wide * 0.75 ? -24 : 24)}
        y={(p[1] ?? 0) + ((p[1] ?? 0) < 70 ? size : -14)}
        textAnchor={(p[0] ?? 0) > wide * 0.75 ? "end" : "start"}
        style={{ fontSize: size }}
        fontWeight="700"
        fill="var(--ink)"
        stroke="var(--sheet)"
        strokeWidth="6"
        paintOrder="stroke"
      >
        {text}
      </text>
    );
  return (
    <g>
      {now.ropes.map((r, i) =>
        i === now.object
          ? null
          : [label(r.points[0], "standing part"), label(r.points[r.points.length - 1], "end")],
      )}
    </g>
  );
}

/** The crossings as a list, for whoever does not see or touch them. */
function ByEar({ meets, turn }: { meets: Meeting[]; turn: (m: Meeting) => void }) {
  return (
    <Box asChild mt="3">
      <details>
        <summary>Crossing after crossing, as a list</summary>
        <Flex direction="column" gap="1.5" mt="2">
          {meets.map((m, i) => (
            <Press key={`${m.a.join()} ${m.b.join()}`} small onClick={() => turn(m)}>
              {spoken(m, i)}
            </Press>
          ))}
        </Flex>
      </details>
    </Box>
  );
}
