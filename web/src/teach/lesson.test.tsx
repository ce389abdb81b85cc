import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { fakeServer, show } from "../test/app";
import { BoardView } from "./board";
import { GearPart } from "./gear";
import { PeopleView } from "./people";
import { RunView } from "./run";

beforeEach(() => localStorage.clear());
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const knots = [
  { id: "bowline", name: "Bowline", drawn: true },
  { id: "reef-knot", name: "Reef knot", drawn: true },
];
const catalogue = {
  knots,
  cautions: [
    { id: "by-hand", text: "Never hold a boat by hand." },
    { id: "tow", text: "Look at the whole line." },
  ],
  sets: [{ id: "first", name: "First afternoon", knots: ["reef-knot"] }],
  tasks: [],
  fields: [],
};

const lesson = {
  id: 3,
  revision: 5,
  name: "Evening one",
  group: "Evening class",
  request: { minutes: 30, learners: 6, knots: ["bowline"] },
  notes: { bowline: "Say the rabbit only once." },
};

function held(more: Record<string, unknown> = {}) {
  return fakeServer({
    "GET /api/v1/catalogue": catalogue,
    "GET /api/v1/lessons/3": lesson,
    "POST /api/v1/lesson-plan": {
      plan: {
        blocks: [
          { kind: "begin", minutes: 2 },
          { kind: "demonstrate", knot: "bowline", minutes: 3 },
          { kind: "follow", knot: "bowline", minutes: 5 },
          { kind: "check", knot: "bowline", minutes: 5 },
          { kind: "end", minutes: 1 },
        ],
      },
    },
    "GET /api/v1/knots/bowline": {
      id: "bowline",
      name: "Bowline",
      steps: ["Make a small loop.", "Up through it."],
      checks: ["The end lies inside."],
      told: { aid: "Through, round the back, and down." },
      caution_texts: [],
    },
    "GET /api/v1/knots/bowline/drawing.svg": "<svg></svg>",
    "PUT /api/v1/lessons/3": (c: { body: unknown }) => c.body,
    ...more,
  });
}

it("runs a lesson block by block and step by step, and learns the minutes at its end", async () => {
  vi.useFakeTimers({ shouldAdvanceTime: true, now: new Date("2026-05-31T10:00:00Z") });
  const calls = held();
  const { container } = show(<RunView />, "/teach/plan/3/run", "/teach/plan/:id/run");
  await screen.findByText("Evening one");
  expect(screen.getByText("Never hold a boat by hand.")).toBeTruthy();
  expect(screen.queryByText("Look at the whole line.")).toBeNull();
  fireEvent.click(screen.getByText("Next ›"));
  await screen.findByText("Through, round the back, and down.");
  expect(screen.getByText("Say the rabbit only once.")).toBeTruthy();
  vi.setSystemTime(new Date("2026-05-31T10:04:00Z"));
  await vi.advanceTimersByTimeAsync(600);
  await waitFor(() => expect(screen.getByRole("timer").textContent).toMatch(/^\+1:0/));
  fireEvent.click(screen.getByText("Next ›"));
  await screen.findByText("1. Make a small loop.");
  fireEvent.click(screen.getByText("Step 2 ›"));
  await screen.findByText("2. Up through it.");
  fireEvent.click(screen.getByText("‹ Back"));
  await screen.findByText("1. Make a small loop.");
  fireEvent.keyDown(document.body, { key: "ArrowRight" });
  await screen.findByText("2. Up through it.");
  vi.setSystemTime(new Date("2026-05-31T10:10:00Z"));
  fireEvent.click(screen.getByText("Next ›"));
  await screen.findByText("The end lies inside.");
  expect(screen.getByText("Round on the board")).toBeTruthy();
  fireEvent.click(screen.getByText("Next ›"));
  expect(container.querySelector("[data-kind='end']")).not.toBeNull();
  fireEvent.click(screen.getByText("Finish, and learn the minutes"));
  await waitFor(() => expect(calls.some((c) => c.method === "PUT")).toBe(true));
  const sent = calls.find((c) => c.method === "PUT")?.body as { held: boolean; took: Record<string, number> };
  expect(sent.held).toBe(true);
  expect(sent.took.bowline).toBeCloseTo(10, 0);
});

it("goes on where it was when the page is opened again, and anew on another day", async () => {
  const at = { block: 2, step: 2, begun: Date.now() - 600_000, since: Date.now(), took: { bowline: 3 } };
  localStorage.setItem("oarweed-run-3", JSON.stringify(at));
  held();
  const first = show(<RunView />, "/teach/plan/3/run", "/teach/plan/:id/run");
  await screen.findByText("2. Up through it.");
  first.unmount();
  localStorage.setItem("oarweed-run-3", JSON.stringify({ ...at, begun: Date.now() - 20 * 3_600_000 }));
  const second = show(<RunView />, "/teach/plan/3/run", "/teach/plan/:id/run");
  await screen.findByText("Never hold a boat by hand.");
  second.unmount();
  localStorage.setItem("oarweed-run-3", "no progress");
  show(<RunView />, "/teach/plan/3/run", "/teach/plan/:id/run");
  await screen.findByText("Never hold a boat by hand.");
});

