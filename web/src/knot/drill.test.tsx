import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { fakeServer, show } from "../test/app";
import { DrillView } from "./drill";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const page = {
  id: "overhand",
  name: "Overhand knot",
  frame: [0, 0, 10, 6],
  crossings: [
    { name: "l", x: 2, y: 3, first: { rope: 0, pass: 1 }, second: { rope: 0, pass: 4 } },
    { name: "b", x: 5, y: 5, first: { rope: 0, pass: 2 }, second: { rope: 0, pass: 3 } },
  ],
  choices: 4,
  tangles: 2,
  next: "bowline",
};

const server = (verdict: unknown) =>
  fakeServer({
    "GET /api/v1/knots/overhand/drill": page,
    "GET /api/v1/knots/overhand/drill.svg": "<svg></svg>",
    "GET /api/v1/knots/overhand/drill/verdict": verdict,
    "GET /api/v1/learners": [{ id: 3, name: "Ailsa" }],
    "POST /api/v1/attempts": { id: 1 },
  });

it("asks for the verdict only when every crossing is set, and turns a crossing when it is tapped again", async () => {
  const calls = server({
    name: "Falls open",
    right: false,
    says: "It comes out straight.",
    differs: 1,
    wrong: ["b"],
  });
  show(<DrillView />, "/knots/overhand/drill", "/knots/:id/drill");
  const first = await screen.findByLabelText(/^Crossing 1: pass 1 with pass 4, not set/);
  expect(screen.getByTestId("verdict").textContent).toContain("2 of 2 crossings to set");
  fireEvent.click(first);
  await screen.findByLabelText("Crossing 1: pass 1 over pass 4");
  fireEvent.click(screen.getByLabelText("Crossing 1: pass 1 over pass 4"));
  await screen.findByLabelText("Crossing 1: pass 4 over pass 1");
  expect(calls.some((c) => c.path.endsWith("/verdict"))).toBe(false);
  fireEvent.click(screen.getByLabelText(/Crossing 2: .* not set/));
  await screen.findByText("✕ Falls open");
  expect(screen.getByTestId("verdict").textContent).toContain("One crossing is not as drawn");
  expect(calls.find((c) => c.path.endsWith("/verdict"))?.query.get("set")).toBe("lu,bo");
  fireEvent.click(screen.getByText("Which ones?"));
  await screen.findByText("Crossing 2, ringed.");
  expect(screen.getByText("Next knot").getAttribute("href")).toBe("/knots/bowline/drill");
});

it("keeps a wrong result as a drill with the name of what was made", async () => {
  const calls = server({ name: "Granny", right: false, says: "No.", differs: 2, wrong: ["l", "b"] });
  show(<DrillView />, "/knots/overhand/drill", "/knots/:id/drill");
  fireEvent.click(await screen.findByLabelText(/^Crossing 1: pass 1 with pass 4, not set/));
  fireEvent.click(screen.getByLabelText(/Crossing 2: .* not set/));
  fireEvent.click(await screen.findByText("Ailsa"));
  await screen.findByText("Kept for Ailsa.");
  expect(calls.find((c) => c.method === "POST")?.body).toMatchObject({
    learner_id: 3,
    knot: "overhand",
    kind: "drill",
    outcome: "fault",
    fault: "Granny",
  });
});

it("starts again with nothing set", async () => {
  server({ name: "Overhand knot", right: true, says: "As it should be.", differs: 0 });
  show(<DrillView />, "/knots/overhand/drill", "/knots/:id/drill");
  fireEvent.click(await screen.findByLabelText(/^Crossing 1: pass 1 with pass 4, not set/));
  fireEvent.click(screen.getByLabelText(/Crossing 2: .* not set/));
  await screen.findByText("✓ Overhand knot");
  fireEvent.click(screen.getByText("Start again"));
  await waitFor(() => expect(screen.getAllByLabelText(/not set/)).toHaveLength(2));
});

it("says what is wrong when there is no drill", async () => {
  fakeServer({});
  show(<DrillView />, "/knots/overhand/drill", "/knots/:id/drill");
  expect((await screen.findByRole("alert")).textContent).toContain("nothing at");
});

it("can be done by ear: strand after strand, in words", async () => {
  server({ name: "Overhand knot", right: true, says: "Right.", differs: 0 });
  show(<DrillView />, "/knots/overhand/drill", "/knots/:id/drill");
  fireEvent.click(await screen.findByText(/By ear/));
  fireEvent.click(screen.getByText("pass 1 over pass 4"));
  fireEvent.click(screen.getAllByText("under it")[1] as HTMLElement);
  await screen.findByText("✓ Overhand knot");
});
