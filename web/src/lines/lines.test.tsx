import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { fakeServer, show } from "../test/app";
import { DueCount } from "./due-count";
import { Files } from "./files";
import { LineView } from "./line";
import { LockerView } from "./locker";
import { QuaysideView } from "./quay";
import { drawnWide, RopePiece } from "./rope";
import { ToDoView } from "./todo";
import { TowView } from "./tow";
import { TripSheet } from "./trip";
import { UsesView } from "./uses";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const kn = { low: 14, likely: 16, high: 19, tag: "computed", source: "by its size" };
const bowLine = {
  id: 1,
  code: "L000001-1",
  revision: 2,
  name: "Bow line",
  material: "polyester",
  construction: "braid",
  diameter_mm: 12,
  thick_mm: 12,
  length_m: 20,
  wear: 1,
  called: "polyester braid, 12 mm",
  says: ["Look it over: that was due on 3 May 2026.", "It bears 14 to 19 kN now."],
  looks: [{ at: "2026-02-01T10:00:00Z", by: "Ailsa", grades: { chafe: 1 }, place_m: 5 }],
  state: { new_kn: kn, now_kn: kn, hours: 6, trips: 3, look_by: "2026-05-03", look_due: true },
};
const catalogue = { knots: [{ id: "bowline", name: "Bowline" }], materials: [], tasks: [], fields: [] };

it("draws a thick line thicker, and marks where it is worn", () => {
  expect(drawnWide(16)).toBeGreaterThan(drawnWide(8));
  expect(drawnWide(0.3)).toBeGreaterThan(2);
  const { container } = show(<RopePiece mm={12} worn={[{ at: 0.5, grade: 2 }]} label="Worn" />);
  expect(container.querySelectorAll("g[stroke='var(--flare)']")).toHaveLength(1);
});

it("grades a line part by part; pressed again a grade is taken back", async () => {
  const calls = fakeServer({
    "GET /api/v1/locker": [
      bowLine,
      { ...bowLine, id: 2, code: "L2", name: "Old warp", retired: "2026-01-01" },
    ],
    "POST /api/v1/lines/1/looks": {},
  });
  const { container } = show(<LockerView />);
  await screen.findByText("Bow line");
  expect(container.querySelector("[data-locker='Bow line']")?.textContent).toContain("20 m left");
  expect(container.querySelector("[data-locker='Old warp']")).toBeNull();
  fireEvent.click(screen.getByText("Look it over"));
  const group = (name: string) => within(screen.getByRole("group", { name }));
  fireEvent.click(group("Core").getByText("as new"));
  fireEvent.click(group("Cover").getByText("retire it"));
  expect(screen.getByText(/cut it up today/)).toBeTruthy();
  fireEvent.click(group("Glaze").getByText("marked"));
  fireEvent.click(group("Glaze").getByText("marked"));
  fireEvent.change(screen.getByLabelText("Looked over by"), { target: { value: "Bram" } });
  fireEvent.change(screen.getByLabelText("Worst place, m from its end"), { target: { value: "3,5" } });
  fireEvent.click(screen.getByText("Keep what I found"));
  await waitFor(() => expect(calls.some((c) => c.method === "POST")).toBe(true));
  expect(calls.find((c) => c.method === "POST")?.body).toEqual({
    by: "Bram",
    grades: { core: 0, chafe: 3 },
    place_m: 3.5,
  });
});

it("puts a line into the locker by its class in pounds", async () => {
  const calls = fakeServer({
    "GET /api/v1/locker": [],
    "GET /api/v1/catalogue": {
      ...catalogue,
      materials: [{ id: "mono", name: "nylon monofilament", constructions: ["solid"], fishing: true }],
    },
    "POST /api/v1/lines": { id: 3 },
  });
  show(<LockerView />);
  await screen.findByText(/Empty/);
  fireEvent.click(screen.getByText("Add a line"));
  fireEvent.change(screen.getByLabelText("Name"), { target: { value: "Spool" } });
  await screen.findByText("nylon monofilament");
  fireEvent.change(screen.getByLabelText("Material"), { target: { value: "mono" } });
  fireEvent.click(await screen.findByText("20 lb"));
  fireEvent.change(screen.getByLabelText("Metres left"), { target: { value: "150" } });
  fireEvent.click(screen.getByText("Into the locker"));
  await waitFor(() => expect(calls.some((c) => c.method === "POST")).toBe(true));
  expect(calls.find((c) => c.method === "POST")?.body).toMatchObject({
    name: "Spool",
    material: "mono",
    construction: "solid",
    label_kn: 0.089,
    length_m: 150,
  });
});

