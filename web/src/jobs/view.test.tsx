import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { decode } from "../rig/document";
import { fakeServer, show } from "../test/app";
import { fields } from "../test/fields";
import { Lashing } from "./lashing";
import { JobList, JobView } from "./view";

const jam = {
  peak_kn: 1.5,
  chain: [
    { line: { material: "polyester", construction: "braid", diameter_mm: 12 } },
    { joint: { task: "relieve" } },
    { line: { material: "polyester", construction: "braid", diameter_mm: 8 } },
  ],
};
const catalogue = {
  fields,
  task_groups: ["sheets and rigging"],
  materials: [{ id: "polyester", name: "polyester", constructions: ["braid"] }],
  surfaces: [{ id: "polished-steel", name: "polished steel" }],
  hitches: [
    { id: "turns", name: "plain turns", counts: "turns" },
    { id: "cleat-hitch", name: "cleat, locked at the end", counts: "figure eights" },
    { id: "clove-hitch", name: "clove hitch", counts: "" },
  ],
  fittings: [],
  knots: [],
  weights: {},
  tasks: [
    {
      id: "relieve",
      name: "take the load off a jammed line",
      between: "line",
      group: "sheets and rigging",
      start: { material: "polyester" },
    },
  ],
  cautions: [
    { id: "stored-energy", text: "Stand clear.", locked: false },
    { id: "person", text: "Nothing is approved.", locked: true },
  ],
  procedures: [
    { id: "jam", name: "Free a winch", when: "It is jammed.", needs: "relieve" },
    { id: "coil", name: "Coil a line", when: "After every run.", needs: "" },
  ],
  templates: [{ id: "winch", rig: jam }],
};
const cell = (knot: string, word: string, first = "") => ({
  knot,
  name: knot,
  bulk_mm: 20,
  ratio: 1.5,
  word,
  seconds: 12,
  cord_m: 0.3,
  cut_m: 0.7,
  capacity_kn: { low: 20, likely: 25, high: 30, tag: "computed", source: "four parts" },
  says: "",
  first,
});
const row = (lowest: number | null, locks: number, n: number) => ({
  n,
  lowest_n: lowest,
  likely_n: 40,
  highest_n: 0,
  locks,
});

