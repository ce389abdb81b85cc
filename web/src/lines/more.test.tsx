import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { ThisOne } from "../rig/this-one";
import { fakeServer, show } from "../test/app";
import { type Afloat, WindStrip } from "./afloat";
import { Berth } from "./berth";
import { LineSheet } from "./edit";
import { InUse } from "./in-use";
import { LeadersView } from "./leaders";
import { Threads } from "./threads";
import { TowView } from "./tow";
import { Scaled } from "./tow-scale";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const feed = (part: Partial<Afloat["wind"]>): Afloat["wind"] => ({
  addr: "10.0.0.1:10110",
  connected: true,
  known: true,
  kn: 20,
  gust_kn: 24,
  from_deg: 300,
  relative: true,
  age_s: 0.2,
  torn: 0,
  ...part,
});

it("says what is known of the wind, warns of a berth, and says when nothing is known", async () => {
  const calls = fakeServer({
    "GET /api/v1/wind": { revision: 3, addr: "10.0.0.1:10110" },
    "PUT /api/v1/wind": (c: { body: unknown }) => c.body,
  });
  const now = {
    wind: feed({ torn: 4 }),
    says: "Wind now: 20 knots.",
    berths: [{ id: 1, name: "Outer quay", warn: "gusts", says: "Outer quay: double the lines." }],
  } as unknown as Afloat;
  const { container, unmount } = show(<WindStrip now={now} />);
  expect(container.querySelector("[data-wind='known']")).not.toBeNull();
  expect(screen.getByRole("alert").textContent).toBe("Outer quay: double the lines.");
  fireEvent.click(screen.getByText("Wind instrument"));
  expect(screen.getByText(/4 so far/)).toBeTruthy();
  await screen.findByText("Stop listening");
  fireEvent.change(screen.getByLabelText(/Address of the wind instrument/), {
    target: { value: "10.0.0.2:10110" },
  });
  fireEvent.click(screen.getByText("Listen"));
  await waitFor(() => expect(calls.some((c) => c.method === "PUT")).toBe(true));
  expect(calls.find((c) => c.method === "PUT")?.body).toEqual({ addr: "10.0.0.2:10110" });
  unmount();
  const lost = show(
    <WindStrip
      now={
        {
          wind: feed({ known: false, connected: false, lost: "broken" }),
          says: "The wind is not known: nothing warns now.",
          berths: [],
        } as unknown as Afloat
      }
    />,
  );
  await waitFor(() => expect(lost.container.querySelector("[data-wind='lost']")).not.toBeNull());
  expect(screen.getByRole("alert").textContent).toContain("nothing warns now");
});

it("draws how a loop stays on and how it drops off, on each thing, with words for both", () => {
  for (const on of ["tower", "hook", "eye"]) {
    const { unmount } = show(<Threads on={on} says={["The long part leaves astern."]} />);
    const [right, wrong] = screen.getAllByRole("img").map((i) => i.getAttribute("aria-label") ?? "");
    expect(right?.length).toBeGreaterThan(20);
    expect(wrong).not.toBe(right);
    expect(screen.getByText("✓ stays on")).toBeTruthy();
    expect(screen.getByText("✕ drops off")).toBeTruthy();
    expect(screen.getByText("The long part leaves astern.")).toBeTruthy();
    unmount();
  }
});

it("draws a long line with a break, a short one whole, and each thing it is made fast to", () => {
  const say = (m: number) => `${m} m`;
  const tow = { takeoffs_m: [18.4, 22.9, 24.4], takeoff_m: 22.9, take_up_m: 0.8, want_m: 22.1, hitch: "h" };
  const long = show(<Scaled tow={tow} on="pylon" say={say} rubbed={[{ place_m: 20, n: 23 }]} />);
  const labels = () => [...long.container.querySelectorAll("text")].map((t) => t.textContent);
  expect(labels()).toContain("22.1 m wanted");
  expect(labels()).toContain("23 runs");
  expect(labels()).not.toContain("5 m");
  const shapes = new Set([long.container.querySelector("svg")?.querySelectorAll("rect").length]);
  cleanup();
  const short = show(
    <Scaled
      tow={{ takeoffs_m: [2, 8], takeoff_m: 8, take_up_m: 0, want_m: 8, hitch: "" }}
      on="eye"
      say={say}
    />,
  );
  expect([...short.container.querySelectorAll("text")].map((t) => t.textContent)).toContain("5 m");
  expect(short.container.querySelector("circle")?.getAttribute("stroke")).toBe("var(--flare)");
  shapes.add(short.container.querySelector("svg")?.querySelectorAll("rect").length);
  expect(shapes.size).toBe(2);
  for (const on of ["tower", "hook"]) {
    cleanup();
    expect(show(<Scaled tow={tow} on={on} say={say} />).container.querySelectorAll("rect")).toHaveLength(0);
  }
});

