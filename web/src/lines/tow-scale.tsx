import { Box } from "@chakra-ui/react";
import { reach } from "../ui/format";

type Tow = {
  takeoffs_m: number[];
  takeoff_m: number;
  take_up_m: number;
  want_m: number;
  hitch: string;
};

/** The line to scale from handle to boat, its take-offs, where it is made fast, and where it is rubbed. */
export function Scaled({
  tow,
  on,
  say,
  rubbed = [],
}: {
  tow: Tow;
  on: string;
  /** Writes a length. */
  say: (m: number) => string;
  rubbed?: { place_m: number; n: number }[];
}) {
  const total = Math.max(...tow.takeoffs_m, tow.want_m);
  const at = tow.takeoff_m - tow.take_up_m;
  // The long plain part is drawn shortened, with a break in it, so that the take-offs stand apart.
  const first = Math.min(...tow.takeoffs_m, at);
  const cut = first - 0.35 * (total - first);
  const broken = cut > 0.3 * total;
  const x = (m: number) =>
    !broken
      ? 40 + (1010 * m) / total
      : m < cut
        ? 40 + (260 * m) / cut
        : 300 + (750 * (m - cut)) / (total - cut);
  const step = total > 12 ? 5 : 1;
  const ticks = Array.from({ length: Math.floor(total / step) + 1 }, (_, i) => i * step);
  // Numbers of take-offs that stand too near one another are left out: the loops stay.
  const apart = (i: number) => i === 0 || x(tow.takeoffs_m[i] ?? 0) - x(tow.takeoffs_m[i - 1] ?? 0) > 60;
  // A number would stand in what the line is made fast to.
  const clear = (m: number) => m > at || x(at) - x(m) > 42;
  return (
    <Box ref={toTheEnd} overflowX="auto" tabIndex={0} role="group" aria-label="The line to scale">
      <svg
        viewBox="0 0 1100 196"
        style={{ minWidth: 640, width: "100%", display: "block" }}
        role="img"
        aria-label={`Take-offs at ${tow.takeoffs_m.map(say).join(", ")} from the handle; made fast at ${say(at)}`}
      >
        <path
          d={`M0 132${"q11 -7 22 0t22 0".repeat(25)}`}
          fill="none"
          stroke="var(--glass)"
          strokeWidth="2"
          opacity="0.5"
        />
        <path
          d={`M${x(at) - 26} 112H1100V150H${x(at) - 10}Z`}
          fill="var(--glass-wash)"
          stroke="var(--object-edge)"
          strokeWidth="2"
        />
        <Stands at={x(at)} on={on} />
        <Cord d={`M40 76H${x(at)}`} />
        {total - at > 0.02 && <Cord d={`M${x(at)} 80C${x(at) + 20} 98 ${x(total) - 30} 96 ${x(total)} 92`} />}
        {broken && (
          <g>
            <path d="M292 60L308 92M284 60L300 92" stroke="var(--sheet)" strokeWidth="9" />
            <path d="M296 60L312 92M280 60L296 92" stroke="var(--ink)" strokeWidth="2" />
            <path d="M294 170L300 182M300 170L306 182" stroke="var(--ink)" strokeWidth="2" />
          </g>
        )}
        {rubbed.map((r) => (
          <g key={r.place_m} stroke="var(--flare)" strokeWidth="2.6" strokeLinecap="round">
            <path
              d={`M${x(r.place_m)} 68v-10M${x(r.place_m) - 6} 69l-6 -8M${x(r.place_m) + 6} 69l6 -8M${x(r.place_m)} 84v10M${x(r.place_m) - 6} 83l-6 8M${x(r.place_m) + 6} 83l6 8`}
            />
            {Math.abs(x(r.place_m) - x(at)) > 60 && (
              <text
                x={x(r.place_m)}
                y="110"
                textAnchor="middle"
                fontSize="14"
                fontWeight="700"
                fill="var(--flare)"
                stroke="none"
              >
                {r.n} runs
              </text>
            )}
          </g>
        ))}
        <path d="M40 76L22 60M40 76L22 92" stroke="var(--rope-1-edge)" strokeWidth="4" />
        <path d="M20 48V104" stroke="var(--ink)" strokeWidth="10" strokeLinecap="round" />
        {tow.takeoffs_m.map((m, i) => {
          const y = m > at + 0.02 ? 92 : 76;
          const here = m === tow.takeoff_m;
          return (
            <g key={m}>
              <ellipse
                cx={x(m)}
                cy={y + 12}
                rx="8"
                ry="11"
                fill="none"
                stroke="var(--rope-1-edge)"
                strokeWidth="6"
              />
              <ellipse
                cx={x(m)}
                cy={y + 12}
                rx="8"
                ry="11"
                fill="none"
                stroke={here ? "var(--flare)" : "var(--rope-1)"}
                strokeWidth="3.4"
              />
              {(apart(i) || here) && clear(m) && (
                <text
                  x={x(m)}
                  y={y > 80 ? 134 : 58}
                  textAnchor="middle"
                  fontSize="15"
                  fontWeight={here ? 700 : 400}
                  fill="var(--ink)"
                >
                  {say(m)}
                </text>
              )}
            </g>
          );
        })}
        {tow.hitch ? (
          <Cord d={`M${x(at) - 12} 70L${x(at) + 12} 82M${x(at) - 12} 82L${x(at) + 12} 70`} now />
        ) : (
          <circle cx={x(at)} cy="76" r="13" fill="none" stroke="var(--flare)" strokeWidth="5" />
        )}
        <path d={`M${x(at)} 8V38`} stroke="var(--amber)" strokeWidth="2" strokeDasharray="5 4" />
        <text x={x(at) - 8} y="20" textAnchor="end" fontSize="17" fontWeight="700" fill="var(--amber)">
          {say(tow.want_m)} wanted
        </text>
        {tow.hitch && (
          <>
            <path
              d={`M${x(at)} 142V162M${x(tow.takeoff_m)} 138V162M${x(at)} 157H${x(tow.takeoff_m)}`}
              stroke="var(--ink)"
              strokeWidth="1.6"
            />
            <text x={x(tow.takeoff_m) + 8} y="166" fontSize="16" fontWeight="700" fill="var(--ink)">
              {reach(tow.take_up_m)}
            </text>
          </>
        )}
        {ticks
          .filter((m) => !broken || m === 0 || m > cut)
          .map((m) => (
            <g key={m}>
              <path d={`M${x(m)} 172V180`} stroke="var(--ink)" strokeWidth="1.6" />
              <text x={x(m)} y="194" textAnchor="middle" fontSize="14" fill="var(--quiet)">
                {m} m
              </text>
            </g>
          ))}
        <path d={`M40 176H${x(total)}`} stroke="var(--ink)" strokeWidth="1.6" />
      </svg>
    </Box>
  );
}

