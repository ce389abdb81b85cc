import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { fakeServer, show } from "../test/app";
import { DueView } from "./due";
import { PersonView } from "./person";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const due = [
  {
    knot: "bowline",
    name: "Bowline",
    learner: "Ailsa",
    learner_id: 1,
    says: "the same fault twice",
    memory: {},
  },
  {
    knot: "reef-knot",
    name: "Reef knot",
    learner: "Bram",
    learner_id: 2,
    says: "nine days over",
    memory: {},
  },
];

const person = {
  learner: { id: 1, revision: 4, name: "Ailsa", groups: ["Evening class"], hand: "left", knows: ["bowline"] },
  standings: [
    {
      knot: "bowline",
      name: "Bowline",
      level: 3,
      fault: "loop-crossed",
      repeated: true,
      best_s: 7,
      target_s: 12,
      attempts: 9,
      left_ok: true,
      memory: { due: "2026-06-03T10:00:00Z" },
    },
    { knot: "reef-knot", name: "Reef knot", level: 1, target_s: 6, attempts: 1, memory: {} },
  ],
  due: due.slice(0, 1),
  notes: ["Never tied wet: the bowline."],
};

const at = (n: number) => `2026-05-0${n}T10:00:00Z`;

function server(more: Record<string, unknown> = {}) {
  return fakeServer({
    "GET /api/v1/due": due,
    "GET /api/v1/catalogue": { knots: [], fields: [] },
    "GET /api/v1/learners/1/page": person,
    "GET /api/v1/learners": [
      { id: 1, name: "Ailsa" },
      { id: 5, name: "Ailse" },
    ],
    "GET /api/v1/attempts": {
      attempts: [
        { id: 1, knot: "bowline", outcome: "fault", fault: "loop-crossed", at: at(1) },
        { id: 2, knot: "bowline", outcome: "fault", fault: "loop-crossed", at: at(2) },
        { id: 3, knot: "bowline", outcome: "right", seconds: 7, at: at(3) },
      ],
    },
    "GET /api/v1/knots/bowline": {
      id: "bowline",
      name: "Bowline",
      steps: [],
      faults: [{ code: "loop-crossed", name: "Loop crossed", mend: "Turn the small loop over." }],
    },
    "GET /api/v1/feeds": [],
    ...more,
  });
}

const shown = () => show(<PersonView />, "/teach/people/1", "/teach/people/:id");

it("shows what a learner can, his times and his faults with their mending", async () => {
  server();
  shown();
  await screen.findByText("Never tied wet: the bowline.");
  expect(screen.getByText(/Evening class · left hand/)).toBeTruthy();
  const rows = screen.getAllByRole("row").map((r) => r.textContent);
  expect(
    rows.some((r) => r?.includes("Bowline") && r.includes("7 s") && r.includes("12 s") && r.includes("left")),
  ).toBe(true);
  expect(rows.some((r) => r?.includes("Reef knot") && r.includes("–"))).toBe(true);
  await screen.findByText("2 × Loop crossed");
  expect(screen.getByText("Turn the small loop over.")).toBeTruthy();
});

it("makes a sheet to take home: twenty of each, five wet", async () => {
  server();
  shown();
  fireEvent.click(await screen.findByText("Sheet to take home"));
  const sheet = await screen.findByTestId("home-sheet");
  expect(sheet.textContent).toContain("Ailsa: twenty of each");
  expect(within(sheet).getAllByText("wet")).toHaveLength(5);
  expect(within(sheet).getByText("20")).toBeTruthy();
});

it("archives, gives all attempts to another, and erases only when asked twice", async () => {
  const calls = server({
    "PUT /api/v1/learners/1": (c: { body: unknown }) => c.body,
    "POST /api/v1/learners/1/merge": {},
    "DELETE /api/v1/learners/1": {},
  });
  shown();
  fireEvent.click(await screen.findByText("Change"));
  fireEvent.click(await screen.findByText("Archive, and keep the record"));
  await waitFor(() => expect(calls.some((c) => c.method === "PUT")).toBe(true));
  expect(calls.find((c) => c.method === "PUT")?.body).toMatchObject({ name: "Ailsa", archived: true });
  await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
  fireEvent.click(screen.getByText("Change"));
  fireEvent.click(await screen.findByText("Erase…"));
  expect(calls.some((c) => c.method === "DELETE")).toBe(false);
  fireEvent.change(screen.getByLabelText("Give all attempts to"), { target: { value: "5" } });
  await waitFor(() => expect(calls.find((c) => c.path.endsWith("/merge"))?.body).toEqual({ into: 5 }));
  cleanup();
  const again = server({ "DELETE /api/v1/learners/1": {} });
  shown();
  fireEvent.click(await screen.findByText("Change"));
  fireEvent.click(await screen.findByText("Erase…"));
  fireEvent.click(screen.getByText(/Erase Ailsa and every attempt/));
  await waitFor(() => expect(again.some((c) => c.method === "DELETE")).toBe(true));
});

it("lists what is due by learner, the most urgent first", async () => {
  server();
  const { container } = show(<DueView />);
  await screen.findByText("2 to tie again");
  expect([...container.querySelectorAll("[data-due]")].map((d) => d.getAttribute("data-due"))).toEqual([
    "Ailsa",
    "Bram",
  ]);
  expect(screen.getByText(/the same fault twice/)).toBeTruthy();
});
