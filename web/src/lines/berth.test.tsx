import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { fakeServer, show } from "../test/app";
import { MooringsView } from "./moorings";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

type Sent = {
  name?: string;
  lying?: boolean;
  kind?: string;
  boat: { loa_m: number };
  wind: { kn: number };
  lines: { name: string; to: number[]; own?: string; shore?: string }[];
};

const usual = (kind: string, boat: unknown) => ({
  boat,
  wind: { kn: 20, from_deg: 300 },
  lines:
    kind === "posts"
      ? [{ name: "bow line to port", from: [4, -1], to: [7, -4], line: { material: "polyamide" } }]
      : ["bow line", "stern line", "fore spring", "aft spring"].map((name, i) => ({
          name,
          from: [4 - 2 * i, -1],
          to: [5 - 2 * i, -2.5],
          line: { material: "polyamide" },
          shore: "bollard",
        })),
});

const solved = (plan: Sent) => ({
  lines: plan.lines.map((_, i) => ({ load_kn: i, margin: i === 3 ? 0.7 : 2 })),
  stands_kn: 38,
  wind_kn: 5,
  moved_m: [0, 0.1],
  turn_deg: 1,
  quay_kn: 0,
  says: ["It stands 38 knots from there."],
  details: plan.lines.map((_, i) => ({
    run_m: 2,
    cut_m: 5,
    need_kn: 3,
    short: false,
    snatch_kn: { low: 0, likely: 0, high: 0, tag: "memory", source: "" },
    thin_mm: 0,
    chafes: ["quay"],
    says: [`line ${i} rubs on the edge`],
    at_boat: { post: "cleat", knot: "cleat-hitch", name: "Cleat hitch" },
    at_shore: { post: "bollard", knot: i === 1 ? "" : "bowline", name: "Bowline" },
  })),
  order: plan.lines.map((_, i) => i),
  moor: ["Fenders down.", "Bow line first."],
  unmoor: ["Engine on.", "Bow line last."],
  rule_mm: 11,
  cautions: [],
  ahead_kn: { low: 2, likely: 3, high: 4, tag: "memory", source: "table" },
  abeam: { low: 2, likely: 3, high: 4, tag: "memory", source: "wide" },
});

function server(more: Record<string, unknown> = {}) {
  return fakeServer({
    "GET /api/v1/catalogue": {
      materials: [{ id: "polyamide", name: "nylon", constructions: ["laid"] }],
      fields: [],
    },
    "GET /api/v1/locker": [
      {
        id: 3,
        code: "L000003-3",
        name: "Spare warp",
        material: "polyester",
        construction: "braid",
        diameter_mm: 16,
        thick_mm: 16,
        state: {},
        says: [],
      },
    ],
    "GET /api/v1/wind": { revision: 0, addr: "" },
    "POST /api/v1/moorings/usual": (c: { body: unknown }) => {
      const b = c.body as { kind: string; boat: unknown };
      return usual(b.kind, b.boat);
    },
    "POST /api/v1/moorings/solve": (c: { body: unknown }) => solved(c.body as Sent),
    "GET /api/v1/moorings": [],
    ...more,
  });
}

it("shares the wind, and asks again when wind, berth or boat change", async () => {
  const calls = server();
  const { container } = show(<MooringsView />);
  await screen.findByText("It stands 38 knots from there.");
  expect(container.querySelectorAll("[data-line]")).toHaveLength(4);
  expect(screen.getByText(/aft spring 3.0 kN/)).toBeTruthy();
  expect(container.querySelector("[data-order='Let go']")?.textContent).toContain("Bow line last.");
  const last = () => calls.filter((c) => c.path.endsWith("/solve")).at(-1)?.body as Sent;
  expect(last().lines.map((l) => l.name)).toEqual(["bow line", "stern line", "fore spring", "aft spring"]);
  fireEvent.change(screen.getByLabelText(/Wind, knots/), { target: { value: "40" } });
  await waitFor(() => expect(last().wind.kn).toBe(40));
  fireEvent.change(screen.getByLabelText("Length, m"), { target: { value: "7,5" } });
  await waitFor(() => expect(last().boat.loa_m).toBe(7.5));
  fireEvent.click(screen.getByText("Between four posts"));
  await waitFor(() => expect(last().lines[0]?.name).toBe("bow line to port"));
});