it("shows the whole history of a line, and its label", async () => {
  fakeServer({
    "GET /api/v1/catalogue": catalogue,
    "GET /api/v1/qr.svg": "<svg></svg>",
    "GET /api/v1/locker/L000001-1": {
      ...bowLine,
      tally: { n: 1, by: {} },
      knots: [{ of: "bowline", n: 3, by: { jammed: 2 }, worst: "jammed" }],
      history: [
        {
          at: "2026-04-01T10:00:00Z",
          kind: "use",
          says: "The slip: chafed at 5 m.",
          grade: 0,
          outcome: "chafed",
          place_m: 5,
          photos: { chafed: 7 },
        },
        { at: "2026-02-01T10:00:00Z", kind: "look", says: "Looked over by Ailsa.", grade: 1 },
      ],
    },
  });
  const { container } = show(<LineView />, "/lines/L000001-1", "/lines/:code");
  await screen.findByText("The slip: chafed at 5 m.");
  expect(screen.getByText(/jammed 2/)).toBeTruthy();
  expect(screen.getByRole("img", { name: "Worn at 5 m" })).toBeTruthy();
  expect(container.querySelector("img[src='/api/v1/photos/7']")).not.toBeNull();
  fireEvent.click(screen.getByText("Label"));
  expect((await screen.findByTestId("label")).textContent).toContain("L000001-1");
});

it("logs a use, narrows the log, takes one back and brings it back", async () => {
  const calls = fakeServer({
    "GET /api/v1/catalogue": catalogue,
    "GET /api/v1/locker": [bowLine],
    "GET /api/v1/uses": {
      uses: [
        {
          id: 9,
          at: "2026-04-01T10:00:00Z",
          where: "The slip",
          outcome: "slipped",
          line: "L000001-1",
          line_name: "Bow line",
          says: "The slip, bowline: slipped.",
        },
      ],
    },
    "GET /api/v1/uses/sums": {
      n: 3,
      by: { held: 2, slipped: 1 },
      lines: [{ of: "L000001-1", name: "Bow line", n: 3, by: {}, says: "Three uses logged: slipped once." }],
      knots: [],
    },
    "POST /api/v1/uses": { id: 10 },
    "DELETE /api/v1/uses/9": {},
    "POST /api/v1/uses/9/restoration": {},
  });
  const { container } = show(<UsesView />);
  await screen.findByText("The slip, bowline: slipped.");
  expect(container.querySelector("[data-sums]")?.textContent).toContain("1 went wrong.");
  fireEvent.change(screen.getByLabelText("What happened"), { target: { value: "wrong" } });
  await waitFor(() => expect(calls.some((c) => c.query.get("wrong") === "true")).toBe(true));
  fireEvent.click(screen.getByLabelText("Take back: The slip, bowline: slipped."));
  fireEvent.click(await screen.findByText("Bring it back"));
  await waitFor(() => expect(calls.some((c) => c.path.endsWith("/restoration"))).toBe(true));

  fireEvent.click(screen.getByText("Log a use"));
  const sheet = within(await screen.findByRole("dialog"));
  fireEvent.click(sheet.getByText("jammed"));
  fireEvent.change(sheet.getByLabelText("Where"), { target: { value: "Outer quay" } });
  fireEvent.change(sheet.getByLabelText("Line"), { target: { value: "L000001-1" } });
  fireEvent.change(sheet.getByLabelText("Hours in use"), { target: { value: "1,5" } });
  fireEvent.click(sheet.getByText("Log it"));
  await waitFor(() => expect(calls.some((c) => c.method === "POST" && c.path === "/api/v1/uses")).toBe(true));
  expect(calls.find((c) => c.path === "/api/v1/uses" && c.method === "POST")?.body).toMatchObject({
    where: "Outer quay",
    line: "L000001-1",
    outcome: "jammed",
    hours: 1.5,
  });
});

