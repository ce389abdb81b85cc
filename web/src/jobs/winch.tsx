/** What a picture of a jammed line shows: the thing that is jammed and how far the relief has come. */
export type Relief = "cause" | "clear" | "lead" | "haul" | "freed" | "ease";

const does: Record<Relief, string> = {
  cause: "The line comes from the left and is jammed at the right",
  clear: "Nobody stands in line with the loaded line or beside it",
  lead: "The helper, hitched to the line, leads to a second winch",
  haul: "The helper bears; the line is slack between the hitch and the jam",
  freed: "The jam is cleared while the helper bears",
  ease: "The helper is eased; the line bears again",
};

const [line, helper, moved] = ["var(--rope-1, #dc9a35)", "var(--rope-2, #4a9a90)", "var(--flare, #b3270f)"];

/** A line jammed on a winch or in a clutch, seen from above, and a helper that takes its load. */
export function Winch({ at, clutch }: { at: Relief; clutch: boolean }) {
  const on = ["lead", "haul", "freed", "ease"].includes(at);
  const bears = at === "haul" || at === "freed";
  const rope = (d: string, colour: string, now = false) => (
    <g fill="none" strokeLinecap="round">
      <path d={d} stroke="var(--rope-1-edge, #573a0d)" strokeWidth="6.5" />
      <path d={d} stroke={now ? moved : colour} strokeWidth="4.5" />
    </g>
  );
  return (
    <svg width="180" height="104" viewBox="0 0 180 104" role="img" aria-label={does[at]} className="block">
      {at === "clear" && (
        <rect
          x="4"
          y="14"
          width="172"
          height="32"
          rx="8"
          fill="var(--flare-wash, #fbe0d8)"
          stroke={moved}
          strokeDasharray="5 4"
        />
      )}
      <path d="M16 22L4 30L16 38Z" fill={moved} />
      {bears
        ? rope("M18 30H70C84 44 92 14 104 34S118 30 124 30", line, at === "haul")
        : rope("M18 30H124", line, at === "ease")}
      {clutch ? (
        <Clutch open={at === "freed" || at === "ease"} now={at === "cause" || at === "freed"} />
      ) : (
        <Drum y={30} crossed={at !== "freed" && at !== "ease"} now={at === "cause" || at === "freed"} />
      )}
      {on && (
        <>
          {rope(
            at === "ease" ? "M58 30C62 48 84 56 92 72S112 66 124 76" : "M58 30C70 44 96 70 124 76",
            helper,
            at === "lead" || at === "ease",
          )}
          <Drum y={76} crossed={false} now={false} />
          <path d="M50 24l5 12M57 24l5 12M64 24l5 12" stroke={helper} strokeWidth="4" strokeLinecap="round" />
        </>
      )}
      {at === "clear" && (
        <g stroke={moved} strokeWidth="3" strokeLinecap="round" fill="none">
          <circle cx="90" cy="70" r="6" />
          <path d="M90 76v14M82 82h16M90 90l-6 10M90 90l6 10M74 62l32 40" />
        </g>
      )}
    </svg>
  );
}

function Drum({ y, crossed, now }: { y: number; crossed: boolean; now: boolean }) {
  return (
    <g>
      <circle
        cx="142"
        cy={y}
        r="18"
        fill="var(--object, #a9b3ad)"
        stroke="var(--object-edge, #46524c)"
        strokeWidth="1.5"
      />
      <circle
        cx="142"
        cy={y}
        r="12"
        fill="none"
        stroke={now ? moved : "var(--rope-1, #dc9a35)"}
        strokeWidth="5"
      />
      {crossed && (
        <path
          d={`M133 ${y - 9}L151 ${y + 9}M151 ${y - 9}L133 ${y + 9}`}
          stroke={now ? moved : "var(--rope-1-edge, #573a0d)"}
          strokeWidth="4"
        />
      )}
    </g>
  );
}

function Clutch({ open, now }: { open: boolean; now: boolean }) {
  return (
    <g>
      <rect
        x="122"
        y="18"
        width="40"
        height="24"
        rx="4"
        fill="var(--object, #a9b3ad)"
        stroke="var(--object-edge, #46524c)"
        strokeWidth="1.5"
      />
      <path
        d={open ? "M142 18L168 -2" : "M142 18H112"}
        stroke={now ? moved : "var(--object-edge, #46524c)"}
        strokeWidth="6"
        strokeLinecap="round"
        transform={open ? "translate(0 6)" : undefined}
      />
      <path d="M162 30h16" stroke="var(--rope-1, #dc9a35)" strokeWidth="5" />
    </g>
  );
}
