import { act, cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { fakeServer, show } from "../test/app";
import { KnotList } from "./list";
import { KnotView } from "./view";

const figure = { low: 1, likely: 2, high: 3, tag: "trade", source: "common practice, no source" };
const told = {
  why: "It lies flat.",
  aid: "Right over left.",
  slips: ["One", "Two", "Three"],
  undo: "Jerk it.",
  try: "Pull.",
};
const reef = {
  id: "reef-knot",
  name: "Reef knot",
  also: ["square knot"],
  kind: "bend",
  summary: "Ties two ends round a bundle.",
  drawn: true,
  drill: true,
  difficulty: 1,
  inspect: 5,
  steps: ["First half.", "Second half."],
  checks: ["Ends on one side."],
  faults: [
    {
      code: "granny",
      name: "Granny",
      looks: "crooked",
      leads: "it slips",
      mend: "The other way.",
      drawing: "granny",
    },
  ],
  told,
  left: { steps: ["First half.", "Second half."], checks: ["Ends on one side."], faults: [], told },
  efficiency: [{ materials: ["hmpe"], value: figure, tag: "memory", source: "recalled", fails: "slips" }],
  hold: [{ dry: "holds", wet: "slips", why: "wet", tag: "trade" }],
  shake: { class: "slips", why: "a jerk spills it" },
  release: { slack: "easy", how: "Pull one end back.", under_load: false, distance: false },
  tail: figure,
  seconds: figure,
  uses: { diameters: 20, turns: 0 },
  bulk: 3,
  person: false,
  tasks: { reef: { fit: 1, why: "lies flat" } },
  grows_from: [{ knot: "overhand", name: "Overhand", why: "two half knots" }],
  leads_to: [],
  caution_texts: [{ id: "strength", text: "Every knot costs strength.", locked: false }],
};

let calls: ReturnType<typeof fakeServer>;
beforeEach(() => {
  calls = fakeServer({
    "GET /api/v1/knots/reef-knot": reef,
    "GET /api/v1/knots/reef-knot/drawing.svg": (c: { query: URLSearchParams }) =>
      `<svg data-at="${c.query.get("step")}"></svg>`,
    "GET /api/v1/faults/granny/drawing.svg": "<svg></svg>",
    "GET /api/v1/attempts": { attempts: [] },
    "GET /api/v1/learners": [{ id: 3, name: "Ailsa", knows: ["bowline"] }],
    "GET /api/v1/catalogue": {
      sets: [],
      words: [],
      materials: [{ id: "hmpe", name: "HMPE" }],
      tasks: [
        { id: "reef", name: "tie in a reef" },
        { id: "join", name: "join two lines" },
        { id: "moor", name: "make fast" },
      ],
      knots: [
        {
          id: "reef-knot",
          name: "Reef knot",
          also: ["square knot"],
          kind: "bend",
          summary: "Ties.",
          drawn: true,
          difficulty: 1,
          tasks: { reef: 1, join: 0.2 },
          not_in: ["hmpe"],
          grows_from: [{ knot: "bowline", name: "Bowline", why: "half of it is the same" }],
        },
        {
          id: "bowline",
          name: "Bowline",
          kind: "loop",
          summary: "An eye.",
          drawn: false,
          difficulty: 2,
          tasks: { moor: 0.8 },
          not_in: [],
          grows_from: [],
        },
      ],
    },
  });
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const at = () => screen.getByTestId("step-text").textContent;

it("steps by button and key, and no further than the ends", async () => {
  show(<KnotView />, "/knots/reef-knot?step=1", "/knots/:id");
  await screen.findByText("Reef knot");
  expect(at()).toContain("1 / 2First half.");
  fireEvent.keyDown(document.body, { key: "ArrowRight", code: "ArrowRight" });
  fireEvent.keyDown(document.body, { key: "ArrowRight", code: "ArrowRight" });
  await waitFor(() => expect(at()).toContain("2 / 2Second half."));
  for (let i = 0; i < 5; i++) fireEvent.click(screen.getByLabelText("Step back"));
  await waitFor(() => expect(at()).toContain("0 / 2The line laid ready."));
  fireEvent.click(screen.getByLabelText("Step 2"));
  await waitFor(() => expect(at()).toContain("2 / 2"));
});

it("asks for the view and the line that are chosen", async () => {
  show(<KnotView />, "/knots/reef-knot", "/knots/:id");
  fireEvent.click(await screen.findByText("Left hand"));
  fireEvent.click(screen.getByText("Braid"));
  await waitFor(() =>
    expect(calls.some((c) => c.query.get("left") === "true" && c.query.get("look") === "braid")).toBe(true),
  );
  expect(document.body.textContent).toContain("Seen as you tie it, for a left-handed tyer");
});

it("plays the working end from step to step and stops at the last", async () => {
  show(<KnotView />, "/knots/reef-knot?step=0", "/knots/:id");
  await screen.findByText("Reef knot");
  vi.useFakeTimers();
  fireEvent.click(screen.getByText("Play"));
  for (let i = 0; i < 40; i++) act(() => vi.advanceTimersByTime(800));
  expect(at()).toContain("2 / 2");
  expect(screen.getByText("Play")).toBeTruthy();
  expect((screen.getByLabelText("Move the working end") as HTMLInputElement).value).toBe("2");
});

it("names materials as people do, and shows the look-alike beside its fault", async () => {
  show(<KnotView />, "/knots/reef-knot", "/knots/:id");
  await screen.findByText("Strength kept in HMPE");
  expect(document.querySelector('[data-lookalike="granny"]')).not.toBeNull();
  expect(document.body.textContent).toContain("holds, slips");
  expect(document.body.textContent).toContain("Every knot costs strength.");
});

it("finds a knot by any name it goes by", async () => {
  show(<KnotList />, "/knots");
  await screen.findByText("Bowline");
  fireEvent.change(screen.getByLabelText("Find by name or use"), { target: { value: "SQUARE" } });
  expect(screen.queryByText("Bowline")).toBeNull();
  expect(screen.getByText("Reef knot")).toBeTruthy();
  fireEvent.change(screen.getByLabelText("Find by name or use"), { target: { value: "sky hook" } });
  expect(screen.getByText("No knot here is called “sky hook”.")).toBeTruthy();
});
