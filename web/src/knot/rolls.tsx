import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Drawing, FaultDrawing } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";

type Join = Schemas["RollOf"];

/** A lesson: why the granny rolls out and the reef knot does not. */
export function RollsView() {
  const { data, error } = useQuery(q.rolls());
  const [arrows, setArrows] = useState(true);
  useEffect(() => {
    document.title = "Why the granny rolls out · Oarweed";
  }, []);
  return (
    <Page maxW="1240px" py="4">
      <Flex align="center" gap="3" wrap="wrap">
        <Title>Why the granny rolls out</Title>
        {data && <Evidence tag="computed" source={data.evidence} />}
      </Flex>
      <Box fontSize="lg" maxW="68ch" mt="1">
        At every crossing two ropes lie on each other. Pull both, and each crossing wants to turn, one way or
        the other: that is the arrow. Where all turn the same way, the knot rolls like a pencil and the ends
        walk out. Where half turn one way and half the other, they hold each other.
      </Box>
      <Press small mt="2" aria-pressed={arrows} onClick={() => setArrows(!arrows)}>
        Arrows
      </Press>
      <Trouble error={error} />
      <Grid templateColumns={{ base: "1fr", md: "1fr 1fr" }} gap="4" mt="3">
        {data?.joins.map((j) => (
          <One key={j.id} join={j} arrows={arrows} />
        ))}
      </Grid>
      <Card mt="4">
        <strong>What it does not say.</strong> It counts crossings; it measures no hold. Thick or thin,
        slippery or rough, wet or dry: none of that is in it. It ranks nothing here, and of other knots it
        says nothing. The reef knot binds; to join two lines take a{" "}
        <Link className="link" to="/knots/zeppelin-bend">
          zeppelin bend
        </Link>{" "}
        or a{" "}
        <Link className="link" to="/knots/sheet-bend">
          sheet bend
        </Link>
        .
      </Card>
    </Page>
  );
}

function One({ join, arrows }: { join: Join; arrows: boolean }) {
  const [x, y, w, h] = join.frame as [number, number, number, number];
  const { good } = join;
  return (
    <Card kind={good ? "good" : "warn"} data-join={join.id}>
      <Flex gap="3" direction={{ base: "column", sm: "row" }} align="center">
        <Box position="relative" w="min(300px, 100%)" aspectRatio={`${w} / ${h}`} flex="none">
          {!good ? (
            <FaultDrawing id={join.id} look="laid" bare w="100%" h="100%" />
          ) : (
            <Drawing id={join.id} name={join.name} drawn w="100%" h="100%" />
          )}
          {arrows && (
            <svg
              viewBox={`${x} ${y} ${w} ${h}`}
              style={{ position: "absolute", inset: 0, width: "100%", height: "100%" }}
              role="img"
              aria-label={join.says}
            >
              {join.turns.map((t) => (
                <Arrow key={`${t.at.X} ${t.at.Y}`} x={t.at.X} y={t.at.Y} sign={t.sign} />
              ))}
            </svg>
          )}
        </Box>
        <Box>
          <Box className="head" fontSize="xl">
            {good ? "✓" : "✕"} {join.name}
          </Box>
          <Box fontSize="lg">{join.says}</Box>
          <Box mt="1" color="quiet">
            {join.counted}
          </Box>
        </Box>
      </Flex>
    </Card>
  );
}

/** An arrow round a crossing: one colour and one way round for each sign. */
function Arrow({ x, y, sign }: { x: number; y: number; sign: number }) {
  const r = 1.05;
  const at = (deg: number) => {
    const a = (deg * Math.PI) / 180;
    return [x + r * Math.cos(a), y + r * Math.sin(a)] as const;
  };
  const clockwise = sign > 0;
  const [from, to] = clockwise ? [at(-60), at(180)] : [at(-120), at(0)];
  const colour = clockwise ? "var(--move)" : "var(--kelp)";
  // The head, along the arc where it ends.
  const [hx, hy] = to;
  const way = clockwise ? [0, -1] : [0, -1];
  const head = [
    [hx - 0.42, hy + 0.1],
    [hx + 0.42, hy + 0.1],
    [hx, hy + 0.1 + (way[1] as number) * 0.75],
  ];
  return (
    <g fill="none" stroke="var(--sheet)" strokeWidth="0.5" strokeLinecap="round">
      <path d={`M${from.join(" ")}A${r} ${r} 0 1 ${clockwise ? 1 : 0} ${to.join(" ")}`} />
      <path
        d={`M${from.join(" ")}A${r} ${r} 0 1 ${clockwise ? 1 : 0} ${to.join(" ")}`}
        stroke={colour}
        strokeWidth="0.26"
      />
      <path
        d={`M${head.map((p) => p.join(" ")).join("L")}Z`}
        fill={colour}
        stroke="var(--sheet)"
        strokeWidth="0.1"
      />
    </g>
  );
}
