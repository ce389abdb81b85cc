import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { DoctrinesView } from "../doctrines/view";
import { fakeServer, show } from "../test/app";
import { CompareView } from "./compare";
import { KnotList } from "./list";

const figure = { low: 5, likely: 8, high: 20, tag: "trade", source: "common practice, no source" };
const page = (id: string, name: string, more: object) => ({
  id,
  name,
  kind: "loop",
  summary: `${name} in short.`,
  drawn: true,
  difficulty: 2,
  steps: ["One.", "Two."],
  checks: ["Right."],
  faults: [{ code: "x", name: "Wrong way" }],
  efficiency: [
    {
      materials: ["hmpe"],
      value: { low: 0.2, likely: 0.3, high: 0.4 },
      tag: "memory",
      source: "recalled",
      fails: "slips",
    },
    {
      value: { low: 0.6, likely: 0.65, high: 0.7 },
      tag: "trade",
      source: "common practice, no source",
      fails: "breaks",
    },
  ],
  hold: [{ dry: "holds", wet: "marginal", why: "it creeps", tag: "trade" }],
  shake: { class: "holds", why: "it stays" },
  release: { slack: "easy", how: "Push it back." },
  seconds: figure,
  tasks: { moor: { fit: 0.8, why: "never jams" } },
  grows_from: [],
  leads_to: [],
  ...more,
});
const brief = (id: string, name: string, more: object) => ({
  id,
  name,
  kind: "loop",
  summary: "Short.",
  drawn: false,
  difficulty: 1,
  tasks: { moor: 1 },
  not_in: [],
  grows_from: [],
  ...more,
});

let calls: ReturnType<typeof fakeServer>;
beforeEach(() => {
  calls = fakeServer({
    "GET /api/v1/catalogue": {
      sets: [],
      words: [],
      materials: [
        { id: "polyester", name: "polyester" },
        { id: "hmpe", name: "HMPE" },
      ],
      tasks: [
        { id: "moor", name: "make the boat fast" },
        { id: "join", name: "join two lines" },
      ],
      knots: [
        brief("bowline", "Bowline", {}),
        brief("sheet-bend", "Sheet bend", {
          kind: "bend",
          difficulty: 3,
          tasks: { join: 0.5 },
          not_in: ["hmpe"],
          grows_from: [{ knot: "bowline", name: "Bowline", why: "the same structure" }],
        }),
      ],
    },
    "GET /api/v1/learners": [{ id: 3, name: "Ailsa", knows: ["bowline"] }],
    "GET /api/v1/knots/bowline": page("bowline", "Bowline", {
      leads_to: [{ knot: "sheet-bend", name: "Sheet bend", why: "the same structure" }],
    }),
    "GET /api/v1/knots/sheet-bend": page("sheet-bend", "Sheet bend", {
      refuses: { hmpe: "too slippery" },
    }),
    "GET /api/v1/knots/bowline/drawing.svg": "<svg></svg>",
    "GET /api/v1/knots/sheet-bend/drawing.svg": "<svg></svg>",
    "GET /api/v1/doctrines": {
      questions: [
        {
          id: "cleat",
          question: "How on a cleat?",
          doctrines: [
            { id: "lock", name: "With a lock", why: "holds" },
            { id: "bare", name: "Without", why: "line that freezes" },
          ],
        },
      ],
      chosen: {},
      revision: 3,
    },
    "PUT /api/v1/doctrines": (c: { body: unknown }) => ({ questions: [], ...(c.body as object) }),
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it("compares two knots in the material chosen, with evidence", async () => {
  show(<CompareView />, "/compare?a=bowline&b=sheet-bend");
  const table = await screen.findByTestId("compared");
  expect(table.textContent).toContain("They share their structure: the same structure.");
  expect(table.textContent).toContain("60–70 % then breaks");
  fireEvent.change(screen.getByLabelText("in"), { target: { value: "hmpe" } });
  await waitFor(() => expect(table.textContent).toContain("20–40 % then slips"));
  expect(table.textContent).toContain("Not tied in it: too slippery.");
});

it("filters by task, material and difficulty, and says when nothing fits", async () => {
  show(<KnotList />, "/knots");
  await screen.findByText("2 knots.");
  fireEvent.change(screen.getByLabelText("In"), { target: { value: "hmpe" } });
  await screen.findByText("One knot.");
  expect(screen.queryByText("Sheet bend")).toBeNull();
  fireEvent.change(screen.getByLabelText("To"), { target: { value: "join" } });
  await screen.findByText("No knot fits all of that.");
  fireEvent.click(screen.getByText("Show all"));
  await screen.findByText("2 knots.");
  fireEvent.change(screen.getByLabelText("Hard to learn"), { target: { value: "1" } });
  await screen.findByText("One knot.");
});

it("puts next what shares its structure with what a learner knows", async () => {
  show(<KnotList />, "/knots?known=3");
  await screen.findByText("Next for Ailsa: part of it is known already");
  expect(screen.getByText("Bowline: the same structure.")).toBeTruthy();
  expect(screen.getByRole("heading", { name: "Known" })).toBeTruthy();
});

it("sends the chosen doctrine, and leaves the usual one out", async () => {
  show(<DoctrinesView />, "/doctrines");
  fireEvent.click(await screen.findByLabelText(/Without/));
  await waitFor(() =>
    expect(calls.find((c) => c.method === "PUT")?.body).toEqual({ chosen: { cleat: "bare" } }),
  );
  fireEvent.click(screen.getByLabelText(/With a lock/));
  await waitFor(() => expect(calls.filter((c) => c.method === "PUT").length).toBeLessThanOrEqual(2));
});