let calls: ReturnType<typeof fakeServer>;
beforeEach(() => {
  calls = fakeServer({
    "GET /api/v1/catalogue": catalogue,
    "POST /api/v1/procedures/jam/card": (c: { body: unknown }) => ({
      id: "jam",
      name: "Free a winch",
      when: "It is jammed.",
      cautions: [catalogue.cautions[0]],
      steps: [{ says: "Look first." }, { says: "Five riding turns.", knot: "rolling-hitch" }],
      notes: [`Load ${(c.body as { peak_kn: number }).peak_kn} kN.`],
    }),
    "GET /api/v1/knots/rolling-hitch/drawing.svg": "<svg></svg>",
    "GET /api/v1/quantity": { value: 3, text: "3 kN", also: "" },
    "GET /api/v1/shackle": (c: { query: URLSearchParams }) =>
      c.query.get("diameter") === "wide"
        ? {
            status: 422,
            detail: "No.",
            fields: [{ field: "diameter", message: "is not a length", fix: "give 6 mm" }],
          }
        : {
            diameter_mm: 6,
            cord_kn: { low: 26, likely: 30, high: 34, tag: "memory", source: "recalled" },
            cautions: [catalogue.cautions[1]],
            rows: [
              {
                knot: "cow-hitch",
                name: "Cow hitch",
                opening_mm: 15,
                never: "",
                cells: [cell("eight", "holds"), cell("overhand", "marginal", "Can be tied first.")],
              },
              {
                knot: "twisted-bight",
                name: "Twisted bight",
                opening_mm: 20,
                never: "It opens.",
                cells: [cell("eight", "pulls through"), cell("overhand", "pulls through")],
              },
            ],
          },
    "GET /api/v1/knots/cow-hitch/drawing.svg": "<svg></svg>",
    "GET /api/v1/knots/twisted-bight/drawing.svg": "<svg></svg>",
    "GET /api/v1/holds": (c: { query: URLSearchParams }) => ({
      hitch: c.query.get("hitch"),
      mu: { low: 0.1, likely: 0.15, high: 0.22, tag: "memory", source: "recalled" },
      rows: [row(null, 0, 1), row(90, 0.4, 2)],
      turns: 2,
      says: `Two of ${c.query.get("hitch")} hold it.`,
      trade:
        c.query.get("hitch") === "clove-hitch"
          ? { class: "marginal", why: "it walks", tag: "trade" }
          : undefined,
    }),
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it("lists the jobs and the tools beside them", async () => {
  show(<JobList />);
  await screen.findByText("Free a winch");
  for (const name of ["Coil a line", "Turns and hand force", "Make a soft shackle"]) {
    expect(screen.getByText(name).closest("a")?.getAttribute("href")).toMatch(/^\/jobs\//);
  }
});

it("shows a job with its cautions first, and works it out anew for another load", async () => {
  show(<JobView />, "/jobs/jam", "/jobs/:id");
  await screen.findByText("Five riding turns.");
  const text = document.querySelector("main")?.textContent ?? "";
  expect(text.indexOf("Stand clear.")).toBeLessThan(text.indexOf("Look first."));
  expect(text).toContain("The loaded line is 12 mm");
  fireEvent.click(screen.getByText("1.5 kN"));
  fireEvent.click(await screen.findByText("5 kN"));
  await screen.findByText("Load 3 kN.");
  expect(calls.filter((c) => c.path === "/api/v1/procedures/jam/card").at(-1)?.body).toMatchObject({
    peak_kn: 3,
  });
});

it("takes over the rig at hand and goes back to it with what was changed", async () => {
  show(<JobView />, "/jobs/jam", "/jobs/:id");
  await screen.findByText("Five riding turns.");
  expect(document.body.textContent).toContain("An example: your rig is for something else.");
  cleanup();
  const own = {
    ...jam,
    name: "Fore sheet",
    peak_kn: 0.7,
    chain: [...jam.chain, { joint: { task: "moor" } }, { fitting: { kind: "cleat" } }],
  };
  localStorage.setItem("oarweed-rig", JSON.stringify({ rig: own, past: [], future: [], changed: 0 }));
  show(<JobView />, "/jobs/jam", "/jobs/:id");
  await screen.findByText("Load 0.7 kN.");
  expect(document.body.textContent).toContain("Taken from your rig.");
  fireEvent.click(screen.getByText("0.7 kN"));
  fireEvent.click(await screen.findByText("5 kN"));
  await screen.findByText("Load 3 kN.");
  const back = screen.getByText("Back to your rig with this").closest("a")?.getAttribute("href") ?? "";
  const rig = decode(back.replace("/?rig=", ""));
  expect([rig?.name, rig?.peak_kn, rig?.chain.length]).toEqual(["Fore sheet", 3, 5]);
  localStorage.clear();
});

it("draws each step of a lashing, saying what it shows", () => {
  show(
    <>
      {[1, 2, 3, 4].map((n) => (
        <Lashing key={n} step={n} />
      ))}
    </>,
  );
  const pictures = screen.getAllByRole("img").map((x) => x.getAttribute("aria-label"));
  expect(pictures[0]).toContain("below the crossing");
  expect(new Set(pictures).size).toBe(4);
});

it("says of every clamp and stopper in a word whether they go together", async () => {
  show(<JobView />, "/jobs/soft-shackle", "/jobs/:id");
  const table = await screen.findByTestId("shackle");
  expect([...table.querySelectorAll("[data-word]")].map((c) => c.getAttribute("data-word"))).toEqual([
    "holds",
    "marginal",
    "pulls through",
    "pulls through",
  ]);
  expect(table.textContent).toContain("▲ marginal");
  expect(table.textContent).toContain("Can be tied first.");
  expect(table.textContent).toContain("cut 70 cm");
  expect(table.textContent).toContain("bears 20–30 kN");
  expect(screen.getByText("Nothing is approved.")).toBeTruthy();
  fireEvent.change(screen.getByDisplayValue("6 mm"), { target: { value: "wide" } });
  await screen.findByText(/is not a length – give 6 mm/);
  expect(screen.getByTestId("shackle")).toBeTruthy();
});

it("says what hand holds, and when none does or none is needed", async () => {
  show(<JobView />, "/jobs/turns", "/jobs/:id");
  await screen.findByText("Two of turns hold it.");
  const rows = [...document.querySelectorAll("tbody tr")].map((r) => r.textContent);
  expect(rows[0]).toContain("none holds");
  expect(rows[1]).toContain("90 N");
  expect(rows[1]).toContain("locks");
  expect(rows[1]).toContain("40 in 100");
  expect(rows[1]).toContain("✓");
  fireEvent.change(screen.getByLabelText("Made fast with"), { target: { value: "cleat-hitch" } });
  await screen.findByText("Two of cleat-hitch hold it.");
  await waitFor(() => expect(document.querySelector("th")?.textContent).toBe("figure eights"));
  expect(screen.queryByTestId("trade")).toBeNull();
  fireEvent.change(screen.getByLabelText("Made fast with"), { target: { value: "clove-hitch" } });
  expect((await screen.findByTestId("trade")).textContent).toContain("marginal – it walks");
});
