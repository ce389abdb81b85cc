import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { fakeServer, show } from "../test/app";
import { ClassView } from "./class";
import { emptyOutbox } from "./outbox";

const names = ["Ailsa", "Bram", "Corin", "Dorrit", "Eskil", "Fenna"];
const board = {
  rows: names.map((name, i) => ({ id: i + 1, name, cells: {} })),
  groups: ["Evening"],
  next: [],
};
const bowline = {
  id: "bowline",
  name: "Bowline",
  faults: [
    { code: "end-outside", name: "End outside the eye", looks: "it lies outside" },
    { code: "tail-short", name: "Tail too short", looks: "a stub" },
  ],
  fault_places: { "tail-short": [5, 3] },
};

let calls: ReturnType<typeof fakeServer>;
beforeEach(() => {
  localStorage.clear();
  emptyOutbox();
  let id = 0;
  calls = fakeServer({
    "GET /api/v1/board": board,
    "GET /api/v1/catalogue": { knots: [{ id: "bowline", name: "Bowline" }] },
    "GET /api/v1/knots/bowline": bowline,
    "GET /api/v1/knots/bowline/drawing.svg": '<svg viewBox="0 0 10 6"></svg>',
    "POST /api/v1/attempts": () => ({ id: ++id }),
    "DELETE /api/v1/attempts/1": {},
    "POST /api/v1/round": {
      says: "One of six: end outside the eye.",
      next: { knot: "sheet-bend", name: "Sheet bend", says: "They can tie the bowline.", lack: 6 },
    },
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const tile = (name: string) => screen.findByRole("button", { name: new RegExp(`^${name}:`) });
const sent = () =>
  calls.filter((c) => c.method === "POST" && c.path === "/api/v1/attempts").map((c) => c.body);

it("takes one touch for each who is done and two for a fault, and says what the round shows", async () => {
  show(<ClassView />, "/teach/class?knot=bowline");
  await tile("Ailsa");
  fireEvent.click(screen.getByText("wet"));
  fireEvent.click(screen.getByText("gloves"));
  fireEvent.click(screen.getByText("Start"));
  let touches = 0;
  for (const name of names.slice(0, 5)) {
    fireEvent.click(await tile(name));
    touches++;
  }
  fireEvent.contextMenu(await tile("Fenna"));
  fireEvent.click(await screen.findByRole("button", { name: /^End outside/ }));
  touches += 2;
  fireEvent.click(screen.getByText("End round"));
  touches++;
  expect(touches).toBeLessThanOrEqual(9);
  await screen.findByText("One of six: end outside the eye.");
  await waitFor(() => expect(sent()).toHaveLength(6));
  expect(sent()[0]).toMatchObject({
    learner_id: 1,
    knot: "bowline",
    outcome: "right",
    conditions: "wet,gloves",
  });
  expect(sent()[5]).toMatchObject({ learner_id: 6, outcome: "fault", fault: "end-outside" });
  fireEvent.click(screen.getByText("Another round"));
  expect(screen.getByRole("heading", { level: 1 }).textContent).toBe("Bowline, round 2");
  expect(screen.getByText("✓ wet").getAttribute("aria-pressed")).toBe("true");
});

it("takes a mistake back in one touch, and a reload loses nothing", async () => {
  const { unmount } = show(<ClassView />, "/teach/class?knot=bowline");
  fireEvent.click(await tile("Ailsa"));
  await waitFor(() => expect(sent()).toHaveLength(1));
  unmount();
  show(<ClassView />, "/teach/class?knot=bowline");
  expect((await tile("Ailsa")).getAttribute("aria-label")).toContain("right");
  fireEvent.click(screen.getByLabelText("Take the last back"));
  await waitFor(() => expect(calls.some((c) => c.method === "DELETE")).toBe(true));
  expect((await tile("Ailsa")).getAttribute("aria-label")).toContain("touch when done");
});

it("finds the fault on the drawing where it has its place", async () => {
  show(<ClassView />, "/teach/class?knot=bowline");
  fireEvent.contextMenu(await tile("Bram"));
  const rings = await screen.findAllByRole("button", { name: "Tail too short" });
  fireEvent.click(rings[0] as HTMLElement);
  await waitFor(() => expect(sent()[0]).toMatchObject({ learner_id: 2, fault: "tail-short" }));
});