it("shows who can what, most tied first, and what comes next; a set narrows it", async () => {
  fakeServer({
    "GET /api/v1/catalogue": catalogue,
    "GET /api/v1/due": [],
    "GET /api/v1/session": { role: "instructor" },
    "GET /api/v1/joins": [],
    "GET /api/v1/board": {
      groups: ["Evening class"],
      rows: [
        { id: 1, name: "Ailsa", cells: { bowline: { level: 3 }, "reef-knot": { level: 1, fault: 2 } } },
        { id: 2, name: "Bram", cells: { bowline: { level: 2 } } },
      ],
      next: [{ knot: "reef-knot", name: "Reef knot", says: "half of them can already" }],
    },
  });
  const { container } = show(<BoardView />);
  await screen.findByText("2 learners, 2 knots");
  const heads = [...container.querySelectorAll("[data-testid=board] thead th")].map((th) => th.textContent);
  expect(heads.slice(1)).toEqual(["Bowline", "Reef knot"]);
  expect(container.querySelectorAll("[data-row]")).toHaveLength(2);
  fireEvent.change(screen.getByLabelText("Knots"), { target: { value: "first" } });
  await screen.findByText("2 learners, 1 knot");
});

it("says what to do where nobody is in the class", async () => {
  fakeServer({
    "GET /api/v1/catalogue": catalogue,
    "GET /api/v1/due": [],
    "GET /api/v1/session": { role: "instructor" },
    "GET /api/v1/board": { groups: [], rows: [], next: [] },
  });
  show(<BoardView />);
  expect((await screen.findByText("Add learners, or take in a list")).getAttribute("href")).toBe(
    "/teach/people",
  );
});

const row = (n: number, name: string, more: object = {}) => ({
  row: n,
  learner: { name, knows: [] },
  ...more,
});

it("takes a list in: the same is that learner, one alike is asked about, a wrong row stays out", async () => {
  const calls = fakeServer({
    "GET /api/v1/due": [],
    "GET /api/v1/learners": [
      { id: 1, name: "Ailsa", groups: ["Evening class"], knows: ["bowline"], hand: "left" },
      { id: 2, name: "Corin", knows: [], archived: true },
    ],
    "POST /api/v1/roster/preview": {
      rows: [
        row(2, "Ailsa", { same: true, like: "Ailsa", like_id: 1 }),
        row(3, "Ailse", { like: "Ailsa", like_id: 1 }),
        row(4, "Dorrit"),
        row(5, "", { trouble: "has no name" }),
      ],
    },
    "POST /api/v1/roster": { added: 1, changed: 1 },
  });
  show(<PeopleView />);
  await screen.findByText("Evening class");
  expect(screen.getByText(/left-handed/)).toBeTruthy();
  expect(screen.queryByText("Corin")).toBeNull();
  fireEvent.click(screen.getByText("Archived"));
  await screen.findByText("Corin");
  fireEvent.click(screen.getByText("Those in class"));
  fireEvent.change(screen.getByLabelText("List of learners"), {
    target: { files: [new File(["name\nAilsa"], "class.csv")] },
  });
  await screen.findByText("✕ has no name");
  expect(screen.getByText("is there already")).toBeTruthy();
  fireEvent.change(screen.getByLabelText("What to do with row 3"), { target: { value: "skip" } });
  fireEvent.click(screen.getByText("Take in 2"));
  await screen.findByText("1 added, 1 changed.");
  const sent = calls.find((c) => c.path === "/api/v1/roster")?.body as {
    learners: { id?: number; name: string }[];
  };
  expect(sent.learners.map((l) => [l.name, l.id])).toEqual([
    ["Ailsa", 1],
    ["Dorrit", undefined],
  ]);
});

it("keeps who tied what on gear, who looked, and when to look again", async () => {
  const calls = fakeServer({
    "GET /api/v1/catalogue": catalogue,
    "GET /api/v1/qr.svg": "<svg></svg>",
    "GET /api/v1/gear": [
      {
        id: 7,
        revision: 2,
        code: "G007-7",
        what: "Lashing of the mast",
        knot: "reef-knot",
        tied: { name: "Corin", at: "2026-01-02T10:00:00Z" },
        again: "2026-02-01T00:00:00Z",
      },
    ],
    "PUT /api/v1/gear/7": (c: { body: unknown }) => c.body,
    "POST /api/v1/gear": (c: { body: unknown }) => c.body,
  });
  const { container } = show(<GearPart />);
  await screen.findByText("Lashing of the mast");
  expect(container.querySelector("[data-gear]")?.textContent).toContain("Look again now");
  expect(container.querySelector("[data-gear]")?.textContent).toContain("nobody else has looked");
  fireEvent.click(screen.getByText("Look at it"));
  let sheet = within(await screen.findByRole("dialog"));
  fireEvent.change(sheet.getByLabelText("Looked at by, somebody else"), { target: { value: "Ailsa" } });
  fireEvent.change(sheet.getByLabelText("Look again on"), { target: { value: "2026-12-01" } });
  fireEvent.click(sheet.getByText("Save"));
  await waitFor(() => expect(calls.some((c) => c.method === "PUT")).toBe(true));
  expect(calls.find((c) => c.method === "PUT")?.body).toMatchObject({
    tied: { name: "Corin", at: "2026-01-02T10:00:00Z" },
    checked: { name: "Ailsa" },
    again: "2026-12-01T00:00:00.000Z",
  });
  await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
  fireEvent.click(screen.getByText("Add a thing"));
  sheet = within(await screen.findByRole("dialog"));
  fireEvent.change(sheet.getByLabelText("What it is"), { target: { value: "Fender" } });
  fireEvent.change(sheet.getByLabelText("Tied by"), { target: { value: "Bram" } });
  fireEvent.click(sheet.getByText("Somebody's life hangs on it"));
  fireEvent.click(sheet.getByText("Save"));
  await waitFor(() => expect(calls.some((c) => c.method === "POST")).toBe(true));
  expect(calls.find((c) => c.method === "POST")?.body).toMatchObject({
    what: "Fender",
    tied: { name: "Bram" },
    person: true,
  });
  await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
  fireEvent.click(screen.getByText("Label G007-7"));
  expect((await screen.findByTestId("label")).textContent).toContain("tied by Corin");
});