/** Where it does not fit, the end with the take-offs is seen first. */
const toTheEnd = (box: HTMLElement | null) => {
  if (box) box.scrollLeft = box.scrollWidth;
};

/** What the line is made fast to, standing in the boat. */
function Stands({ at, on }: { at: number; on: string }) {
  const look = { fill: "var(--object)", stroke: "var(--object-edge)", strokeWidth: 2 };
  if (on === "tower")
    return (
      <>
        <path d={`M${at + 34} 114L${at + 4} 62H${at - 4}V52H${at + 12}L${at + 46} 114Z`} {...look} />
        <circle cx={at} cy="62" r="9" {...look} />
      </>
    );
  if (on === "hook")
    return (
      <path
        d={`M${at + 26} 114V70H${at + 8}C${at - 10} 70 ${at - 10} 92 ${at + 4} 92`}
        fill="none"
        stroke="var(--object-edge)"
        strokeWidth="7"
        strokeLinecap="round"
      />
    );
  if (on === "eye")
    return (
      <path
        d={`M${at - 9} 114V78A9 9 0 01${at + 9} 78V114`}
        fill="none"
        stroke="var(--object-edge)"
        strokeWidth="6"
      />
    );
  return (
    <>
      <rect x={at - 9} y="48" width="18" height="66" rx="3" {...look} />
      <rect x={at - 14} y="42" width="28" height="10" rx="4" {...look} />
    </>
  );
}

export const Cord = ({ d, now = false }: { d: string; now?: boolean }) => (
  <g fill="none" strokeLinecap="round">
    <path d={d} stroke="var(--rope-1-edge)" strokeWidth="8" />
    <path d={d} stroke={now ? "var(--flare)" : "var(--rope-1)"} strokeWidth="5.5" />
  </g>
);
