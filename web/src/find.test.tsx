import { cleanup, fireEvent, screen } from "@testing-library/react";
import { useLocation } from "react-router";
import { afterEach, expect, it, vi } from "vitest";
import { FindSheet } from "./find";
import { fakeServer, show } from "./test/app";

const brief = (id: string, name: string, also: string[], faults: string[] = []) => ({
  id,
  name,
  also,
  kind: "hitch",
  summary: "",
  difficulty: 1,
  drawn: true,
  tasks: {},
  not_in: [],
  grows_from: [],
  faults,
});
const catalogue = {
  knots: [
    brief("fishermans-bend", "Fisherman's bend", ["anchor bend"], ["Hitch outside the turns"]),
    brief("cow-hitch", "Cow hitch", ["lark's head"]),
    brief("figure-eight", "Figure eight", ["figure of eight", "figure 8 stopper"]),
  ],
  tasks: [
    {
      id: "moor",
      name: "make the boat fast",
      also: ["mooring"],
      group: "mooring",
      between: "fitting",
      fittings: ["ring"],
      fitting: "ring",
      release: "slack",
      start: {
        material: "polyester",
        construction: "braid",
        diameter_mm: 12,
        peak_kn: 2,
        character: "steady",
      },
    },
    {
      id: "relieve",
      name: "take the load off",
      also: ["jammed winch"],
      group: "sheets",
      between: "line",
      release: "slack",
      start: {
        material: "polyester",
        construction: "braid",
        diameter_mm: 8,
        other_mm: 12,
        peak_kn: 1,
        character: "steady",
      },
    },
  ],
  materials: [{ id: "polyester", name: "polyester", constructions: ["braid"] }],
  fittings: [{ id: "ring", name: "ring", default_mm: 20 }],
  procedures: [{ id: "jam", name: "Free an overridden winch", when: "A riding turn.", needs: "relieve" }],
};

const Here = () => <span data-testid="here">{useLocation().pathname}</span>;

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it("finds by any name and spelling, every word of it", async () => {
  fakeServer({ "GET /api/v1/catalogue": catalogue });
  const close = vi.fn();
  show(<FindSheet close={close} />);
  const field = await screen.findByLabelText("What to find");
  const found = (typed: string) => {
    fireEvent.change(field, { target: { value: typed } });
    return screen.getByTestId("found").textContent;
  };
  await vi.waitFor(() => expect(found("bend")).toContain("Fisherman's bend"));
  for (const typed of ["fishermans", "fisherman’s bend", "fishermens"])
    expect(found(typed)).toContain("Fisherman's bend");
  expect(found("lark head")).toContain("Cow hitch");
  expect(found("figure 8")).toContain("Figure eight");
  expect(found("mooring")).toContain("Make the boat fast");
  expect(found("jammed winch")).toContain("Free an overridden winch");
  expect(found("outside the turns")).toContain("goes wrong with the fisherman's bend");
  expect(found("spaceship")).toBe("");
  expect(document.body.textContent).toContain("Nothing here is called that");
  fireEvent.change(field, { target: { value: "cow" } });
  fireEvent.keyDown(field, { key: "Enter" });
  expect(close).toHaveBeenCalled();
});

it("opens a thing or a line by the code on its label, however it is typed", async () => {
  for (const [typed, to] of [
    ["l92ce58k", "/lines/L92CE58-K"],
    [" L92CE58-K ", "/lines/L92CE58-K"],
    ["g007-7", "/g/g007-7"],
  ] as const) {
    fakeServer({ "GET /api/v1/catalogue": catalogue });
    const close = vi.fn();
    show(
      <>
        <FindSheet close={close} />
        <Here />
      </>,
    );
    const field = await screen.findByLabelText("What to find");
    fireEvent.change(field, { target: { value: typed } });
    expect(screen.getByText(/The thing with the label/)).toBeTruthy();
    fireEvent.keyDown(field, { key: "Enter" });
    expect(close).toHaveBeenCalled();
    expect(screen.getByTestId("here").textContent).toBe(to);
    cleanup();
  }
  fakeServer({ "GET /api/v1/catalogue": catalogue });
  show(<FindSheet close={() => undefined} />);
  for (const word of ["loop", "lashing", "grannies", "L92CE5", "LUIOABC-1"]) {
    fireEvent.change(await screen.findByLabelText("What to find"), { target: { value: word } });
    expect(screen.queryByText(/The thing with the label/)).toBeNull();
  }
});
