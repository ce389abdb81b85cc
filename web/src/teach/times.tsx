import { Box } from "@chakra-ui/react";
import { useState } from "react";
import type { Attempt, Schemas } from "../api/client";
import { seconds } from "../ui/format";
import { Select } from "../ui/pick";

const marks = { right: "●", slow: "◔", fault: "✕" } as const;
const colours = { right: "var(--glass)", slow: "var(--amber)", fault: "var(--flare)" } as const;

/** Times of one knot over the days, with the time wanted as a line. */
export function Times({ attempts, standings }: { attempts: Attempt[]; standings: Schemas["PersonKnot"][] }) {
  const timed = attempts.filter((a) => a.seconds && a.kind !== "drill");
  const knots = standings.filter((s) => timed.some((a) => a.knot === s.knot));
  const [chosen, setChosen] = useState("");
  const knot = knots.find((s) => s.knot === chosen) ?? knots.toSorted((a, b) => b.attempts - a.attempts)[0];
  if (!knot) return <Box color="quiet">No times yet: start the clock of a round.</Box>;
  const list = timed.filter((a) => a.knot === knot.knot).toReversed();
  const most = Math.max(knot.target_s * 1.3, ...list.map((a) => a.seconds ?? 0));
  const [w, h, left] = [620, 220, 44];
  const x = (i: number) => left + 14 + ((w - left - 28) * i) / Math.max(1, list.length - 1);
  const y = (s: number) => h - 26 - ((h - 44) * s) / most;
  const day = (a: Attempt) =>
    new Date(a.at ?? 0).toLocaleDateString(undefined, { day: "numeric", month: "short" });
  return (
    <Box>
      <Select
        label="Knot"
        value={knot.knot}
        set={setChosen}
        list={knots.map((k) => ({ id: k.knot, name: k.name }))}
      />
      <svg
        viewBox={`0 0 ${w} ${h}`}
        width="100%"
        role="img"
        aria-label={`Times at the ${knot.name.toLowerCase()}: ${list.map((a) => `${seconds(a.seconds ?? 0)} ${a.outcome}`).join(", ")}; wanted ${seconds(knot.target_s)}`}
      >
        <path
          d={`M${left} ${h - 26}H${w}M${left} 10V${h - 26}`}
          stroke="var(--line)"
          strokeWidth="1.5"
          fill="none"
        />
        <path
          d={`M${left} ${y(knot.target_s)}H${w}`}
          stroke="var(--amber)"
          strokeWidth="2"
          strokeDasharray="6 5"
        />
        <text x={w - 4} y={y(knot.target_s) - 6} textAnchor="end" fontSize="14" fill="var(--amber)">
          wanted, {seconds(knot.target_s)}
        </text>
        {[0, 0.5, 1].map((f) => (
          <text key={f} x={left - 6} y={y(f * most) + 5} textAnchor="end" fontSize="14" fill="var(--quiet)">
            {Math.round(f * most)} s
          </text>
        ))}
        <path
          d={list.map((a, i) => `${i ? "L" : "M"}${x(i)} ${y(a.seconds ?? 0)}`).join("")}
          fill="none"
          stroke="var(--quiet)"
          strokeWidth="1.2"
        />
        {list.map((a, i) => (
          <text
            key={a.id}
            x={x(i)}
            y={y(a.seconds ?? 0) + 6}
            textAnchor="middle"
            fontSize="18"
            fill={colours[a.outcome]}
          >
            {marks[a.outcome]}
          </text>
        ))}
        {list.map((a, i) =>
          i === 0 || (i === list.length - 1 && list.length > 2) || i === Math.floor(list.length / 2) ? (
            <text
              key={`${a.id} day`}
              x={x(i)}
              y={h - 6}
              textAnchor={i === list.length - 1 && i > 0 ? "end" : i === 0 ? "start" : "middle"}
              fontSize="14"
              fill="var(--quiet)"
            >
              {day(a)}
            </text>
          ) : null,
        )}
      </svg>
    </Box>
  );
}
