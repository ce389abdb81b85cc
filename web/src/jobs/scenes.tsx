import type { ReactNode } from "react";
import {
  Arrow,
  Clear,
  Cleat,
  Coil,
  Gauge,
  Head,
  Hull,
  Line,
  Lump,
  moved,
  No,
  Person,
  Quay,
  Said,
  Scene,
  Side,
  Water,
} from "./drawn";

const wood = "var(--wood, #b99b72)";

/** Somebody's head and arms in the water. */
const Swimmer = ({ x, y }: { x: number; y: number }) => (
  <g stroke="var(--ink)" strokeWidth="4" strokeLinecap="round">
    <circle cx={x} cy={y - 6} r="5" fill="var(--ink)" stroke="none" />
    <path d={`M${x - 4} ${y + 4}L${x - 14} ${y - 8}M${x + 4} ${y + 4}L${x + 14} ${y - 8}`} />
  </g>
);

const Mast = ({ children }: { children?: ReactNode }) => (
  <g>
    <rect x="84" y="2" width="8" height="86" rx="3" fill="var(--object)" stroke="var(--object-edge)" />
    <rect x="20" y="88" width="140" height="12" fill="var(--object-light)" stroke="var(--object-edge)" />
    {children}
  </g>
);

/** Somebody hanging in a harness at height y, on one line or two. */
const Aloft = ({ y, two = true, now = false }: { y: number; two?: boolean; now?: boolean }) => (
  <g>
    <Line d={`M106 ${y - 22}V6L96 4`} w={3} now={now} />
    {two && <Line d={`M112 ${y - 20}V10L96 8`} w={3} second />}
    <Person x={108} y={y + 12} arms={[[-14, -32]]} at={0.9} />
  </g>
);

const Pulled = ({
  knot = true,
  marks = true,
  crept = 0,
}: {
  knot?: boolean;
  marks?: boolean;
  crept?: number;
}) => (
  <g>
    <rect x="4" y="24" width="14" height="44" rx="3" fill="var(--object)" stroke="var(--object-edge)" />
    <Line d="M18 46H76M100 46H170" />
    <Line d="M100 41C112 40 114 28 122 26" w={3} />
    {knot && <Lump x={88} y={46} />}
    {marks && (
      <path
        d={`M70 40V52M${106 + crept} 40V52M${112 - crept} 24L118 36`}
        stroke={moved}
        strokeWidth="3"
        strokeLinecap="round"
      />
    )}
  </g>
);

/** Berthed: hull under the quay with lines from its cleats. */
const Berth = ({ children, y = 62, x = 90 }: { children?: ReactNode; y?: number; x?: number }) => (
  <g>
    <Quay cleats={[30, 90, 150]} />
    <Hull x={x} y={y} />
    {children}
  </g>
);

const Screw = ({ x, y, turns = false }: { x: number; y: number; turns?: boolean }) => (
  <g transform={`translate(${x} ${y})`} fill={turns ? "var(--glass)" : moved}>
    <ellipse cx="0" cy="-6" rx="3" ry="6" />
    <ellipse cx="0" cy="6" rx="3" ry="6" />
  </g>
);