it("drags a shore end, and marks what rubs and what is weak", () => {
  const drag = vi.fn();
  const touch = vi.fn();
  const answer = {
    lines: [{ load_kn: 9, margin: 0.6 }],
    details: [{ chafes: ["rail", "quay"] }],
    order: [0],
    moved_m: [0, 0],
    turn_deg: 0,
    says: ["It does not stand this wind."],
  } as unknown as Schemas["MooringAnswer"];
  const { container } = show(
    <Berth
      loa={9}
      beam={3}
      quay
      lines={[{ name: "bow line", from: [4, -0.5], to: [6, -2.4], line: { material: "polyamide" } }]}
      answer={answer}
      wind={{ kn: 40, from: 90 }}
      drag={drag}
      touch={touch}
    />,
  );
  const svg = container.querySelector("svg") as SVGSVGElement;
  expect(svg.getAttribute("aria-label")).toBe("It does not stand this wind.");
  expect(container.querySelector("[data-line] line")?.getAttribute("stroke")).toBe("var(--flare)");
  expect(container.querySelectorAll("[data-line] g[stroke='var(--amber)']")).toHaveLength(2);
  // Pixels of the screen are metres here.
  vi.stubGlobal(
    "DOMPoint",
    class {
      constructor(
        readonly x: number,
        readonly y: number,
      ) {}
      matrixTransform() {
        return this;
      }
    },
  );
  svg.getScreenCTM = () => ({ inverse: () => ({}) }) as unknown as DOMMatrix;
  fireEvent.pointerDown(container.querySelector("[data-line] circle") as Element);
  expect(touch).toHaveBeenCalledWith(0);
  fireEvent.pointerMove(svg, { clientX: 7, clientY: -3 });
  expect(drag).toHaveBeenLastCalledWith(0, [7, -3]);
  fireEvent.pointerUp(svg);
  fireEvent.pointerMove(svg, { clientX: 1, clientY: 1 });
  expect(drag).toHaveBeenCalledTimes(1);
});

const kept = {
  id: 4,
  revision: 2,
  code: "L000004-4",
  name: "Warp",
  material: "polyester",
  construction: "braid",
  diameter_mm: 12,
  length_m: 20,
  mu: 0.2,
  looks: [{ at: "2026-02-01T10:00:00Z", by: "Ailsa", grades: { core: 0 } }],
} as unknown as Schemas["LockerLine"];

it("changes a line and leaves what it does not show as it was; retires it, and takes it back", async () => {
  const calls = fakeServer({
    "GET /api/v1/catalogue": {
      knots: [],
      fields: [],
      materials: [
        { id: "polyester", name: "polyester", constructions: ["laid", "braid"] },
        { id: "wire", name: "wire", constructions: ["solid"] },
      ],
    },
    "PUT /api/v1/lines/4": (c: { body: unknown }) => c.body,
  });
  const close = vi.fn();
  const { unmount } = show(<LineSheet line={kept} close={close} />);
  await screen.findByText("wire");
  fireEvent.change(screen.getByLabelText("Where it lives"), { target: { value: "Boat shed" } });
  fireEvent.change(screen.getByLabelText("Metres left"), { target: { value: "18,5" } });
  fireEvent.click(screen.getByText("Keep it"));
  await waitFor(() => expect(close).toHaveBeenCalled());
  expect(calls.find((c) => c.method === "PUT")?.body).toMatchObject({
    name: "Warp",
    lives: "Boat shed",
    length_m: 18.5,
    mu: 0.2,
    looks: [{ by: "Ailsa" }],
  });
  fireEvent.click(screen.getByText("Retire it today"));
  await waitFor(() => expect(calls.filter((c) => c.method === "PUT")).toHaveLength(2));
  expect((calls.at(-1)?.body as { retired: string } | undefined)?.retired).toMatch(/^\d{4}-\d\d-\d\d$/);
  unmount();
  show(<LineSheet line={{ ...kept, retired: "2026-01-01" }} close={close} />);
  fireEvent.click(await screen.findByText("Back into use"));
  await waitFor(() => expect(calls.filter((c) => c.method === "PUT")).toHaveLength(3));
  expect(calls.at(-1)?.body).not.toHaveProperty("retired");
});

