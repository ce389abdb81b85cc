import { Box, type BoxProps } from "@chakra-ui/react";
import { useEffect, useRef } from "react";
import uPlot from "uplot";
import "uplot/dist/uPlot.min.css";

export type Curve = { s: number[]; kN: number[] };
export type Mark = { t_s: number; load_kn: number; name: string };

type Props = {
  /** Drawn strong, read anew at every frame where it is live. */
  main: Curve;
  live?: boolean;
  /** Earlier pulls, faint behind it. */
  others?: Curve[];
  marks?: Mark[];
  /** What one calls good, kN. */
  yardstick?: number;
  label: string;
  /** A place on the trace was touched. */
  touch?: (s: number) => void;
} & BoxProps;

const css = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** The trace of a pull: time across, load up. */
export function Plot({ main, live, others = [], marks = [], yardstick, label, touch, ...box }: Props) {
  const at = useRef<HTMLDivElement>(null);
  const plot = useRef<uPlot>(undefined);
  const shown = useRef({ marks, yardstick, touch });
  shown.current = { marks, yardstick, touch };
  // biome-ignore lint/correctness/useExhaustiveDependencies: built anew where what lies behind is another
  useEffect(() => {
    const el = at.current;
    if (!el) return;
    const font = "14px Atkinson Hyperlegible, sans-serif";
    const axis: uPlot.Axis = {
      stroke: () => css("--ink"),
      font,
      grid: { stroke: () => css("--line"), width: 1 },
      ticks: { show: false },
    };
    const u = new uPlot(
      {
        width: el.clientWidth,
        height: el.clientHeight,
        mode: 2,
        legend: { show: false },
        cursor: { show: false },
        scales: {
          x: { time: false, range: () => [0, longest(main, others)] },
          y: { range: () => [0, highest(main, others, shown.current.yardstick)] },
        },
        axes: [
          { ...axis, scale: "x", values: (_, v) => v.map((x, i) => (i === 0 ? "0 seconds" : String(x))) },
          {
            ...axis,
            scale: "y",
            size: 44,
            values: (_, v) => v.map((x, i) => (i === v.length - 1 ? `${x} kN` : String(x))),
          },
        ],
        series: [
          null as unknown as uPlot.Series,
          ...others.map(() => ({ facets, paths: line("--quiet", 1.4, 0.4) })),
          { facets, paths: line("--glass", 3, 1) },
        ],
        hooks: { draw: [(p) => drawMarks(p, shown.current)] },
      },
      data(main, others),
      el,
    );
    plot.current = u;
    const size = new ResizeObserver(() => u.setSize({ width: el.clientWidth, height: el.clientHeight }));
    size.observe(el);
    const light = new MutationObserver(() => u.redraw(false));
    light.observe(document.documentElement, { attributes: true, attributeFilter: ["data-light"] });
    const click = (e: MouseEvent) => {
      const r = u.over.getBoundingClientRect();
      shown.current.touch?.(u.posToVal(e.clientX - r.left, "x"));
    };
    u.over.addEventListener("click", click);
    let frame = 0;
    let last = -1;
    const tick = () => {
      if (main.s.length !== last) {
        last = main.s.length;
        u.setData(data(main, others));
      }
      frame = requestAnimationFrame(tick);
    };
    if (live) frame = requestAnimationFrame(tick);
    return () => {
      cancelAnimationFrame(frame);
      size.disconnect();
      light.disconnect();
      u.destroy();
    };
  }, [main, others.length, live]);
  useEffect(() => {
    // Marks and yardstick are drawn over what is there.
    void marks;
    void yardstick;
    plot.current?.redraw(false);
  }, [marks, yardstick]);
  return <Box ref={at} role="img" aria-label={label} data-plot="" minH="240px" {...box} />;
}

const data = (main: Curve, others: Curve[]): uPlot.AlignedData =>
  [null, ...others.map((c) => [c.s, c.kN]), [main.s, main.kN]] as unknown as uPlot.AlignedData;

const longest = (main: Curve, others: Curve[]) =>
  Math.max(10, (main.s.at(-1) ?? 0) * 1.05, ...others.map((c) => c.s.at(-1) ?? 0));

const highest = (main: Curve, others: Curve[], yardstick = 0) => {
  let most = Math.max(0.5, yardstick);
  for (const c of [main, ...others]) for (const x of c.kN) if (x > most) most = x;
  return most * 1.15;
};