const scenes: Record<string, { says: string; drawn: ReactNode }> = {
  "jam-sea-room": {
    says: "A sail that can be neither eased nor trimmed; the helm makes sea room and bears away",
    drawn: (
      <>
        <rect width="180" height="104" fill="var(--glass-wash)" />
        <Hull x={74} y={56} />
        <path d="M104 56Q72 28 40 44" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
        <Arrow from={[134, 62]} to={[160, 88]} />
        <Said x={108} y={20} w={124}>
          sheet jammed!
        </Said>
      </>
    ),
  },
  "aloft-words": {
    says: "The words up, stop, down and make fast are agreed; nobody stands below the mast",
    drawn: (
      <Mast>
        <Clear x={62} y={60} w={52} h={28} />
        <Said x={38} y={18}>
          up
        </Said>
        <Said x={38} y={42}>
          stop
        </Said>
        <Said x={142} y={18}>
          down
        </Said>
        <Said x={140} y={42} w={78}>
          make fast
        </Said>
        <No x={88} y={74} r={9} />
      </Mast>
    ),
  },
  "aloft-second": {
    says: "Two halyards, each with its own knot, each tended by its own person",
    drawn: (
      <Mast>
        <Aloft y={44} />
        <Line d="M82 8L40 60" w={3} />
        <Line d="M94 6L150 60" w={3} second now />
        <Person x={34} y={88} arms={[[6, -28]]} />
        <Person x={156} y={88} arms={[[-6, -28]]} />
      </Mast>
    ),
  },
  "aloft-look": {
    says: "Two people look at knot, backup, harness, halyards and winch, each for himself",
    drawn: (
      <>
        <Line d="M90 0V34" />
        <Lump x={90} y={42} />
        <Lump x={90} y={58} />
        <path
          d="M78 76a12 14 0 1 0 24 0a12 14 0 1 0 -24 0"
          fill="none"
          stroke="var(--object-edge)"
          strokeWidth="4"
        />
        <Person x={34} y={98} />
        <Person x={146} y={98} />
        <path d="M42 62L76 46M138 62L104 46" stroke={moved} strokeWidth="2" strokeDasharray="5 4" />
      </>
    ),
  },
  "aloft-bounce": {
    says: "Hanging a metre above the deck, the one who goes bounces",
    drawn: (
      <Mast>
        <Aloft y={64} />
        <Arrow from={[132, 58]} to={[132, 44]} />
        <Arrow from={[132, 58]} to={[132, 74]} />
        <path d="M146 76V88M142 76H150M142 88H150" stroke="var(--ink)" strokeWidth="1.5" />
        <text x="153" y="86" fontSize="12" fill="var(--ink)">
          1 m
        </text>
      </Mast>
    ),
  },
  "aloft-up": {
    says: "Up, with the second line taken in all the time; aloft a lanyard round the mast",
    drawn: (
      <Mast>
        <Aloft y={34} />
        <Line d="M104 26C96 20 80 20 82 28" w={3} now />
        <Arrow from={[140, 62]} to={[140, 26]} />
      </Mast>
    ),
  },
  "aloft-down": {
    says: "Down slowly, turns on the winch, the end never let go",
    drawn: (
      <Mast>
        <Aloft y={54} />
        <Arrow from={[140, 24]} to={[140, 60]} />
        <Line d="M82 8L44 70" w={3} />
        <circle cx="42" cy="76" r="11" fill="var(--object)" stroke="var(--object-edge)" />
        <circle cx="42" cy="76" r="7.5" fill="none" stroke={moved} strokeWidth="4" />
        <Line d="M34 78L18 66" w={3} />
      </Mast>
    ),
  },
  "alongside-spring": {
    says: "First the line that stops her: the spring from amidships, taken ashore in hand",
    drawn: (
      <Berth>
        <Line d="M90 46L36 17" now />
        <Cleat x={90} y={46} />
        <Head x={24} y={18} />
        <Arrow from={[150, 80]} to={[172, 80]} />
      </Berth>
    ),
  },
  "alongside-ease": {
    says: "A turn on the cleat; she is eased or hauled under it as the helm calls",
    drawn: (
      <Berth>
        <Line d="M90 46L32 19M22 15C18 4 44 4 38 14C36 20 24 22 12 8" />
        <Arrow from={[58, 30]} to={[44, 23]} />
        <Arrow from={[64, 33]} to={[78, 40]} />
        <Said x={132} y={86} w={90}>
          ease… hold
        </Said>
      </Berth>
    ),
  },
  "alongside-all": {
    says: "Then bow and stern lines, each with its turn first",
    drawn: (
      <Berth>
        <Line d="M90 46L36 17" />
        <Line d="M138 58L150 18M42 50L30 18" now />
        <Cleat x={150} y={15} now />
        <Cleat x={30} y={15} now />
      </Berth>
    ),
  },
  "alongside-off": {
    says: "Off: the last line runs, is gathered in at once, and stays clear of the propeller",
    drawn: (
      <Berth y={72} x={100}>
        <Line d="M112 58C100 40 92 24 84 16" now />
        <Arrow from={[84, 34]} to={[100, 52]} />
        <Screw x={44} y={72} />
        <Said x={138} y={42} w={78}>
          all aboard
        </Said>
      </Berth>
    ),
  },
  "slip-slack": {
    says: "Slack lines are off; the last one is led double round the ring, its end free to run",
    drawn: (
      <Berth>
        <Line d="M138 58L150 18M42 50L30 18" dashed />
        <Line d="M84 46L88 16M96 46L92 16" now />
      </Berth>
    ),
  },
  "slip-gather": {
    says: "The line is gathered in hand over hand, clear of the propeller",
    drawn: (
      <Berth y={70}>
        <Line d="M96 56C98 40 94 30 92 20" now />
        <Coil x={110} y={70} r={11} />
        <Screw x={34} y={70} />
        <No x={34} y={70} r={9} />
      </Berth>
    ),
  },
  "slip-caught": {
    says: "The line has caught on the ring: say so, ease, go back under the engine; nobody jumps",
    drawn: (
      <Berth y={70}>
        <Line d="M84 54L88 16M96 54L92 16" />
        <Lump x={90} y={16} now />
        <Arrow from={[140, 60]} to={[140, 34]} calm />
        <Head x={56} y={34} now />
        <No x={56} y={34} r={10} />
      </Berth>
    ),
  },
  "slip-clear": {
    says: "All lines aboard; only then the propeller turns ahead",
    drawn: (
      <Berth y={76} x={104}>
        <Coil x={112} y={76} r={11} />
        <Screw x={46} y={76} turns />
        <Said x={60} y={44} w={78}>
          all aboard
        </Said>
        <Arrow from={[150, 54]} to={[174, 46]} calm />
      </Berth>
    ),
  },
  "throw-shout": {
    says: "One shouts and throws what floats, another points and does nothing else",
    drawn: (
      <>
        <Water y={72} />
        <Side x={44} y={62} />
        <Person x={36} y={62} arms={[[30, -22]]} />
        <Person x={60} y={62} arms={[[14, -36]]} />
        <Swimmer x={148} y={76} />
        <circle cx="118" cy="66" r="7" fill="none" stroke={moved} strokeWidth="5" />
      </>
    ),
  },
  "throw-beyond": {
    says: "The line is thrown beyond the person, up wind, so that it drifts down to him",
    drawn: (
      <>
        <rect width="180" height="104" fill="var(--glass-wash)" />
        <Hull x={46} y={60} long={80} />
        <Line d="M50 54C90 10 130 10 166 34" now w={3} />
        <Swimmer x={132} y={70} />
        <Arrow from={[136, 4]} to={[136, 16]} calm />
        <Arrow from={[110, 22]} to={[116, 46]} />
        <text x="146" y="14" fontSize="12" fill="var(--ink)">
          wind
        </text>
      </>
    ),
  },
  "throw-loop": {
    says: "The loop over head and arms, beneath the armpits, its knot in front",
    drawn: (
      <>
        <Water y={74} />
        <g stroke="var(--ink)" strokeLinecap="round">
          <circle cx="112" cy="26" r="13" fill="var(--ink)" stroke="none" />
          <path d="M112 44V84" strokeWidth="26" />
          <path d="M98 50L78 74M126 50L148 74" strokeWidth="9" />
        </g>
        <Line d="M94 62Q112 72 131 60M94 62L84 60L2 30" now />
        <Lump x={90} y={61} now />
      </>
    ),
  },
  "throw-lift": {
    says: "Two lift together, as practised, while help is called",
    drawn: (
      <>
        <Water y={78} />
        <Side x={56} y={64} long={92} />
        <Line d="M60 40L112 44L126 66" w={3} now />
        <Person x={36} y={64} arms={[[26, -24]]} />
        <Person x={64} y={64} arms={[[24, -18]]} />
        <Swimmer x={128} y={78} />
        <Said x={150} y={20} w={46}>
          help!
        </Said>
      </>
    ),
  },
  "lashing-5": {
    says: "The spars are twisted against one another: the lashing must not give",
    drawn: (
      <>
        <rect x="80" y="2" width="22" height="100" rx="8" fill={wood} stroke="var(--line)" />
        <rect
          x="14"
          y="42"
          width="152"
          height="22"
          rx="8"
          fill="var(--wood-light, #cbb08a)"
          stroke="var(--line)"
        />
        {[0, 7, 14].map((k) => (
          <Line key={k} w={3.5} d={`M${78 - k} 72V34M${104 + k} 72V34`} />
        ))}
        <Arrow from={[150, 34]} to={[156, 16]} />
        <Arrow from={[30, 72]} to={[24, 90]} />
      </>
    ),
  },
  "tiedown-pinch": {
    says: "The loop is pinched and two half hitches lock it",
    drawn: (
      <>
        <Line d="M150 0V34C150 52 136 56 136 40C136 30 158 26 164 40V96" />
        <Line d="M140 50C120 54 122 66 146 62M142 68C122 72 122 82 148 78M146 62L164 60M148 78L164 76" now />
        <path
          d="M60 44Q96 24 132 38M60 60Q100 62 132 46"
          fill="none"
          stroke="var(--ink)"
          strokeWidth="7"
          strokeLinecap="round"
        />
        <text x="6" y="56" fontSize="13" fill="var(--ink)">
          pinch
        </text>
      </>
    ),
  },
  "tiedown-shake": {
    says: "The load is shaken, hauled again, and looked at after the first mile",
    drawn: (
      <>
        <path d="M0 96H180" stroke="var(--ink)" strokeWidth="2" />
        <rect x="50" y="44" width="80" height="44" rx="3" fill={wood} stroke="var(--object-edge)" />
        <rect x="30" y="88" width="120" height="8" fill="var(--object)" stroke="var(--object-edge)" />
        <Line d="M34 88L60 40H120L146 88" />
        <Arrow from={[80, 22]} to={[58, 22]} />
        <Arrow from={[100, 22]} to={[122, 22]} />
      </>
    ),
  },
  "pull-guard": {
    says: "Eye protection, a wet towel over the line, nobody in line with it or beside it",
    drawn: (
      <>
        <Clear x={2} y={16} w={176} h={54} />
        <Pulled marks={false} />
        <path
          d="M66 34Q88 24 110 34V62Q88 70 66 62Z"
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth="1.5"
        />
        <g fill="none" stroke="var(--ink)" strokeWidth="3">
          <circle cx="76" cy="88" r="9" />
          <circle cx="100" cy="88" r="9" />
          <path d="M85 86H91M67 86L58 82M109 86L118 82" />
        </g>
      </>
    ),
  },
  "pull-mark": {
    says: "Line and tail are marked where they leave the knot",
    drawn: <Pulled />,
  },
  "pull-dress": {
    says: "Drawn up hand tight, dressed, and looked at from both sides",
    drawn: (
      <>
        <Pulled />
        <path d="M88 2V20M88 102V74" stroke={moved} strokeWidth="2" strokeDasharray="5 4" />
        <Arrow from={[88, 10]} to={[88, 30]} />
        <Arrow from={[88, 94]} to={[88, 64]} />
      </>
    ),
  },
  "pull-quarter": {
    says: "A quarter of the load, held ten seconds",
    drawn: (
      <>
        <Pulled />
        <Arrow from={[150, 60]} to={[174, 60]} />
        <Gauge quarters={1} />
      </>
    ),
  },
  "pull-load": {
    says: "Half of it, then the load itself, looking at the marks each time",
    drawn: (
      <>
        <Pulled />
        <Arrow from={[142, 60]} to={[174, 60]} />
        <Gauge quarters={4} />
      </>
    ),
  },
  "pull-more": {
    says: "Half as much again; the marks show a tail that has crept",
    drawn: (
      <>
        <Pulled crept={7} />
        <Arrow from={[136, 60]} to={[174, 60]} />
        <Gauge quarters={6} />
      </>
    ),
  },
  "pull-note": {
    says: "Knot, line, wet or dry, load and how far the marks moved are written down",
    drawn: (
      <>
        <rect
          x="46"
          y="6"
          width="88"
          height="92"
          rx="4"
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth="1.5"
        />
        <Lump x={68} y={26} />
        <path
          d="M88 26H124M58 48H124M58 64H110M58 80H96"
          stroke="var(--quiet)"
          strokeWidth="3"
          strokeLinecap="round"
        />
        <path d="M112 92L150 50L158 58L120 98Z" fill="var(--rope-1)" stroke="var(--ink)" strokeWidth="1.5" />
      </>
    ),
  },
  "reeve-0": {
    says: "The weave of the line's end is opened for a hand's breadth",
    drawn: (
      <>
        <Line d="M-6 52H86" w={18} />
        {[34, 44, 52, 60, 70].map((y) => (
          <Line
            key={y}
            d={`M86 ${46 + (y - 52) * 0.25}C112 ${y} 132 ${y} 158 ${52 + (y - 52) * 1.5}`}
            w={3.5}
            now
          />
        ))}
        <path d="M92 92H158M92 87V97M158 87V97" stroke="var(--ink)" strokeWidth="1.5" />
        <text x="103" y="86" fontSize="12" fill="var(--ink)">
          a hand
        </text>
      </>
    ),
  },
  "reeve-3": {
    says: "The line is drawn after the wire with pliers, straight, without twisting",
    drawn: (
      <>
        {[44, 72].map((x) => (
          <path key={x} d={`M${x} 8V96`} stroke="var(--rule, #8f9b94)" strokeWidth="9" />
        ))}
        <Line d="M-6 52H110" w={12} />
        <path d="M110 52H138" stroke="var(--object-edge)" strokeWidth="3" />
        <path
          d="M138 48L160 40L178 26M138 56L160 64L178 78"
          fill="none"
          stroke={moved}
          strokeWidth="6"
          strokeLinecap="round"
        />
        <Arrow from={[128, 20]} to={[166, 14]} />
      </>
    ),
  },
  "messenger-coil": {
    says: "The heaving line coiled in two halves; nobody stands in the bight",
    drawn: (
      <>
        <Coil x={46} y={50} r={26} />
        <Coil x={134} y={50} r={26} />
        <Line d="M72 50C82 76 98 76 108 50" />
        <Head x={90} y={44} now />
        <No x={90} y={44} r={13} />
      </>
    ),
  },
  "messenger-throw": {
    says: "Thrown past the one who is to catch it, never at him",
    drawn: (
      <>
        <rect width="180" height="104" fill="var(--glass-wash)" />
        <Hull x={40} y={54} turn={90} long={86} />
        <Hull x={146} y={54} turn={90} long={86} />
        <Head x={146} y={56} />
        <Line d="M46 46C80 12 120 10 172 30" now w={3} />
        <path d="M50 56L132 56" stroke={moved} strokeWidth="2" strokeDasharray="4 4" />
        <No x={96} y={56} r={8} />
      </>
    ),
  },
  "messenger-off": {
    says: "The messenger is let go before the hawser takes the load",
    drawn: (
      <>
        <Cleat x={160} y={40} />
        <Line d="M-4 40H150" w={9} />
        <Line d="M96 40C104 56 118 72 148 88" second w={3} now />
        <No x={112} y={64} r={9} />
      </>
    ),
  },
  "fender-height": {
    says: "The widest part sits where the hulls would touch, a hand above the water",
    drawn: (
      <>
        <Water y={84} />
        <rect x="122" y="48" width="60" height="60" fill={wood} stroke="var(--object-edge)" />
        <path
          d="M0 20H76Q78 60 52 104H0Z"
          fill="var(--object-light)"
          stroke="var(--object-edge)"
          strokeWidth="1.5"
        />
        <Line d="M72 20L98 24V38" w={3} />
        <rect
          x="86"
          y="36"
          width="24"
          height="40"
          rx="12"
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth="2"
        />
        <path d="M64 56H134" stroke={moved} strokeWidth="2" strokeDasharray="5 4" />
        <Arrow from={[114, 80]} to={[114, 76]} />
      </>
    ),
  },
  "coil-out": {
    says: "The whole line is thrown out astern so that the twist runs out of its end",
    drawn: (
      <>
        <rect width="180" height="104" fill="var(--glass-wash)" />
        <Hull x={146} y={52} long={64} />
        <Line d="M114 52C96 40 80 64 60 52S30 44 10 54" />
        <path d="M16 40a10 8 0 1 0 8 20" fill="none" stroke={moved} strokeWidth="2.5" />
        <Arrow from={[20, 61]} to={[25, 59]} />
      </>
    ),
  },
  "coil-small": {
    says: "Small coils, each with half a twist; a big one ties itself in knots",
    drawn: (
      <>
        <Coil x={54} y={54} r={22} now />
        <path
          d="M26 84L44 100L82 82"
          fill="none"
          stroke="var(--glass)"
          strokeWidth="4"
          strokeLinecap="round"
        />
        <Line d="M106 58C98 10 176 10 172 56S110 98 120 62S160 40 150 74" w={3} />
        <No x={142} y={52} r={26} />
      </>
    ),
  },
  "coil-look": {
    says: "Each metre is looked at as it passes: cut strands, hard places, a worn cover",
    drawn: (
      <>
        <Line d="M-4 52H70M110 52H184" w={12} />
        <Line d="M70 52H110" w={8} now />
        <path d="M80 44L76 34M90 44V32M100 44L105 34" stroke="var(--rope-1-edge)" strokeWidth="2" />
        <circle cx="90" cy="52" r="28" fill="none" stroke="var(--ink)" strokeWidth="4" />
        <path d="M110 72L132 96" stroke="var(--ink)" strokeWidth="6" strokeLinecap="round" />
      </>
    ),
  },
  "coil-finish": {
    says: "Two turns about the coil, and the end through the top",
    drawn: (
      <>
        {[30, 22, 14].map((r) => (
          <Line
            key={r}
            d={`M${90 - r * 0.6} 14a${r * 0.6} ${r * 1.3} 0 0 0 0 76M${90 + r * 0.6} 14a${r * 0.6} ${r * 1.3} 0 0 1 0 76M${90 - r * 0.6} 14Q90 2 ${90 + r * 0.6} 14M${90 - r * 0.6} 90Q90 100 ${90 + r * 0.6} 90`}
            w={3.5}
          />
        ))}
        <Line d="M62 44H118M62 52H118" now />
        <Line d="M116 44C132 26 104 6 90 22V34" now />
      </>
    ),
  },
  "tow-ask": {
    says: "The rider says how long he rides; it is said back before anything is tied",
    drawn: (
      <>
        <Water y={74} />
        <Side x={40} y={62} long={64} />
        <Line d="M44 46L142 54" w={3} />
        <path d="M44 62V40" stroke="var(--object-edge)" strokeWidth="4" />
        <Person x={150} y={82} arms={[[-10, -24]]} at={0.9} />
        <path d="M46 30H142M46 24V36M142 24V36" stroke={moved} strokeWidth="2" />
        <Said x={94} y={18} w={80}>
          how long?
        </Said>
      </>
    ),
  },
  "tow-look": {
    says: "Pylon, cover and loop are looked at; worn where it crosses, the place is shifted",
    drawn: (
      <>
        <rect x="20" y="10" width="20" height="90" rx="6" fill="var(--object)" stroke="var(--object-edge)" />
        <Line d="M184 44H44C14 40 14 66 44 60H60" w={8} />
        <Line d="M44 44H62" w={6} now />
        <circle cx="56" cy="46" r="22" fill="none" stroke="var(--ink)" strokeWidth="4" />
        <path d="M72 62L96 90" stroke="var(--ink)" strokeWidth="6" strokeLinecap="round" />
        <Arrow from={[110, 64]} to={[136, 64]} />
      </>
    ),
  },
  "tow-first": {
    says: "The first pull is slow, one watches the line, and nobody sits in its path",
    drawn: (
      <>
        <rect width="180" height="104" fill="var(--glass-wash)" />
        <Clear x={50} y={36} w={122} h={32} />
        <Hull x={40} y={52} turn={180} long={70} />
        <Line d="M34 52H158" w={3} />
        <Head x={166} y={52} />
        <Head x={54} y={62} />
        <Arrow from={[22, 90]} to={[6, 90]} />
        <Said x={66} y={90} w={46}>
          slow
        </Said>
      </>
    ),
  },
  "shackle-pair": {
    says: "The stopper must be a fifth thicker than what the clamp leaves open",
    drawn: (
      <>
        <path
          d="M30 52a24 24 0 1 0 48 0a24 24 0 1 0 -48 0"
          fill="none"
          stroke="var(--rope-1-edge)"
          strokeWidth="11"
        />
        <path
          d="M30 52a24 24 0 1 0 48 0a24 24 0 1 0 -48 0"
          fill="none"
          stroke="var(--rope-1)"
          strokeWidth="8.5"
        />
        <ellipse
          cx="130"
          cy="52"
          rx="26"
          ry="27"
          fill="var(--rope-1)"
          stroke="var(--rope-1-edge)"
          strokeWidth="2"
        />
        <path d="M118 70L128 34M132 72L142 36" stroke="var(--rope-1-edge)" strokeWidth="2.5" />
        <path d="M36 90H72M102 90H158" stroke={moved} strokeWidth="3" />
        <path d="M36 86V94M72 86V94M102 86V94M158 86V94" stroke={moved} strokeWidth="2" />
      </>
    ),
  },
  "shackle-cord": {
    says: "Cord for twice round what it shall hold, and the stopper with its tails",
    drawn: (
      <>
        <circle cx="64" cy="52" r="26" fill="var(--object)" stroke="var(--object-edge)" />
        <Line d="M92 46C92 8 34 8 32 52S92 96 92 58M98 46C98 0 26 0 25 52S98 104 98 58" w={4} />
        <Line d="M95 52H172" now />
        <text x="108" y="38" fontSize="12" fill="var(--ink)">
          knot + tails
        </text>
      </>
    ),
  },
  "shackle-legs": {
    says: "Two legs share the load; the weakest knot counts",
    drawn: (
      <>
        <Line d="M28 44H124M28 60H124" />
        <path d="M28 38a14 14 0 1 0 0 28" fill="none" stroke="var(--rope-1-edge)" strokeWidth="6" />
        <path d="M28 38a14 14 0 1 0 0 28" fill="none" stroke="var(--rope-1)" strokeWidth="4" />
        <Lump x={136} y={52} now />
        <Arrow from={[70, 30]} to={[44, 30]} />
        <Arrow from={[86, 30]} to={[112, 30]} />
        <text x="62" y="88" fontSize="13" fill="var(--ink)">
          ½ + ½
        </text>
      </>
    ),
  },
  mouse: {
    says: "Turns across the mouth of the hook, then two turns about those",
    drawn: (
      <>
        <path
          d="M74 -4V22C74 40 60 46 60 66C60 92 112 98 118 66L122 40"
          fill="none"
          stroke="var(--object-edge)"
          strokeWidth="14"
          strokeLinecap="round"
        />
        <path
          d="M74 -4V22C74 40 60 46 60 66C60 92 112 98 118 66L122 40"
          fill="none"
          stroke="var(--object)"
          strokeWidth="11"
          strokeLinecap="round"
        />
        {[0, 5, 10, 15].map((k) => (
          <Line key={k} d={`M66 ${30 + k}L126 ${42 + k}`} second w={3} />
        ))}
        <Line d="M96 32V62M102 33V63" now w={3} />
      </>
    ),
  },
  "teach-rope": {
    says: "Thick rope in two colours, and a big ring that stands for the hook",
    drawn: (
      <>
        <Line d="M10 26C50 6 60 60 104 40" w={11} />
        <Line d="M10 70C50 96 70 46 112 74" second w={11} />
        <circle cx="146" cy="54" r="22" fill="none" stroke="var(--object-edge)" strokeWidth="10" />
        <circle cx="146" cy="54" r="22" fill="none" stroke="var(--object)" strokeWidth="7" />
      </>
    ),
  },
  "teach-steps": {
    says: "The whole knot once, then one step at a time, with a pause after each",
    drawn: (
      <>
        {[0, 1, 2].map((i) => (
          <g key={i} transform={`translate(${6 + 60 * i} 22)`}>
            <rect width="48" height="52" rx="4" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.5" />
            <text x="24" y="36" textAnchor="middle" fontSize="26" fill="var(--ink)">
              {i + 1}
            </text>
            {i < 2 && <path d="M52 18V34M57 18V34" stroke={moved} strokeWidth="3" />}
          </g>
        ))}
      </>
    ),
  },
  "teach-twenty": {
    says: "About twenty times sitting, then standing, then wet",
    drawn: (
      <>
        <g stroke="var(--ink)" strokeWidth="4" strokeLinecap="round" fill="none">
          <circle cx="30" cy="42" r="5" fill="var(--ink)" stroke="none" />
          <path d="M30 50V70H46V88M30 54L46 58" />
          <path d="M18 72H32V88" strokeWidth="2.5" />
        </g>
        <Person x={90} y={88} arms={[[14, -20]]} />
        <Person x={148} y={88} arms={[[14, -20]]} />
        <path
          d="M128 14l-4 10M146 8l-4 10M164 14l-4 10M136 30l-3 8M160 30l-3 8"
          stroke="var(--glass)"
          strokeWidth="3"
          strokeLinecap="round"
        />
        <path d="M8 92H172" stroke="var(--ink)" strokeWidth="1.5" />
      </>
    ),
  },
  "bench-guard": {
    says: "A guard over the whole specimen, everybody beside it and behind eye protection, nobody in line",
    drawn: (
      <>
        <path d="M8 92H172" stroke="var(--ink)" strokeWidth="1.5" />
        <rect x="10" y="62" width="24" height="26" fill="var(--object)" stroke="var(--object-edge)" />
        <rect x="146" y="62" width="24" height="26" fill="var(--object)" stroke="var(--object-edge)" />
        <path d="M34 75H146" stroke="var(--rope-1)" strokeWidth="4" />
        <path d="M36 88V62Q90 40 144 62V88" fill="none" stroke="var(--glass)" strokeWidth="3" />
        <Person x={90} y={44} arms={[]} />
        <path d="M83 12H97" stroke="var(--amber)" strokeWidth="4" />
        <No x={172} y={34} />
      </>
    ),
  },
};

/** The picture of a step by its name; nothing where there is none by that name. */
export function JobScene({ of }: { of: string }) {
  const scene = scenes[of];
  return scene ? <Scene says={scene.says}>{scene.drawn}</Scene> : null;
}

/** Names of the pictures there are. */
export const sceneNames = Object.keys(scenes);
