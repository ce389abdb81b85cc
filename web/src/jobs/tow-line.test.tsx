import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { fakeServer, show } from "../test/app";
import { TowLine } from "./tow-line";

const caution = { id: "person", text: "Nothing is approved.", locked: true };

beforeEach(() => {
  fakeServer({
    "GET /api/v1/catalogue": { cautions: [caution], knots: [], fittings: [], tasks: [], procedures: [] },
    "GET /api/v1/knots/tow-pylon-hitch/drawing.svg": "<svg></svg>",
    "GET /api/v1/tow": (c: { query: URLSearchParams }) =>
      c.query.get("want") === "90ft"
        ? {
            status: 422,
            detail: "No.",
            fields: [
              { field: "want", message: "is 1.52 m longer than the line reaches", fix: "lengthen it" },
            ],
          }
        : {
            takeoff_m: 21.336,
            take_up_m: c.query.get("want") === "70ft" ? 0 : 0.61,
            hitch: c.query.get("want") === "70ft" ? "" : "tow-pylon-hitch",
            says: "Take the take-off.",
            takeoffs_m: [18.288, 19.812, 21.336],
            want_m: 20.73,
          },
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it("says the place, draws it, and keeps the last one beside what cannot be had", async () => {
  show(<TowLine />);
  await screen.findByText("The 70 ft take-off, up 61 cm");
  expect(screen.getByRole("img", { name: /made fast at 68 ft/ })).toBeTruthy();
  expect(screen.getByText(/Nothing is approved/)).toBeTruthy();
  fireEvent.change(screen.getByLabelText("The rider wants"), { target: { value: "70ft" } });
  await screen.findByText("The 70 ft take-off");
  fireEvent.change(screen.getByLabelText("The rider wants"), { target: { value: "90ft" } });
  await screen.findByText(/longer than the line reaches/);
  await waitFor(() => expect(screen.getByTestId("tow").textContent).toContain("The 70 ft take-off"));
});