it("hands on a line of a rig once it is in the locker", async () => {
  fakeServer({
    "GET /api/v1/catalogue": {
      knots: [],
      fields: [],
      materials: [{ id: "polyester", name: "polyester", constructions: ["laid", "braid"] }],
    },
    "POST /api/v1/lines": (c: { body: object }) => ({ ...c.body, id: 9, code: "L000009-9" }),
  });
  const took = vi.fn();
  show(
    <LineSheet
      from={{ material: "polyester", construction: "braid", diameter_mm: 12, mu: 0.21 }}
      kept={took}
      close={() => undefined}
    />,
  );
  await screen.findByText("polyester");
  fireEvent.change(screen.getByLabelText("Name"), { target: { value: "Slip warp" } });
  fireEvent.click(screen.getByText("Into the locker"));
  await waitFor(() => expect(took).toHaveBeenCalled());
  expect(took.mock.calls[0]?.[0]).toMatchObject({
    code: "L000009-9",
    name: "Slip warp",
    construction: "braid",
    diameter_mm: 12,
    mu: 0.21,
  });
});

it("says beside a rig which line of the locker it is, and that a retired one is not to be used", async () => {
  fakeServer({
    "GET /api/v1/locker": [
      { ...kept, state: {} },
      { ...kept, code: "L000005-5", name: "Old warp", state: { retire: "worn" } },
    ],
  });
  show(
    <>
      <ThisOne code="L000004-4" />
      <ThisOne code="L000005-5" />
      <ThisOne code={undefined} />
    </>,
  );
  expect((await screen.findByText("Warp")).getAttribute("href")).toBe("/lines/L000004-4");
  expect(screen.getByText(/retired, not to be used/).textContent).toContain("Old warp");
  expect(document.querySelectorAll("[data-this-one]")).toHaveLength(2);
});

it("shows what the log says of a knot, and logs a use of it", async () => {
  const calls = fakeServer({
    "GET /api/v1/catalogue": { knots: [{ id: "bowline", name: "Bowline" }], materials: [], fields: [] },
    "GET /api/v1/locker": [],
    "GET /api/v1/knots/bowline/use": { says: "Four uses logged: jammed once." },
    "POST /api/v1/uses": {},
  });
  show(<InUse knot="bowline" />);
  expect((await screen.findByText("Four uses logged: jammed once.")).getAttribute("href")).toBe(
    "/lines/use?knot=bowline",
  );
  fireEvent.click(screen.getByText("Log a use"));
  const sheet = within(await screen.findByRole("dialog"));
  fireEvent.change(sheet.getByLabelText("Where"), { target: { value: "Slip" } });
  fireEvent.click(sheet.getByText("Log it"));
  await waitFor(() => expect(calls.some((c) => c.method === "POST")).toBe(true));
  expect(calls.find((c) => c.method === "POST")?.body).toMatchObject({ knot: "bowline", outcome: "held" });
});

it("changes a tow line: a rider more, lengths in feet, its runs kept", async () => {
  const calls = fakeServer({
    "GET /api/v1/catalogue": { knots: [], materials: [], fields: [] },
    "GET /api/v1/locker": [
      { ...kept, thick_mm: 12, state: {}, says: [] },
      {
        ...kept,
        id: 7,
        code: "L000007-7",
        name: "Thread",
        diameter_mm: 0,
        label_kn: 0.07,
        thick_mm: 1,
        state: {},
        says: [],
      },
    ],
    "GET /api/v1/loads/rider": {
      says: "About 0.5 kN at the start.",
      load_kn: { low: 0.4, likely: 0.5, high: 0.7, tag: "yours", source: "your own figures" },
    },
    "GET /api/v1/tow-lines/places": [
      {
        id: 2,
        revision: 5,
        name: "Tow line two",
        on: "eye",
        line: { material: "hmpe", diameter_mm: 6 },
        takeoffs_m: [18.4, 19.9],
        riders: [{ name: "Fenna", want_m: 18.4 }],
        places: [
          {
            want_m: 18.4,
            takeoff_m: 18.4,
            take_up_m: 0,
            takeoffs_m: [18.4, 19.9],
            hitch: "",
            says: "As it is.",
            tag: "computed",
          },
        ],
        runs: [{ place_m: 19, n: 3 }],
        rubbed: [],
        threads: [],
        coils: 16,
        says: [],
        cautions: [],
      },
    ],
    "PUT /api/v1/tow-lines/2": (c: { body: unknown }) => c.body,
  });
  show(<TowView />);
  fireEvent.click(await screen.findByText("Add a rider"));
  const sheet = within(await screen.findByRole("dialog"));
  await sheet.findByText("Warp");
  expect(
    [...sheet.getByLabelText("Line of the locker").querySelectorAll("option")].map((o) => o.textContent),
  ).toEqual(["none", "Warp"]);
  fireEvent.change(sheet.getByLabelText("Line of the locker"), { target: { value: "L000004-4" } });
  fireEvent.change(sheet.getByLabelText("Lengths, m or ft"), { target: { value: "60ft, 65 ft; 21,5 m" } });
  fireEvent.click(sheet.getByText("Add a rider"));
  const rows = sheet.getAllByLabelText("Rider");
  fireEvent.change(rows[1] as Element, { target: { value: "Bram" } });
  fireEvent.change(sheet.getAllByLabelText("Wants, m or ft")[1] as Element, { target: { value: "63 ft" } });
  fireEvent.click(sheet.getByText("Keep it"));
  await waitFor(() => expect(calls.some((c) => c.method === "PUT")).toBe(true));
  expect(calls.find((c) => c.method === "PUT")?.body).toMatchObject({
    own: "L000004-4",
    line: { material: "polyester", diameter_mm: 12 },
    takeoffs_m: [18.288, 19.812, 21.5],
    riders: [
      { name: "Fenna", want_m: 18.4 },
      { name: "Bram", want_m: 19.2024 },
    ],
    runs: [{ place_m: 19, n: 3 }],
  });
  expect(await screen.findByText(/About 0.5 kN at the start/)).toBeTruthy();
});

