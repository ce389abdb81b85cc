import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { Answer, Choice } from "../api/client";
import { fakeServer, show } from "../test/app";
import { AnswerPanel } from "./answer";

const figure = (low: number, likely: number, high: number, tag = "trade") => ({
  low,
  likely,
  high,
  tag,
  source: "common practice, no source",
});

const choice = (knot: string, name: string, more: object = {}): Choice =>
  ({
    knot,
    name,
    kind: "hitch",
    drawn: true,
    score: 80,
    reason: "it suits",
    contributions: [
      { criterion: "hold", weight: 60, value: 0.9, points: 54 },
      { criterion: "strength", weight: 40, value: 0.65, points: 26 },
      { criterion: "line used", weight: 0, value: 0.5, points: 0 },
    ],
    strength: {
      capacity_kn: figure(8, 10, 12, "computed"),
      efficiency: figure(0.5, 0.6, 0.7, "memory"),
      fails: "breaks",
      utilisation: 1.92,
      margin: 0.52,
      times: 4.16,
      new: 0.8,
      word: "short",
    },
    dry: {
      class: "holds",
      why: "it grips",
      tag: "trade",
      chance: 0.98,
      chance_low: 0.94,
      chance_high: 0.995,
      worked: false,
    },
    wet: {
      class: "marginal",
      why: "needs friction",
      tag: "computed",
      chance: 0.86,
      chance_low: 0.8,
      chance_high: 0.9,
      worked: true,
    },
    but: [],
    decided: "Before the bowline above all for this: hold.",
    letting_go: "With the rest off, the round turn asks 180 N of the hand.",
    release_how: "Pull the end.",
    release_word: "under load",
    seconds: figure(5, 8, 20),
    needs_m: 0.65,
    tail_m: 0.1,
    consumes_m: 0.55,
    wraps: 4,
    wraps_short: 2,
    per_wrap: { low: 0.05, likely: 0.1, high: 0.2 },
    flags: ["The line is short: new and dry it bears 3.9 times the load at least."],
    cautions: [],
    ...more,
  }) as unknown as Choice;

const answer = {
  rig: { chain: [], peak_kn: 2.4 },
  defaults: [{ field: "character", value: "steady", why: "no other given" }],
  line: {
    name: "12 mm polyester braid",
    diameter_mm: 12,
    mbl_kn: figure(18.8, 18.8, 18.8, "published"),
    capacity_kn: figure(18.8, 18.8, 18.8, "published"),
    options: [{ name: "seamanship rule", mbl_kn: figure(18.8, 18.8, 18.8, "published"), used: true }],
    why: "The only figure known for this line.",
  },
  people: false,
  needed_kn: 19.2,
  design_factor: 8,
  factor_why: "8 where the load comes and goes",
  factor_tag: "memory",
  ranked: [choice("clove-hitch", "Clove hitch"), choice("bowline", "Bowline")],
  ruled_out: [
    {
      knot: "cow-hitch",
      name: "Cow hitch",
      near: true,
      reasons: [{ gate: "release", why: "Cannot be cast off under load." }],
    },
    {
      knot: "reef-knot",
      name: "Reef knot",
      near: false,
      reasons: [{ gate: "task", why: "Not made for this." }],
    },
  ],
  cautions: [
    { id: "person", text: "A person could be held.", locked: true },
    { id: "strength", text: "Every knot costs strength.", locked: false },
  ],
} as unknown as Answer;

const select = vi.fn();
const attempt = vi.fn();
const setWraps = vi.fn();

function panel(over: Partial<Answer> = {}) {
  const a = { ...answer, ...over };
  show(
    <AnswerPanel
      answer={a}
      fishing={false}
      look="braid"
      selected={a.ranked[0]}
      select={select}
      attempt={attempt}
      setWraps={setWraps}
      setBare={() => {}}
    />,
  );
}

