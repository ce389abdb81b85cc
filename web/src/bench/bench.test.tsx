import { cleanup, fireEvent, renderHook, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { fakeServer, show } from "../test/app";
import { DetectiveView } from "./detective";
import { TraceFile } from "./file";
import { FrictionView } from "./friction";
import { SlipGauge } from "./gauge";
import { LedgerView } from "./ledger";
import { useLive } from "./live";
import { Plan } from "./plan";
import { Record } from "./record";
import { Strengths } from "./strengths";
import { Results } from "./table";

// There is no canvas to draw on here.
vi.mock("./plot", () => ({ Plot: (p: { label: string }) => <div role="img" aria-label={p.label} /> }));

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const end = (name: string, values: { load_kn: number; failed: boolean }[], more: object = {}) =>
  ({
    knot: "bowline",
    name,
    says: `${name} says`,
    values,
    group: { n: values.length, failures: 1, km: [], ...more },
  }) as unknown as Schemas["EndResult"];

it("draws what gave as points and what held as arrows", () => {
  const { container } = show(
    <Strengths
      ends={[
        end(
          "Bowline",
          [
            { load_kn: 7, failed: true },
            { load_kn: 7.4, failed: false },
          ],
          { median_kn: 7.2, median_kn_low: 6.9, median_kn_high: 30 },
        ),
        end("Eight", [{ load_kn: 7, failed: false }]),
      ]}
    />,
  );
  const svg = container.querySelector("[data-strengths]");
  expect(svg?.querySelectorAll("circle")).toHaveLength(1);
  expect(svg?.querySelectorAll("path")).toHaveLength(2);
  expect(svg?.getAttribute("aria-label")).toContain("Bowline says");
  // The band that hardly ends is cut off within the picture.
  const band = svg?.querySelector("rect");
  expect(Number(band?.getAttribute("x")) + Number(band?.getAttribute("width"))).toBeLessThanOrEqual(720);
});

const draft = {
  key: "k1",
  series: "s1",
  a: { knot: "bowline" },
  b: { knot: "figure-eight-loop" },
  source: "dial",
  outcome: "broke",
  peak: "",
} as const;

it("asks where it gave, and keeps a load written with a comma", async () => {
  const calls = fakeServer({ "POST /api/v1/pulls": () => ({ id: 1 }) });
  const close = vi.fn();
  show(<Record draft={draft} names={["Bowline", "Figure-eight loop"]} close={close} />);
  fireEvent.click(screen.getByText("Held"));
  expect(screen.queryByText("In the line")).toBeNull();
  fireEvent.click(screen.getByText("Broke"));
  fireEvent.click(screen.getByText("Inside knot B: Figure-eight loop"));
  fireEvent.change(screen.getByLabelText("Highest load, kN"), { target: { value: "7,25" } });
  fireEvent.change(screen.getByLabelText("Mark crept at A, mm"), { target: { value: "3" } });
  fireEvent.click(screen.getByText("Keep this pull"));
  await waitFor(() => expect(close).toHaveBeenCalled());
  expect(calls.at(-1)?.body).toMatchObject({
    peak_kn: 7.25,
    where: "in-b",
    outcome: "broke",
    creep_a_mm: 3,
    key: "k1",
  });
});

it("says what is wrong with a pull and keeps what was typed", async () => {
  fakeServer({
    "POST /api/v1/pulls": {
      status: 422,
      title: "Unprocessable Entity",
      detail: "Please correct what is named.",
      fields: [{ field: "where", message: "is missing", fix: "say where it failed" }],
    },
  });
  const close = vi.fn();
  show(<Record draft={{ ...draft, peak: "6.1" }} names={["A", "B"]} close={close} />);
  fireEvent.click(screen.getByText("Keep this pull"));
  await screen.findByText(/say where it failed/);
  expect(close).not.toHaveBeenCalled();
  expect((screen.getByLabelText("Highest load, kN") as HTMLInputElement).value).toBe("6.1");
});

it("has the specimens laid out, and plans the series with them", async () => {
  const calls = fakeServer({
    "GET /api/v1/catalogue": { knots: [{ id: "bowline", name: "Bowline" }], materials: [] },
    "GET /api/v1/lines": [],
    "POST /api/v1/bench/plan": [{ a: { knot: "bowline", wraps: 5 }, b: { knot: "uni" } }],
    "POST /api/v1/series": () => ({ id: 4 }),
  });
  show(<Plan close={() => {}} first={["bowline", "uni"]} />);
  fireEvent.change(screen.getByLabelText("Wraps of A to compare, like 5 6 7"), { target: { value: "5, 7" } });
  fireEvent.change(screen.getByLabelText("Pulls of each"), { target: { value: "2" } });
  fireEvent.click(screen.getByText("Plan it"));
  await waitFor(() => expect(calls.some((c) => c.path === "/api/v1/series")).toBe(true));
  expect(calls.find((c) => c.path === "/api/v1/bench/plan")?.body).toMatchObject({
    a: { knot: "bowline" },
    b: { knot: "uni" },
    times: 2,
    factors: { wraps: [5, 7], lubricated: [] },
  });
  const body = calls.find((c) => c.path === "/api/v1/series")?.body as Schemas["BenchSeries"] | undefined;
  expect(body?.specimens).toEqual([{ a: { knot: "bowline", wraps: 5 }, b: { knot: "uni" } }]);
});

it("shows how a file is read before it is kept, and lets the unit be put right", async () => {
  const read = {
    columns: {
      separator: ";",
      decimal_comma: true,
      header: false,
      time: 1,
      force: 2,
      time_unit: "s",
      force_unit: "kn",
    },
    guessed: ["The file does not say the unit of force: taken as kilonewtons."],
    readings: 4,
    marks: { slips: [], peak: null, break: null, zero_kn: 0, ramp_kn_s: 0, outcome: "held" },
    t_s: [0, 1],
    load_kn: [0, 1],
  };
  const calls = fakeServer({
    "POST /api/v1/bench/traces/preview": () => read,
    [`PUT /api/v1/bench/pulls/`]: read,
  });
  show(<TraceFile close={() => {}} taken={() => {}} />);
  fireEvent.change(screen.getByLabelText("File of readings"), {
    target: { files: [new File(["0;0\n1;1,5\n"], "x.csv")] },
  });
  await screen.findByText(/does not say the unit of force/);
  fireEvent.change(screen.getByLabelText("Unit of force"), { target: { value: "n" } });
  await waitFor(() => expect(calls).toHaveLength(2));
  expect(calls[1]?.body).toMatchObject({ how: { force_unit: "n", decimal_comma: true } });
  const first = calls[0]?.body as { data: string } | undefined;
  expect(atob(first?.data ?? "")).toBe("0;0\n1;1,5\n");
});

it("works friction out of two weights in kilograms", async () => {
  const calls = fakeServer({
    "POST /api/v1/bench/friction": () => ({
      n: 1,
      mu: { low: 0.15, likely: 0.2, high: 0.27 },
      metal: { low: 0.1, likely: 0.16, high: 0.25 },
    }),
    "GET /api/v1/lines": [],
    "GET /api/v1/catalogue": { surfaces: [{ id: "varnished-wood", name: "varnished wood" }] },
  });
  show(<FrictionView />);
  fireEvent.change(screen.getByLabelText("It slid at, kg"), { target: { value: "3,75" } });
  fireEvent.change(screen.getByLabelText("Other side, kg"), { target: { value: "2" } });
  await screen.findByText("μ 0.20");
  const sent = calls.filter((c) => c.method === "POST").at(-1)?.body as { trials: { heavy_n: number }[] };
  expect(sent.trials[0]?.heavy_n).toBeCloseTo(36.77, 2);
});

it("looks at a table line by line before it is taken", async () => {
  const calls = fakeServer({
    "POST /api/v1/series/3/results": () => ({
      lines: [
        { line: 2, a: "bowline", b: "uni", load_kn: 6.9, outcome: "broke", where: "a" },
        { line: 3, a: "", b: "uni", load_kn: 0, wrong: 'line 3, column 1: "lace" is not a knot here' },
      ],
      added: 1,
      there: 0,
    }),
  });
  const close = vi.fn();
  show(<Results series={3} close={close} />);
  fireEvent.change(screen.getByLabelText("Table of results"), {
    target: { files: [new File(["x"], "x.csv")] },
  });
  await screen.findByText(/"lace" is not a knot here/);
  expect(calls[0]?.query.get("preview")).toBe("true");
  fireEvent.click(screen.getByText("Take 1"));
  await waitFor(() => expect(close).toHaveBeenCalled());
  expect(calls[1]?.query.get("preview")).toBe("false");
});

it("works creep out of two photographs touched in order", async () => {
  const calls = fakeServer({ "POST /api/v1/bench/creep": () => ({ mm: 6.04 }) });
  vi.stubGlobal("URL", Object.assign(URL, { createObjectURL: () => "blob:x" }));
  const found = vi.fn();
  show(<SlipGauge close={() => {}} found={found} />);
  for (const name of ["before", "after"]) {
    fireEvent.change(screen.getByLabelText(`Photograph: ${name} the pull`), {
      target: { files: [new File(["x"], "x.jpg", { type: "image/jpeg" })] },
    });
  }
  expect((screen.getByText("Work it out") as HTMLButtonElement).disabled).toBe(true);
  for (const photo of screen.getAllByRole("application")) {
    photo.getBoundingClientRect = () => ({ left: 0, top: 0, width: 400, height: 300 }) as DOMRect;
    for (const clientX of [0, 100, 200, 240]) fireEvent.click(photo, { clientX, clientY: 150 });
  }
  fireEvent.click(screen.getByText("Work it out"));
  await waitFor(() => expect(found).toHaveBeenCalledWith(6));
  const body = calls[0]?.body as { before: Schemas["BenchGauge"] } | undefined;
  expect(body?.before).toEqual({
    scale: [
      [0, 1.5],
      [1, 1.5],
    ],
    scale_mm: 50,
    knot: [2, 1.5],
    mark: [2.4, 1.5],
  });
});

it("lays what is said beside what one's bench shows", async () => {
  fakeServer({
    "GET /api/v1/bench/ledger": [
      {
        id: "x",
        claim: "The eight is stronger.",
        against: "It is not.",
        stronger: { knot: "figure-eight-loop" },
        weaker: { knot: "bowline" },
        verdict: "disagrees",
        says: "Your bench disagrees: 1 of 9 pulls speak for it.",
        log: ["In the log: two tries."],
      },
    ],
  });
  show(<LedgerView />);
  await screen.findByText("your bench disagrees");
  expect(screen.getByText("Against: It is not.")).toBeTruthy();
  expect(screen.getByText("In the log: two tries.")).toBeTruthy();
});

it("tells cause, proof and cure of what is seen", async () => {
  fakeServer({
    "GET /api/v1/bench/failures": [
      { id: "curl", seen: "Curled end.", cause: "It slipped.", prove: "Mark it.", cure: "Wet it." },
    ],
  });
  show(<DetectiveView />);
  fireEvent.click(await screen.findByText("Curled end."));
  for (const text of ["It slipped.", "Mark it.", "Wet it."])
    expect(screen.getAllByText(text)).not.toHaveLength(0);
});

it("collects what the cell says, and begins anew with a pull", async () => {
  const line = (pull: string, t_s: number[]) =>
    `${JSON.stringify({ cell: "x", connected: true, pull, zero_kn: 0, readings: 0, t_s, load_kn: t_s.map((t) => t / 10) })}\n`;
  const text = line("", [1, 2, 3]) + line("", [4]) + line("p", [0, 1]);
  let asked = 0;
  vi.stubGlobal("fetch", async () => {
    asked++;
    return new Response(asked === 1 ? text : "");
  });
  const { result, unmount } = renderHook(() => useLive());
  await waitFor(() => expect(result.current.state?.pull).toBe("p"));
  expect(result.current.readings.s).toEqual([0, 1]);
  unmount();
});