it("makes a leader in sections off a spool, and joins a tippet on", async () => {
  const calls = fakeServer({
    "GET /api/v1/catalogue": {
      knots: [{ id: "non-slip-loop", name: "Non-slip loop" }],
      materials: [{ id: "fluorocarbon", name: "fluorocarbon", constructions: ["solid"], fishing: true }],
      fields: [],
    },
    "GET /api/v1/locker": [
      {
        ...kept,
        code: "L000008-8",
        name: "Spool",
        material: "fluorocarbon",
        label_kn: 0.089,
        state: {},
        says: [],
      },
      { ...kept, state: {}, says: [] },
    ],
    "GET /api/v1/leaders/left": [
      {
        id: 5,
        revision: 2,
        name: "Evening",
        length_m: 2.7,
        shortest_m: 2,
        action_m: 2.3,
        sections: [{ length_m: 1.5, knot: "double-uni", line: { material: "mono" } }],
        knot: "non-slip-loop",
        knot_name: "Non-slip loop",
        line: { material: "fluorocarbon", label_kn: 0.07 },
        now_m: 2.1,
        changes_left: 2,
        per_change_m: 0.03,
        action_left: 0,
        add_m: 0.6,
        join_m: 0.1,
        tag: "computed",
        low: true,
        says: ["Two changes left."],
      },
    ],
    "POST /api/v1/leaders/5/tippet": {},
    "POST /api/v1/leaders": {},
  });
  const { container } = show(<LeadersView />);
  fireEvent.click(await screen.findByText("New tippet on"));
  await waitFor(() => expect(calls.some((c) => c.path.endsWith("/5/tippet"))).toBe(true));
  expect(container.querySelectorAll("[data-leader] svg[viewBox='0 0 300 34'] circle")).toHaveLength(2);
  fireEvent.click(screen.getByText("A new leader"));
  const sheet = within(await screen.findByRole("dialog"));
  fireEvent.change(sheet.getByLabelText("Name"), { target: { value: "Dawn" } });
  await waitFor(() => expect(sheet.getByLabelText("Cut from").querySelectorAll("option")).toHaveLength(2));
  fireEvent.change(sheet.getByLabelText("Cut from"), { target: { value: "L000008-8" } });
  fireEvent.change(sheet.getByLabelText("Its action changes below, m"), { target: { value: "2,4" } });
  fireEvent.click(sheet.getByText("Add a section"));
  fireEvent.change(sheet.getByLabelText("Section 1, m"), { target: { value: "1.2" } });
  fireEvent.click(sheet.getByText("Begin it"));
  await waitFor(() => expect(calls.some((c) => c.path === "/api/v1/leaders")).toBe(true));
  expect(calls.find((c) => c.path === "/api/v1/leaders")?.body).toMatchObject({
    name: "Dawn",
    own: "L000008-8",
    action_m: 2.4,
    line: { material: "fluorocarbon", label_kn: 0.089 },
    sections: [{ length_m: 1.2, line: { label_kn: 0.1334 } }],
  });
});
