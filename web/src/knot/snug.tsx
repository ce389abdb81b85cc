import { Box, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";
import { litPainter, type RopeLook } from "./lit";
import { paint, type Seen } from "./tube";

const calm = () => matchMedia("(prefers-reduced-motion: reduce)").matches;
const playFor = 2600;

/** A knot in the hand: from loose to drawn up, turned by mouse, touch and keys, cut through to see what grips what. */
export function SnugView({
  id,
  name,
  left,
  look,
}: {
  id: string;
  name: string;
  left: boolean;
  look: RopeLook;
}) {
  const { data, error } = useQuery(q.snug(id));
  const place = useRef<HTMLCanvasElement>(null);
  const [at, setAt] = useState(1);
  const [turn, setTurn] = useState({ x: 0, y: 0 });
  const [cut, setCut] = useState(1);
  const [playing, setPlaying] = useState(false);
  const drag = useRef<{ x: number; y: number } | undefined>(undefined);
  const lit = useRef<ReturnType<typeof litPainter> | null>(null);
  useEffect(() => {
    const canvas = place.current;
    if (!data || !canvas) return;
    if (lit.current === null) lit.current = litPainter(canvas);
    const seen: Seen = { at, turn: turn.x, tip: turn.y, left, cut };
    const strands = data.strands ?? [];
    const frame = requestAnimationFrame(() =>
      lit.current ? lit.current(strands, seen, look) : paint(canvas, strands, seen),
    );
    return () => cancelAnimationFrame(frame);
  }, [data, at, turn, left, cut, look]);
  // Played, it is drawn up in so many moments; with reduced motion at once.
  useEffect(() => {
    if (!playing) return;
    if (calm()) {
      setAt(1);
      setPlaying(false);
      return;
    }
    const began = performance.now();
    let frame = 0;
    const on = (now: number) => {
      const t = Math.min(1, (now - began) / playFor);
      setAt(t);
      if (t < 1) frame = requestAnimationFrame(on);
      else setPlaying(false);
    };
    frame = requestAnimationFrame(on);
    return () => cancelAnimationFrame(frame);
  }, [playing]);
  const by = (x: number, y: number) =>
    setTurn((t) => ({ x: t.x + x, y: Math.max(-1.5, Math.min(1.5, t.y + y)) }));
  if (error) return <Trouble error={error} />;
  return (
    <Box data-testid="snug">
      <canvas
        ref={place}
        width={800}
        height={600}
        tabIndex={0}
        role="img"
        aria-label={`${name}, ${at === 1 ? "drawn up" : at === 0 ? "loose" : "being drawn up"}; arrow keys turn it`}
        style={{ width: "100%", aspectRatio: "4 / 3", touchAction: "none", cursor: "grab" }}
        onPointerDown={(e) => {
          drag.current = { x: e.clientX, y: e.clientY };
          e.currentTarget.setPointerCapture(e.pointerId);
        }}
        onPointerMove={(e) => {
          if (!drag.current) return;
          by((e.clientX - drag.current.x) / 130, (e.clientY - drag.current.y) / 130);
          drag.current = { x: e.clientX, y: e.clientY };
        }}
        onPointerUp={() => {
          drag.current = undefined;
        }}
        onKeyDown={(e) => {
          const step = {
            ArrowLeft: [-0.2, 0],
            ArrowRight: [0.2, 0],
            ArrowUp: [0, -0.2],
            ArrowDown: [0, 0.2],
          }[e.key];
          if (!step) return;
          e.preventDefault();
          e.stopPropagation();
          by(step[0] ?? 0, step[1] ?? 0);
        }}
      />
      <Flex gap="3" align="center" wrap="wrap" className="no-print">
        <label style={{ flex: "1 1 200px" }}>
          Loose to drawn up
          <input
            type="range"
            min={0}
            max={1}
            step={0.01}
            value={at}
            onChange={(e) => {
              setPlaying(false);
              setAt(Number(e.target.value));
            }}
            style={{ width: "100%", accentColor: "var(--glass)" }}
          />
        </label>
        <label style={{ flex: "1 1 160px" }}>
          Cut through
          <input
            type="range"
            min={0}
            max={1}
            step={0.01}
            value={1 - cut}
            onChange={(e) => setCut(1 - Number(e.target.value))}
            style={{ width: "100%", accentColor: "var(--glass)" }}
          />
        </label>
        <Press small onClick={() => setPlaying(true)}>
          ▶ Draw it up
        </Press>
        <Press small onClick={() => setTurn((t) => ({ x: t.x + Math.PI, y: -t.y }))}>
          From behind
        </Press>
      </Flex>
      <Flex gap="3" mt="1" wrap="wrap" className="no-print">
        <a className="link" href={`/api/v1/knots/${id}/snug.gltf`} download={`${id}.gltf`}>
          as glTF
        </a>
        <a className="link" href={`/api/v1/knots/${id}/snug.stl`} download={`${id}.stl`}>
          to print, STL
        </a>
        <a className="link" href={`/api/v1/knots/${id}/snug.svg`} download={`${id}-drawn-up.svg`}>
          as a picture, SVG
        </a>
      </Flex>
    </Box>
  );
}

export type Built = Schemas["SnugBuilt"];
