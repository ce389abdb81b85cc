import { act, cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { fakeServer, show } from "../test/app";
import { ShowView } from "./show";

let calls: ReturnType<typeof fakeServer>;
beforeEach(() => {
  calls = fakeServer({
    "GET /api/v1/knots/reef-knot": {
      id: "reef-knot",
      name: "Reef knot",
      kind: "bend",
      drawn: true,
      steps: ["Right over left.", "Bring both up.", "Left over right."],
      told: { aid: "Right over left." },
      left: {
        steps: ["Left over right.", "Bring both up.", "Right over left."],
        told: { aid: "Left over right." },
      },
    },
    "GET /api/v1/knots/reef-knot/drawing.svg": "<svg></svg>",
  });
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const mine = () => document.querySelector('[data-half="me"]')?.textContent;

it("has hand, side and direction as switches of their own, and words that turn with the hand", async () => {
  show(<ShowView />, "/knots/reef-knot/show", "/knots/:id/show");
  await waitFor(() => expect(mine()).toContain("1of 3Right over left."));
  fireEvent.click(screen.getByText("left"));
  await waitFor(() => expect(mine()).toContain("Left over right."));
  fireEvent.click(screen.getByText("facing me"));
  await waitFor(() =>
    expect(calls.some((c) => c.query.get("view") === "across" && c.query.get("left") === "true")).toBe(true),
  );
  fireEvent.click(screen.getByText("both"));
  await waitFor(() => expect(document.querySelectorAll("[data-half]")).toHaveLength(2));
  fireEvent.click(screen.getByText("across"));
  await waitFor(() => expect(mine()).toBeUndefined());
});

it("plays with a pause that is set, stops at the last step, and follows a presenter's keys", async () => {
  show(<ShowView />, "/knots/reef-knot/show", "/knots/:id/show");
  await waitFor(() => expect(mine()).toContain("1of 3"));
  fireEvent.click(screen.getByLabelText("Shorter pause"));
  expect(document.body.textContent).toContain("3 s");
  vi.useFakeTimers();
  fireEvent.click(screen.getByLabelText("Play"));
  act(() => vi.advanceTimersByTime(3100));
  expect(mine()).toContain("2of 3");
  act(() => vi.advanceTimersByTime(3100));
  expect(mine()).toContain("3of 3");
  vi.useRealTimers();
  await waitFor(() => expect(screen.getByLabelText("Play")).toBeTruthy());
  fireEvent.keyDown(document.body, { key: "PageUp", code: "PageUp" });
  await waitFor(() => expect(mine()).toContain("2of 3"));
  fireEvent.keyDown(document.body, { key: "PageDown", code: "PageDown" });
  await waitFor(() => expect(mine()).toContain("3of 3"));
});
