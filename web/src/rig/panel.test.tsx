import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { Answer, Choice } from "../api/client";
import { fakeServer, show } from "../test/app";
import { Nothing, Panel } from "./panel";
import { Ranks } from "./ranks";
import { Wraps } from "./wraps";

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
    says: "It may slip wet, and holds dry.",
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
    bulk_mm: 40,
    bulk_tag: "computed",
    wraps: 4,
    wraps_short: 2,
    per_wrap: { low: 0.05, likely: 0.1, high: 0.2 },
    flags: ["The line is short: new and dry it bears 3.9 times the load at least."],
    cautions: [],
    ...more,
  }) as unknown as Choice;

const answer = {
  rig: {
    chain: [
      { fitting: { kind: "ring" } },
      { joint: { task: "moor", tail_m: 1.2 } },
      { line: { material: "polyester" } },
    ],
    peak_kn: 2.4,
  },
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
const change = vi.fn();
const setWraps = vi.fn();

function panel(over: Partial<Answer> = {}) {
  const a = { ...answer, ...over };
  const [first] = a.ranked;
  show(
    <>
      <Ranks answer={a} look="braid" selected={first} select={select} />
      {first ? (
        <Panel
          answer={a}
          choice={first}
          fishing={false}
          look="braid"
          catalogue={{ knots: [], procedures: [] } as never}
          settled={a.rig}
          change={change}
          attempt={attempt}
          wraps={
            first.wraps ? <Wraps choice={first} set={setWraps} bare={false} setBare={() => {}} /> : undefined
          }
        />
      ) : (
        <Nothing answer={a} />
      )}
    </>,
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

it("ranks with word and shape, never colour alone", () => {
  panel();
  const row = document.querySelector('[data-ranked="clove-hitch"]') as HTMLElement;
  expect(row.textContent).toContain("1Clove hitch, 4 wraps");
  expect(row.textContent).toContain("wet may slip");
  expect(row.textContent).toContain("dry holds");
  expect(row.textContent).toContain("4 ×");
  expect(document.querySelector('[role="img"][aria-label^="Bears 10 kN"]')).not.toBeNull();
  fireEvent.click(document.querySelector('[data-ranked="bowline"] button') as HTMLElement);
  expect(select).toHaveBeenCalledWith("bowline");
});

it("says the chosen knot in words, and its figures when asked why", async () => {
  panel();
  const chosen = screen.getByTestId("chosen");
  expect(chosen.textContent).toContain("It may slip wet, and holds dry.");
  expect(chosen.textContent).toContain("65 cm of your 1.2 m");
  expect(chosen.textContent).toContain("it bears 3.9 times the load");
  expect(chosen.textContent).toContain("each one missing costs 5 to 20 %");
  fireEvent.click(screen.getByLabelText("One wrap more"));
  expect(setWraps).toHaveBeenCalledWith(5);
  fireEvent.click(screen.getByText("Record"));
  expect(attempt).toHaveBeenCalledWith("clove-hitch");
  fireEvent.click(screen.getByText("Why"));
  const why = await screen.findByTestId("why");
  expect(why.textContent).toContain("Breaks at 8–12 kN");
  expect(why.textContent).toContain("Keeps 50–70 % of the line");
  expect(why.textContent).toContain("Costs 55 cm each time");
  expect(why.textContent).toContain("In 100 like it 86 hold (80 to 90)");
  expect(why.textContent).toContain("the round turn asks 180 N of the hand");
  expect(why.textContent).toContain("54.0 of 60");
  expect(why.textContent).toContain("80.0 of 100");
  expect(why.textContent).not.toContain("line used");
  expect(why.textContent).toContain("Left out, so taken as steady: no other given.");
});

it("offers the three nearest changes, each a press away", async () => {
  fakeServer({
    "GET /api/v1/knots/clove-hitch/drawing.svg": "<svg></svg>",
    "GET /api/v1/knots/bowline/drawing.svg": "<svg></svg>",
    "POST /api/v1/changes": {
      inputs: [],
      changes: [
        {
          input: "load",
          from: 2,
          to: 5,
          unit: "kN",
          knot: "bowline",
          name: "Bowline",
          near: 2,
          when: "Above 5 kN of load",
          says: "Above 5 kN",
        },
        {
          input: "stay",
          from: 0,
          to: 0,
          unit: "",
          value: "months",
          knot: "bowline",
          name: "Bowline",
          near: 1,
          when: "If it stays for months",
          says: "",
        },
        {
          input: "tail",
          from: 1,
          to: 0.4,
          unit: "m",
          knot: "",
          name: "",
          near: 3,
          when: "Below 40 cm of line",
          says: "",
        },
        { input: "wet", from: 0, to: 0, unit: "", knot: "bowline", name: "Bowline", when: "Dry", says: "" },
      ],
    },
  });
  panel();
  fireEvent.click(await screen.findByText(/If it stays for months/));
  expect(change.mock.lastCall?.[0].chain[1].joint.stay).toBe("months");
  fireEvent.click(screen.getByText("all 4"));
  fireEvent.click(screen.getByText(/Above 5 kN of load/));
  expect(change.mock.lastCall?.[0].peak_kn).toBe(5.1);
  fireEvent.click(screen.getByText(/^Dry/));
  expect(change.mock.lastCall?.[0].dry).toBe(true);
});

it("keeps the caution for people in view, beside the result", () => {
  panel();
  const notes = screen.getAllByRole("note", { name: "Cautions" }).map((n) => n.textContent);
  expect(notes[0]).toContain("A person could be held.");
  expect(notes[1]).toContain("Every knot costs strength.");
  expect(notes[1]).not.toContain("A person");
});

it("says why knots were ruled out, those made for the job first", async () => {
  panel();
  expect(screen.getByTestId("ruled-out").textContent).toContain("cow hitch cannot be cast off under load");
  fireEvent.click(screen.getByText("1 more"));
  await screen.findByText("Made for other work");
  expect(document.body.textContent).toContain("Cow hitch Cannot be cast off under load.");
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
