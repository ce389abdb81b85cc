import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { fakeServer, show } from "../test/app";
import { LogView } from "./view";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const attempt = (id: number, more: object) => ({
  id,
  learner_id: 1,
  learner: "Ailsa",
  knot: "reef-knot",
  kind: "tied",
  outcome: "right",
  fault: "",
  seconds: 12,
  conditions: "dry",
  at: "2026-06-02T10:15:00Z",
  ...more,
});

const knots = [{ id: "reef-knot", name: "Reef knot" }];
const page = { id: "reef-knot", name: "Reef knot", faults: [{ code: "granny", name: "Granny" }] };

it("lists attempts by day, in words, and takes one back", async () => {
  let list = [
    attempt(2, {
      outcome: "fault",
      fault: "granny",
      seconds: 0,
      conditions: "gloves",
      at: "2026-06-03T10:15:00Z",
    }),
    attempt(1, { kind: "drill" }),
  ];
  const calls = fakeServer({
    "GET /api/v1/attempts": () => ({ attempts: list }),
    "GET /api/v1/catalogue": { knots },
    "GET /api/v1/knots/reef-knot": page,
    "DELETE /api/v1/attempts/2": () => {
      list = list.slice(1);
      return {};
    },
  });
  show(<LogView />, "/log");
  await screen.findByText("Granny");
  expect(screen.getAllByRole("heading", { level: 2 })).toHaveLength(2);
  const rows = [...document.querySelectorAll("[data-attempt]")].map((r) => r.textContent);
  expect(rows[0]).toContain("AilsaReef knotGranny–in gloves✕ fault");
  expect(rows[1]).toContain("– crossing drill12 sdry✓ right");
  fireEvent.click(screen.getAllByLabelText("Take back the attempt of Ailsa")[0] as HTMLElement);
  await waitFor(() => expect(document.querySelectorAll("[data-attempt]")).toHaveLength(1));
  expect(calls.some((c) => c.method === "DELETE")).toBe(true);
});

it("says what to do when there is nothing yet", async () => {
  fakeServer({ "GET /api/v1/attempts": { attempts: [] }, "GET /api/v1/catalogue": { knots } });
  show(<LogView />, "/log");
  expect(await screen.findByText(/No attempts yet/)).toBeTruthy();
});

it("says so when the list cannot be had, and does not pretend it is empty", async () => {
  fakeServer({
    "GET /api/v1/attempts": { status: 500, title: "Error", detail: "Something went wrong in Oarweed." },
    "GET /api/v1/catalogue": { knots },
  });
  show(<LogView />, "/log");
  expect((await screen.findByRole("alert")).textContent).toContain("Something went wrong");
  expect(screen.queryByText(/No attempts yet/)).toBeNull();
});