it("says where a tow line is made fast for each rider, and counts a run", async () => {
  const place = (want: number, takeoff: number, up: number) => ({
    want_m: want,
    takeoff_m: takeoff,
    take_up_m: up,
    takeoffs_m: [18.4, 19.9],
    hitch: up ? "tow-pylon-hitch" : "",
    says: `Take the ${takeoff} m take-off.`,
    at_m: takeoff - up,
    tag: "computed",
  });
  const calls = fakeServer({
    "GET /api/v1/catalogue": catalogue,
    "GET /api/v1/locker": [],
    "GET /api/v1/tow-lines/places": [
      {
        id: 2,
        revision: 1,
        name: "Tow line two",
        on: "hook",
        line: { material: "hmpe", diameter_mm: 6 },
        takeoffs_m: [18.4, 19.9],
        riders: [
          { name: "Fenna", want_m: 19.1, kn: 13 },
          { name: "Bram", want_m: 18.4 },
          { name: "Eskil", want_m: 30 },
        ],
        places: [
          place(19.1, 19.9, 0.8),
          place(18.4, 18.4, 0),
          { ...place(30, 0, 0), wrong: "Eskil's length is 10.1 m longer than the line reaches." },
        ],
        runs: [{ place_m: 19.1, n: 21 }],
        rubbed: [{ place_m: 19.1, n: 21 }],
        threads: ["The long part leaves astern."],
        hitch: "tow-pylon-hitch",
        coils: 16,
        says: ["A hitch has sat at 19.1 m in 21 runs."],
        cautions: [{ id: "person", text: "Oarweed approves nothing here.", locked: true }],
      },
    ],
    "POST /api/v1/tow-lines/2/runs": {},
  });
  const { container } = show(<TowView />);
  await screen.findByText("A hitch has sat at 19.1 m in 21 runs.");
  expect(container.querySelector("[data-place='Fenna']")?.textContent).toContain(
    "The 19.9 m take-off, up 80 cm",
  );
  expect(container.querySelector("[data-place='Fenna']")?.textContent).toContain("approves nothing");
  expect(screen.getByRole("img", { name: /away from the opening/ })).toBeTruthy();
  fireEvent.click(screen.getByText("Record a run"));
  await waitFor(() => expect(calls.find((c) => c.method === "POST")?.body).toEqual({ rider: 0 }));
  const rider = container.querySelector<HTMLElement>("[data-rider='Bram']");
  if (rider) fireEvent.click(rider);
  expect(container.querySelector("[data-place='Bram']")?.textContent).toContain("as it is");
  const far = container.querySelector<HTMLElement>("[data-rider='Eskil']");
  if (far) fireEvent.click(far);
  expect(container.querySelector("[data-place='Eskil'] [role=alert]")?.textContent).toContain("longer than");
  fireEvent.click(screen.getByText("Coil card"));
  expect((await screen.findByTestId("coil-card")).textContent).toContain("16 coils");
});