beforeEach(() => {
  fakeServer({
    "GET /api/v1/knots/clove-hitch/drawing.svg": "<svg></svg>",
    "GET /api/v1/knots/bowline/drawing.svg": "<svg></svg>",
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it("ranks with word, shape and evidence, never colour alone", () => {
  panel();
  const row = document.querySelector('[data-ranked="clove-hitch"]') as HTMLElement;
  expect(row.textContent).toContain("1. Clove hitch, 4 wraps");
  expect(row.textContent).toContain("wetmarginal86 in 100");
  expect(row.textContent).toContain("dryholds");
  expect(row.textContent).toContain("▲ line short: breaks at 4.2 × the load");
  expect(row.textContent).toContain("strength ○ memory");
  expect(row.querySelector('[role="img"][aria-label^="Bears 10 kN"]')).not.toBeNull();
});

it("shows the chosen knot with its figures, and how the score adds up", () => {
  panel();
  const chosen = screen.getByTestId("chosen");
  expect(chosen.textContent).toContain("Breaks at 8–12 kN");
  expect(chosen.textContent).toContain("Keeps 50–70 % of the line");
  expect(chosen.textContent).toContain("Takes 65 cm of line to tie; tail 10 cm");
  expect(chosen.textContent).toContain("it bears 3.9 times the load");
  expect(chosen.textContent).toContain("Costs 55 cm each time");
  expect(chosen.textContent).toContain("In 100 like it 86 hold (80 to 90)");
  expect(chosen.textContent).toContain("the round turn asks 180 N of the hand");
  expect(chosen.textContent).toContain("each one missing costs 5 to 20 %");
  fireEvent.click(screen.getByLabelText("One wrap more"));
  expect(setWraps).toHaveBeenCalledWith(5);
  fireEvent.click(screen.getByText("Why this place"));
  expect(chosen.textContent).toContain("54.0 of 60");
  expect(chosen.textContent).toContain("80.0 of 100");
  expect(chosen.textContent).not.toContain("line used");
  fireEvent.click(screen.getByText("Record an attempt"));
  expect(attempt).toHaveBeenCalledWith("clove-hitch");
  fireEvent.click(document.querySelector('[data-ranked="bowline"] button') as HTMLElement);
  expect(select).toHaveBeenCalledWith("bowline");
});

it("keeps the caution for people in view, beside the result", () => {
  panel();
  const notes = screen.getAllByRole("note", { name: "Cautions" }).map((n) => n.textContent);
  expect(notes[0]).toContain("A person could be held.");
  expect(notes[1]).toContain("Every knot costs strength.");
  expect(notes[1]).not.toContain("A person");
});

it("says why knots were ruled out, those made for the job first", () => {
  panel();
  expect(screen.getByTestId("ruled-out").textContent).toContain("Cow hitch Cannot be cast off under load.");
  expect(document.body.textContent).toContain("1 more are made for other work");
  // What is folded away is made when it is opened.
  expect(document.body.textContent).not.toContain("Left out");
  const fold = screen.getByText(/was rated/).closest("details") as HTMLDetailsElement;
  fold.open = true;
  fireEvent(fold, new Event("toggle"));
  expect(document.body.textContent).toContain("Left out, so taken as steady: no other given.");
});

it("names the nearest when nothing does it, what it lacks and what to do, and keeps the cautions", () => {
  panel({
    ranked: [],
    instead: "Lead a doubled line round the ring.",
    nearest: {
      knot: "sampan-hitch",
      name: "Sampan hitch",
      reasons: [{ gate: "tail", why: "Needs 8.6 m to tie, and there is 8.0 m." }],
      change: ["Give it 66 cm more line."],
    },
  });
  const notes = screen.getAllByRole("note", { name: "Cautions" }).map((n) => n.textContent);
  expect(notes.join()).toContain("A person could be held.");
  const nothing = screen.getByTestId("nothing").textContent;
  expect(nothing).toContain("No knot here does this.");
  expect(nothing).toContain("Lead a doubled line");
  expect(nothing).toContain("Nearest comes the sampan hitch. Needs 8.6 m to tie");
  expect(nothing).toContain("Give it 66 cm more line.");
});

it("ticks nothing and gives no number where people depend on a knot", () => {
  const held = { class: "holds", why: "every strand is doubled", tag: "trade", worked: false };
  const eight = choice("figure-eight-follow-through", "Followed-through eight", {
    dry: held,
    wet: held,
    strength: { ...(choice("x", "x").strength as object), word: "yours" },
    flags: [],
  });
  panel({ ranked: [eight], people: true, says: "Tied like this by those who do it." });
  expect(screen.getByTestId("yourself").textContent).toContain("Tied like this");
  const text = document.body.textContent ?? "";
  for (const approval of ["✓", "in 100", "enough"]) expect(text).not.toContain(approval);
});

it("keeps who looked over a knot that somebody depends on", async () => {
  const kept: object[] = [];
  const calls = fakeServer({
    "GET /api/v1/knots/figure-eight-follow-through/drawing.svg": "<svg></svg>",
    "GET /api/v1/inspections": () => kept,
    "POST /api/v1/inspections": (c: { body: unknown }) => {
      const body = c.body as { first: { name: string }; second: { name: string } };
      if (body.first.name === body.second.name)
        return {
          status: 422,
          detail: "No.",
          fields: [
            { field: "second.name", message: "is the same person", fix: "somebody else has to check" },
          ],
        };
      kept.push({ ...body, id: 1, received_at: "2026-06-02T10:00:00Z" });
      return { status: 201, ...body };
    },
  });
  const eight = choice("figure-eight-follow-through", "Followed-through eight");
  panel({ ranked: [eight], people: true });
  const type = (label: string, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
  type("Who ties or goes", "Ailsa");
  type("Who checks", "Ailsa");
  fireEvent.click(screen.getByText("Record both"));
  await screen.findByText(/is the same person – somebody else has to check/);
  type("Who checks", "Torben");
  fireEvent.click(screen.getByText("Record both"));
  await screen.findByText(/Ailsa and Torben/);
  const sent = calls.filter((c) => c.method === "POST" && c.path === "/api/v1/inspections");
  expect(sent.at(-1)?.body).toMatchObject({
    knot: "figure-eight-follow-through",
    second: { name: "Torben" },
  });
});
