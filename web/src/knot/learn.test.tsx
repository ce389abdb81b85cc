import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { fakeServer, show } from "../test/app";
import { FewestView } from "./fewest";
import { QuizView } from "./quiz";
import { ask, judge } from "./quizzed";
import { WordsView } from "./words";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const fault = (n: number): Schemas["QuizFault"] =>
  ({
    knot: `knot-${n}`,
    of: `Knot ${n}`,
    code: `f${n}`,
    name: `Fault ${n}`,
    looks: `it looks so ${n}`,
    leads: `it leads there ${n}`,
    mend: `Do ${n}.`,
    drawing: `wrong-${n}`,
    frame: [0, 0, 100, 50],
    at: [80, 25, 10],
  }) as unknown as Schemas["QuizFault"];
const faults = [1, 2, 3, 4, 5].map(fault);

describe("what a quiz asks", () => {
  it("brings every fault before one comes again, the same for the same seed", () => {
    for (const seed of [1, 77, 4242]) {
      for (const round of [0, 1]) {
        const turns = faults.map((_, i) => ask(faults, seed, round * faults.length + i, true).fault.code);
        expect(new Set(turns).size).toBe(faults.length);
      }
      expect(ask(faults, seed, 3, true)).toEqual(ask(faults, seed, 3, true));
    }
  });

  it("shows one wrong and one right side by side, and names the true fault among others", () => {
    let first = 0;
    for (let turn = 0; turn < 40; turn++) {
      const a = ask(faults, 9, turn, true);
      expect([...a.shown].sort()).toEqual([false, true]);
      expect(a.names).toContain(a.fault.name);
      expect(new Set(a.names).size).toBe(3);
      first += a.shown[0] ? 1 : 0;
    }
    expect(first).toBeGreaterThan(8);
    expect(first).toBeLessThan(32);
    const alone = Array.from({ length: 40 }, (_, turn) => ask(faults, 9, turn, false));
    expect(alone.some((a) => a.wrong)).toBe(true);
    expect(alone.some((a) => !a.wrong)).toBe(true);
    expect(alone.every((a) => a.shown.length === 1)).toBe(true);
  });

  it("judges a touch by the ring, a word by the fault, and a right knot as right", () => {
    const asked = { fault: faults[0] as Schemas["QuizFault"], shown: [false, true], wrong: true, names: [] };
    expect(judge(asked, { place: 1, at: [84, 28] })).toEqual({ right: true, says: "Found" });
    expect(judge(asked, { place: 1, at: [20, 20] }).says).toContain("shows in the ring");
    expect(judge(asked, { place: 0, at: [80, 25] }).right).toBe(false);
    expect(judge(asked, { name: "Fault 1" }).right).toBe(true);
    expect(judge(asked, { name: "Fault 2" }).says).toContain("not so");
    expect(judge(asked, {}).right).toBe(false);
    const sound = { ...asked, shown: [false], wrong: false };
    expect(judge(sound, {}).right).toBe(true);
    expect(judge(sound, { name: "Fault 1" }).says).toBe("It was right");
    expect(judge(sound, { place: 0, at: [80, 25] }).right).toBe(false);
  });
});

it("asks, takes one answer, tells the mending, counts, and goes on", async () => {
  fakeServer({ "GET /api/v1/faults": faults });
  const { container } = show(<QuizView />);
  await screen.findByText("Side by side");
  const wrong = container.querySelector<HTMLElement>("[data-shown=wrong] [data-place]");
  if (!wrong) throw new Error("no wrong drawing");
  vi.spyOn(wrong, "getBoundingClientRect").mockReturnValue({
    left: 0,
    top: 0,
    width: 200,
    height: 100,
  } as DOMRect);
  fireEvent.click(wrong, { clientX: 160, clientY: 50 });
  expect(screen.getByTestId("quiz-verdict").textContent).toContain("✓ Found");
  expect(screen.getByTestId("quiz-verdict").textContent).toMatch(/Put right: Do \d\./);
  expect(screen.getByTestId("score").textContent).toBe("1 of 1 found");
  // Answered once it is answered.
  fireEvent.click(wrong, { clientX: 0, clientY: 0 });
  expect(screen.getByTestId("score").textContent).toBe("1 of 1 found");
  fireEvent.click(screen.getByText("Next"));
  expect(screen.getByTestId("quiz-verdict").textContent).toBe("");
  fireEvent.click(screen.getByText("One alone"));
  fireEvent.click(screen.getByText("It is right"));
  expect(screen.getByTestId("score").textContent).toMatch(/^[12] of 2 found$/);
});

const tasks = [
  { id: "moor", name: "make the boat fast", group: "mooring", start: {} },
  { id: "fly", name: "tie on a fly", group: "fishing", start: { label_kn: 0.07 } },
];

it("finds the fewest knots for what is ticked, in one's own rope and line", async () => {
  const calls = fakeServer({
    "GET /api/v1/catalogue": {
      knots: [{ id: "bowline", name: "Bowline" }],
      tasks,
      task_groups: ["mooring", "fishing"],
      fields: [],
      materials: [
        { id: "polyester", name: "polyester", constructions: ["laid"] },
        { id: "mono", name: "nylon monofilament", constructions: ["solid"], fishing: true },
      ],
    },
    "POST /api/v1/knots/fewest": (c: { body: unknown }) => {
      const jobs = (c.body as { jobs: { task: string }[] }).jobs;
      return { knots: [{ knot: "bowline", covers: [jobs[0]] }], uncovered: jobs.slice(1) };
    },
  });
  const { container } = show(<FewestView />);
  await screen.findByText("Tick what has to be done.");
  fireEvent.click(await screen.findByText("Make the boat fast"));
  await screen.findByText("One knot for 1 job");
  fireEvent.change(screen.getByLabelText("Your rope"), { target: { value: "polyester" } });
  fireEvent.change(screen.getByLabelText("Your fishing line"), { target: { value: "mono" } });
  fireEvent.click(screen.getByText("Tie on a fly"));
  await waitFor(() =>
    expect(calls.filter((c) => c.method === "POST").at(-1)?.body).toEqual({
      jobs: [
        { task: "moor", material: "polyester" },
        { task: "fly", material: "mono" },
      ],
    }),
  );
  expect((await screen.findByText(/No knot here does this/)).textContent).toContain("tie on a fly");
  expect(container.querySelector("[data-knot-for=bowline]")?.textContent).toContain("make the boat fast");
  expect(screen.getByText("All on one sheet").getAttribute("href")).toContain("knots=bowline");
  fireEvent.click(screen.getByText("Untick all"));
  await screen.findByText("Tick what has to be done.");
});

it("lists every word of the trade, with a picture where there is one", async () => {
  fakeServer({
    "GET /api/v1/catalogue": {
      words: [
        { id: "bight", word: "bight", says: "A bend of rope that does not cross itself.", knot: "bowline" },
        { id: "end", word: "end", says: "The part that is tied.", also: ["working end"] },
      ],
    },
  });
  const { container } = show(<WordsView />);
  await screen.findByText("Bight");
  expect(container.querySelector("#bight [data-knot=bowline]")).not.toBeNull();
  expect(container.querySelector("#end")?.textContent).toContain("also working end");
  expect(container.querySelector("#end [data-knot]")).toBeNull();
});
