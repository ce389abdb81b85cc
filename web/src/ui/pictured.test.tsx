import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { KnotPage } from "../api/client";
import { SoftShackle } from "../jobs/shackle";
import { Ways } from "../knot/told";
import { fakeServer, show } from "../test/app";

let calls: ReturnType<typeof fakeServer>;
const figure = { low: 1, likely: 2, high: 3, unit: "kN", tag: "memory", source: "x" };
const cell = (knot: string, name: string, word: string) => ({
  knot,
  name,
  word,
  bulk_mm: 20,
  ratio: 1.5,
  seconds: 10,
  cord_m: 0.2,
  cut_m: 0.6,
  capacity_kn: figure,
  says: "",
  first: "",
});
beforeEach(() => {
  calls = fakeServer({
    "GET /api/v1/catalogue": { knots: [], materials: [], words: [] },
    "GET /api/v1/knots/cow-hitch/drawing.svg": "<svg></svg>",
    "GET /api/v1/shackle": {
      diameter_mm: 6,
      cord_kn: figure,
      cautions: [],
      rows: [
        {
          knot: "cow-hitch",
          name: "Cow hitch",
          opening_mm: 15,
          never: "",
          cells: [cell("overhand", "Overhand in each tail", "holds"), cell("reef", "Reef", "pulls through")],
        },
      ],
      tying: {
        clamp: "cow-hitch",
        clamp_name: "Cow hitch",
        stopper: "overhand",
        stopper_name: "Overhand in each tail",
        word: "holds",
        stopper_first: false,
        steps: [
          { says: "Find its middle." },
          { says: "Fold it.", knot: "cow-hitch", way: "folded", step: 1 },
        ],
      },
    },
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it("shows another way step by step, by the hand and from the side that the page shows", async () => {
  const told = (says: string) => ({
    drawn: [{ name: "From a bight", drawing: "folded", steps: [says, "Pull."] }],
  });
  const knot = {
    id: "cow-hitch",
    name: "Cow hitch",
    told: told("To the right."),
    left: { told: told("To the left.") },
  };
  show(<Ways knot={knot as unknown as KnotPage} left look="laid" view="across" />, "/", "/");
  await waitFor(() => expect(document.querySelectorAll('[data-way="folded"] li')).toHaveLength(2));
  expect(document.body.textContent).toContain("To the left.");
  await waitFor(() =>
    expect(
      calls
        .filter((c) => c.query.get("way") === "folded" && c.query.get("left") === "true")
        .map((c) => c.query.get("step")),
    ).toEqual(["1", "2"]),
  );
});

it("offers to tie a pair that does not pull through, and asks how it is tied", async () => {
  vi.stubGlobal("scrollTo", () => undefined);
  Element.prototype.scrollIntoView = vi.fn();
  show(<SoftShackle />, "/jobs/soft-shackle", "/jobs/soft-shackle");
  await waitFor(() => expect(screen.getAllByText("Tie it")).toHaveLength(1));
  fireEvent.click(screen.getByLabelText("How cow hitch with overhand in each tail is tied"));
  await waitFor(() =>
    expect(
      calls.some((c) => c.query.get("clamp") === "cow-hitch" && c.query.get("stopper") === "overhand"),
    ).toBe(true),
  );
  const steps = document.querySelectorAll('[data-testid="tying"] li');
  expect([...steps].map((s) => s.textContent)).toEqual(["1Find its middle.", "2Fold it."]);
});