it("changes one line: what it is made fast to, which of the locker it is, where its shore end lies", async () => {
  const calls = server();
  const { container } = show(<MooringsView />);
  await screen.findByText("It stands 38 knots from there.");
  const last = () => calls.filter((c) => c.path.endsWith("/solve")).at(-1)?.body as Sent;
  fireEvent.click(screen.getByRole("button", { name: "stern line" }));
  expect(container.querySelector("[data-moored-line='stern line']")?.textContent).toContain("line 1 rubs");
  expect(screen.getByText(/No knot here does it/)).toBeTruthy();
  fireEvent.change(screen.getByLabelText("Ashore, on a"), { target: { value: "ring" } });
  await waitFor(() => expect(last().lines[1]?.shore).toBe("ring"));
  fireEvent.change(screen.getByLabelText("This line is"), { target: { value: "L000003-3" } });
  await waitFor(() => expect(last().lines[1]?.own).toBe("L000003-3"));
  fireEvent.change(screen.getByLabelText("Ashore, ahead, m"), { target: { value: "-6,5" } });
  await waitFor(() => expect(last().lines[1]?.to[0]).toBe(-6.5));
  fireEvent.click(screen.getByText("Another like it"));
  await waitFor(() => expect(last().lines.map((l) => l.name)).toContain("stern line, doubled"));
  fireEvent.click(screen.getByText("Take it away"));
  await waitFor(() => expect(container.querySelectorAll("[data-line]")).toHaveLength(4));
});

it("keeps a plan, and says that she lies there", async () => {
  let kept: Sent | undefined;
  const calls = server({
    "GET /api/v1/moorings": () => (kept ? [{ id: 4, revision: 2, ...kept }] : []),
    "POST /api/v1/moorings": (c: { body: unknown }) => {
      kept = c.body as Sent;
      return { ...kept, id: 4, revision: 1 };
    },
    "PUT /api/v1/moorings/4": (c: { body: unknown }) => {
      kept = c.body as Sent;
      return { ...kept, id: 4, revision: 2 };
    },
  });
  show(<MooringsView />);
  await screen.findByText("It stands 38 knots from there.");
  fireEvent.change(screen.getByLabelText("Name of the plan"), { target: { value: "Outer quay" } });
  fireEvent.click(screen.getByText("Keep this plan"));
  await screen.findByText("She lies here now");
  fireEvent.click(screen.getByText("She lies here now"));
  await waitFor(() => expect(calls.some((c) => c.method === "PUT")).toBe(true));
  expect(kept?.lying).toBe(true);
  expect(kept?.name).toBe("Outer quay");
  await screen.findByText(/⚓ Outer quay/);
});

const blowing = (wind: object) =>
  `${JSON.stringify({
    wind: {
      addr: "x",
      connected: true,
      known: true,
      kn: 31.6,
      gust_kn: 36,
      from_deg: 40,
      age_s: 0,
      torn: 0,
      ...wind,
    },
    says: "Wind now: 32 knots.",
    berths: [],
  })}\n`;

it("follows the wind that blows off the bow, and until it is turned by hand", async () => {
  const calls = server({ "GET /api/v1/wind/live": blowing({ relative: true }) });
  show(<MooringsView />);
  fireEvent.click(await screen.findByText("The wind that blows"));
  const last = () => calls.filter((c) => c.path.endsWith("/solve")).at(-1)?.body as { wind: object };
  await waitFor(() => expect(last().wind).toEqual({ kn: 32, from_deg: 40 }));
  fireEvent.change(screen.getByLabelText(/Wind, knots/), { target: { value: "12" } });
  await waitFor(() => expect(last().wind).toEqual({ kn: 12, from_deg: 40 }));
  expect(screen.getByText("The wind that blows").getAttribute("aria-pressed")).toBe("false");
});

it("does not follow a wind from north until it is known where the bow points to", async () => {
  const calls = server({ "GET /api/v1/wind/live": blowing({ relative: false }) });
  show(<MooringsView />);
  await screen.findByText(/this wind is told from north/);
  expect(screen.queryByText("The wind that blows")).toBeNull();
  fireEvent.change(screen.getByLabelText("Bow points to, °"), { target: { value: "100" } });
  fireEvent.click(await screen.findByText("The wind that blows"));
  const last = () => calls.filter((c) => c.path.endsWith("/solve")).at(-1)?.body as { wind: object };
  await waitFor(() => expect(last().wind).toEqual({ kn: 32, from_deg: 300 }));
});
