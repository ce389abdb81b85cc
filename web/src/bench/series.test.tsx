import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { fakeServer, show } from "../test/app";
import { SeriesView } from "./series";

vi.mock("./plot", () => ({
  Plot: (p: { label: string; marks?: { name: string }[]; others?: unknown[] }) => (
    <div
      role="img"
      aria-label={p.label}
      data-marks={p.marks?.map((m) => m.name).join()}
      data-others={p.others?.length}
    />
  ),
}));

const live = vi.hoisted(() => ({
  state: undefined as object | undefined,
  readings: { s: [0, 1], kN: [0, 4.2] },
}));
vi.mock("./live", () => ({ useLive: () => live }));
vi.mock("./results", () => ({ Results: () => <div>results</div> }));
vi.mock("./stage", () => ({ Stage: () => <div>stage</div> }));

beforeEach(() => {
  localStorage.clear();
  live.state = undefined;
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const page = {
  series: {
    id: 3,
    revision: 1,
    key: "s1",
    name: "Bowline and eight",
    wet: true,
    speed_mm_s: 8,
    yardstick_kn: 1,
    line: {},
    specimens: [
      { a: { knot: "bowline" }, b: { knot: "figure-eight-loop" } },
      { a: { knot: "figure-eight-loop" }, b: { knot: "bowline" } },
    ],
  },
  line_name: "braid, 10 mm",
  ends: [
    { knot: "bowline", name: "Bowline" },
    { knot: "figure-eight-loop", name: "Figure eight loop" },
  ],
  next: 1,
  pulls: [
    { id: 8, source: "cell" },
    { id: 9, source: "dial" },
  ],
};

function opened(more: Record<string, unknown> = {}, at = "/bench/3") {
  const calls = fakeServer({
    "GET /api/v1/series/3/page": page,
    "GET /api/v1/bench/pulls": [],
    "GET /api/v1/pulls/8/trace": { t_s: [5, 6], load_kn: [0, 3] },
    "GET /api/v1/procedures": [],
    "POST /api/v1/procedures/bench-pull/card": {
      procedure: { steps: [{ says: "Everybody near the bench wears eye protection." }] },
      steps: [{ says: "Everybody near the bench wears eye protection." }],
      cautions: [],
    },
    "POST /api/v1/bench/stop": {
      key: "p1",
      readings: 400,
      marks: { peak: { t_s: 3, load_kn: 5.25 }, outcome: "crept" },
    },
    "POST /api/v1/bench/zero": {},
    ...more,
  });
  show(<SeriesView />, at, "/bench/:id");
  return calls;
}

it("says which pull is next, in which line, and lays earlier traces behind", async () => {
  opened();
  const text = await screen.findByText(/drawn out at 8 mm a second/);
  expect(text.textContent).toContain("Pull 2 of 2: figure eight loop against bowline in braid, 10 mm, wet");
  expect(screen.getByText(/No load cell is connected/)).toBeTruthy();
  await waitFor(() => expect(screen.getByRole("img").dataset.others).toBe("1"));
});

it("opens the specimen whose label was read", async () => {
  opened({}, "/bench/3?specimen=1");
  expect((await screen.findByText(/drawn out/)).textContent).toContain("Pull 1 of 2: bowline against");
});

it("asks for the cautions before the first pull of a day, and not again", async () => {
  opened();
  fireEvent.click(await screen.findByText("Read off a dial"));
  await waitFor(() =>
    expect(screen.getByRole("dialog").textContent).toContain("Before the first pull today"),
  );
  cleanup();
  localStorage.setItem("oarweed-bench-ready", new Date().toDateString());
  opened();
  fireEvent.click(await screen.findByText("Read off a dial"));
  const record = await screen.findByRole("dialog");
  expect(record.textContent).not.toContain("Before the first pull today");
  expect(record.textContent).toMatch(/load/i);
});

it("pulls by the cell: zero, start, a slip by hand, stop, and the record begins with its peak", async () => {
  localStorage.setItem("oarweed-bench-ready", new Date().toDateString());
  live.state = { cell: "10.0.0.1:9015", connected: true, zero_kn: 0 };
  let key = "";
  const calls = opened();
  vi.stubGlobal(
    "fetch",
    ((before) => async (r: Request) => {
      const at = /bench\/pulls\/(\w+)$/.exec(r.url);
      if (at?.[1] && r.method === "POST") {
        key = at[1];
        return new Response(JSON.stringify({ cell: "x", pull: key }), {
          headers: { "Content-Type": "application/json" },
        });
      }
      return before(r);
    })(fetch as (r: Request) => Promise<Response>),
  );
  await screen.findByText("cell is ready");
  fireEvent.click(screen.getByText("Set to zero"));
  await waitFor(() => expect(calls.some((c) => c.path.endsWith("/zero"))).toBe(true));
  fireEvent.click(screen.getByText("Start the pull"));
  await waitFor(() => expect(key).not.toBe(""));
  cleanup();
  live.state = { cell: "10.0.0.1:9015", connected: true, zero_kn: 0, pull: "p1", gap: true };
  opened();
  await screen.findByText("readings are missing");
  fireEvent.click(screen.getByText("Slip now"));
  expect(screen.getByRole("img").dataset.marks).toBe("slip, 4.2 kN");
  fireEvent.click(screen.getByText("Stop"));
  const sheet = await screen.findByRole("dialog");
  expect(sheet.querySelector<HTMLInputElement>("input[value='5.25']")).not.toBeNull();
});

it("says why the cell is lost, and offers pulls that were never recorded", async () => {
  live.state = { cell: "10.0.0.1:9015", connected: false, lost: "broken", zero_kn: 0 };
  opened({
    "GET /api/v1/bench/pulls": [
      { key: "old", readings: 300, marks: { peak: { t_s: 2, load_kn: 4.567 }, outcome: "broke" } },
      { key: "short", readings: 1 },
    ],
  });
  await screen.findByText("the cell's connection was lost");
  expect(screen.getByText("Start the pull").hasAttribute("disabled")).toBe(true);
  fireEvent.click(await screen.findByText("4.57 kN"));
  expect(await screen.findByRole("dialog")).toBeTruthy();
});