it("makes a tow line out of a shortest take-off and a spacing", async () => {
  const calls = fakeServer({
    "GET /api/v1/catalogue": catalogue,
    "GET /api/v1/locker": [],
    "GET /api/v1/tow-lines/places": [],
    "POST /api/v1/tow-lines": {},
  });
  show(<TowView />);
  fireEvent.click(await screen.findByText("A new tow line"));
  const set = (label: string, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
  set("Name", "Tow line one");
  set("Shortest, m or ft", "60 ft");
  set("Every, m or ft", "5ft");
  set("How many", "3");
  fireEvent.click(screen.getByText("Add a rider"));
  set("Rider", "Ailsa");
  set("Wants, m or ft", "19,8");
  fireEvent.click(screen.getByText("Keep it"));
  await waitFor(() => expect(calls.some((c) => c.method === "POST")).toBe(true));
  expect(calls.find((c) => c.method === "POST")?.body).toMatchObject({
    takeoffs_m: [18.288, 19.812, 21.336],
    riders: [{ name: "Ailsa", want_m: 19.8 }],
    on: "pylon",
  });
});

it("reads a file, shows what it comes to, and takes it only then", async () => {
  const calls = fakeServer({
    "POST /api/v1/files/locker": (c: { query: URLSearchParams }) => ({
      kept: c.query.get("preview") !== "true",
      new: 2,
      there: 1,
      unknown: ["shelf"],
      names: ["bow line", "painter"],
      says: c.query.get("preview") === "true" ? "Two new, would be taken in." : "Two new, taken in.",
    }),
  });
  show(<Files kind="locker" />);
  fireEvent.click(screen.getByText("Files"));
  expect(screen.getByText("As a table (CSV)").getAttribute("href")).toBe("/api/v1/files/locker/table.csv");
  const file = new File(["name,material\nBow line,polyester"], "lines.csv");
  fireEvent.change(screen.getByLabelText("File to take in"), { target: { files: [file] } });
  await screen.findByText("Two new, would be taken in.");
  expect(screen.getByText(/shelf/)).toBeTruthy();
  fireEvent.click(screen.getByText("Take 2 in"));
  await screen.findByText("Two new, taken in.");
  expect(calls.map((c) => c.query.get("preview"))).toEqual(["true", "false"]);
});

it("counts what is due, and lists it where it is seen to", async () => {
  fakeServer({
    "GET /api/v1/session": { role: "instructor" },
    "GET /api/v1/to-do": [
      { kind: "wind", name: "Outer quay", says: "Double the lines.", to: "/lines/moorings", now: true },
      { kind: "line", name: "Bow line", says: "Look it over.", to: "/lines/L1", now: false },
    ],
  });
  const { container } = show(
    <>
      <DueCount />
      <ToDoView />
    </>,
  );
  expect((await screen.findByLabelText("2 due, some of it now")).getAttribute("href")).toBe("/due");
  expect(container.querySelectorAll("[data-due]")).toHaveLength(2);
  expect(screen.getByLabelText("See to Bow line").getAttribute("href")).toBe("/lines/L1");
});

it("works out what a trip takes", async () => {
  const calls = fakeServer({
    "POST /api/v1/leaders/trip": [
      {
        name: "Evening",
        leaders: 5,
        cut_m: 3.2,
        ties: 40,
        spool_m: 17.6,
        per_tie_m: 0.03,
        to_tie_m: 0.25,
        material: "mono",
        class_kn: 0.0712,
      },
    ],
  });
  const leader = { id: 1, name: "Evening", length_m: 2.7, shortest_m: 2, knot: "bowline", line: {} };
  show(<TripSheet leaders={[leader as never]} close={() => undefined} />);
  fireEvent.change(screen.getByLabelText("People"), { target: { value: "3" } });
  fireEvent.click(screen.getByText("Work it out"));
  await screen.findByText("18 m");
  expect(calls[0]?.body).toMatchObject({ people: 3, days: 2, waste: 0.1, items: [{ changes_a_day: 10 }] });
});

it("works out slip, heave and fender as they are typed", async () => {
  const calls = fakeServer({
    "GET /api/v1/slip-line": { length_m: 10, runs_m: 5, says: "10 m of line." },
    "GET /api/v1/heaving-line": {
      says: "12 m of heaving line.",
      throw_m: { low: 12, likely: 18, high: 25, tag: "memory", source: "by hand" },
    },
    "GET /api/v1/fender-tide": (c: { query: URLSearchParams }) => ({
      covers: c.query.get("rise") === "1 m",
      says: "Its eye hangs 10 cm below the rail.",
    }),
  });
  show(<QuaysideView />);
  await screen.findByText("10 m of line.");
  fireEvent.change(screen.getByLabelText("The water will rise"), { target: { value: "3 m" } });
  await waitFor(() => expect(calls.some((c) => c.query.get("rise") === "3 m")).toBe(true));
});