const facets = [
  { scale: "x", auto: false },
  { scale: "y", auto: false },
];

/** A polyline of its own times, as the plot's second mode has it. */
const line =
  (stroke: string, width: number, alpha: number): uPlot.Series.PathBuilder =>
  (u, i) => {
    uPlot.orient(u, i, (_s, _x, _y, scaleX, scaleY, valToPosX, valToPosY, left, top, w, h) => {
      const [s, kN] = u.data[i] as unknown as [number[], number[]];
      const c = u.ctx;
      c.save();
      c.beginPath();
      c.rect(left, top, w, h);
      c.clip();
      c.beginPath();
      columns(
        c,
        s,
        kN,
        (t) => valToPosX(t, scaleX, w, left),
        (v) => valToPosY(v, scaleY, h, top),
      );
      c.globalAlpha = alpha;
      c.strokeStyle = css(stroke);
      c.lineWidth = width * devicePixelRatio;
      c.lineJoin = "round";
      c.stroke();
      c.restore();
    });
    return null;
  };

/** A line through many points, of each column of pixels its lowest and its highest, so that no spike is lost. */
function columns(
  c: CanvasRenderingContext2D,
  s: number[],
  kN: number[],
  x: (t: number) => number,
  y: (v: number) => number,
) {
  const n = s.length;
  if (n === 0) return;
  const [x0, x1, y0, y1] = [x(0), x(1), y(0), y(1)];
  let column = Number.NaN;
  let low = 0;
  let high = 0;
  let last = 0;
  const put = () => {
    if (Number.isNaN(column)) return;
    c.lineTo(column, y0 + (y1 - y0) * low);
    if (high !== low) c.lineTo(column, y0 + (y1 - y0) * high);
    if (last !== high) c.lineTo(column, y0 + (y1 - y0) * last);
  };
  for (let k = 0; k < n; k++) {
    const at = Math.round(x0 + (x1 - x0) * (s[k] as number));
    const v = kN[k] as number;
    if (at !== column) {
      put();
      column = at;
      low = high = v;
    } else if (v < low) low = v;
    else if (v > high) high = v;
    last = v;
  }
  put();
}

function drawMarks(u: uPlot, { marks, yardstick }: { marks: Mark[]; yardstick?: number }) {
  const c = u.ctx;
  const r = devicePixelRatio;
  c.save();
  c.font = `700 ${14 * r}px Atkinson Hyperlegible, sans-serif`;
  c.textAlign = "left";
  c.textBaseline = "alphabetic";
  if (yardstick) {
    const y = u.valToPos(yardstick, "y", true);
    c.strokeStyle = css("--amber");
    c.setLineDash([6 * r, 4 * r]);
    c.lineWidth = 2 * r;
    c.beginPath();
    c.moveTo(u.bbox.left, y);
    c.lineTo(u.bbox.left + u.bbox.width, y);
    c.stroke();
    c.setLineDash([]);
    c.fillStyle = css("--amber");
    c.fillText(`good above ${yardstick} kN`, u.bbox.left + 8 * r, y - 6 * r);
  }
  let right = Number.NEGATIVE_INFINITY;
  let row = 0;
  for (const m of marks) {
    const x = u.valToPos(m.t_s, "x", true);
    const y = u.valToPos(m.load_kn, "y", true);
    c.fillStyle = css("--sheet");
    c.strokeStyle = css("--ink");
    c.lineWidth = 2 * r;
    const wide = c.measureText(m.name).width + 14 * r;
    // Names that would lie on each other go a line lower.
    row = x - wide / 2 < right ? row + 1 : 0;
    right = Math.max(right, x + wide / 2);
    const top = Math.min(u.bbox.top + u.bbox.height - 26 * r, y + (34 + 28 * row) * r);
    c.beginPath();
    c.moveTo(x, y);
    c.lineTo(x, top);
    c.stroke();
    c.beginPath();
    c.arc(x, y, 5 * r, 0, 2 * Math.PI);
    c.fill();
    c.stroke();
    const left = Math.min(Math.max(x - wide / 2, u.bbox.left), u.bbox.left + u.bbox.width - wide);
    c.fillRect(left, top, wide, 24 * r);
    c.strokeRect(left, top, wide, 24 * r);
    c.fillStyle = css("--ink");
    c.fillText(m.name, left + 7 * r, top + 17 * r);
  }
  c.restore();
}
