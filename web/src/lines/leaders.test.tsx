import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { fakeServer, show } from "../test/app";
import { LeadersView } from "./leaders";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it("counts changes, shows what is left, and warns", async () => {
  let changes = 3;
  const calls = fakeServer({
    "GET /api/v1/leaders/left": () => [
      {
        id: 5,
        revision: 2,
        name: "Evening rocks",
        length_m: 2.7,
        shortest_m: 2,
        knot: "non-slip-loop",
        knot_name: "Non-slip loop",
        line: { material: "fluorocarbon", label_kn: 0.07 },
        changes,
        now_m: 2.5,
        changes_left: 5 - changes,
        per_change_m: 0.03,
        tag: "computed",
        low: changes > 3,
        says: [changes > 3 ? "One change left: have the next one ready." : "Two changes left."],
      },
    ],
    "PUT /api/v1/leaders/5": (c: { body: unknown }) => {
      changes = (c.body as { changes: number }).changes;
      return {};
    },
  });
  const { container } = show(<LeadersView />);
  await screen.findByText("Evening rocks");
  expect(container.querySelector("[data-left]")?.textContent).toBe("2");
  fireEvent.click(screen.getByText("Tied again"));
  await screen.findByText("One change left: have the next one ready.");
  expect(calls.find((c) => c.method === "PUT")?.body).toMatchObject({
    changes: 4,
    knot: "non-slip-loop",
    length_m: 2.7,
  });
  fireEvent.click(screen.getByText("10 cm spoilt"));
  await waitFor(() => expect(calls.filter((c) => c.method === "PUT")).toHaveLength(2));
  expect(calls.filter((c) => c.method === "PUT")[1]?.body).toMatchObject({ lost_m: 0.1 });
});
