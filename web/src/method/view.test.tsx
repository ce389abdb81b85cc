import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { fakeServer, show } from "../test/app";
import { fields } from "../test/fields";
import { SayingsView } from "./sayings";
import { MethodView } from "./view";

const catalogue = {
  fields,
  task_groups: ["mooring"],
  materials: [{ id: "polyester", name: "polyester", constructions: ["braid"] }],
  surfaces: [{ id: "polished-steel", name: "polished steel" }],
  fittings: [{ id: "ring", name: "ring", size_is: "thickness", default_mm: 20, surface: "polished-steel" }],
  tasks: [
    {
      id: "moor",
      name: "make the boat fast",
      between: "fitting",
      group: "mooring",
      start: { material: "polyester" },
    },
  ],
};
const saying = (id: string, verdict: string, says: string) => ({
  id,
  saying: `${id}.`,
  verdict,
  says,
  when: "Sometimes.",
});

let calls: ReturnType<typeof fakeServer>;
beforeEach(() => {
  calls = fakeServer({
    "GET /api/v1/catalogue": catalogue,
    "GET /api/v1/method": {
      text: "# Method\n\nAll of it.\n\n## Friction\n\n- wide\n\n| line | before |\n| --- | --- |\n| nylon | 0.13 |\n",
    },
    "POST /api/v1/sayings": (c: { body: unknown }) => [
      saying("one-turn", "not here", `at ${(c.body as { peak_kn: number }).peak_kn} kN`),
      saying("wet", "true here", "Nylon loses."),
      saying("king", "half true", "Both sides."),
    ],
    "GET /api/v1/quantity": { value: 1, text: "1 kN", also: "" },
  });
});
afterEach(() => {
  cleanup();
  localStorage.clear();
  vi.unstubAllGlobals();
});

it("shows the method with its tables", async () => {
  show(<MethodView />);
  await waitFor(() => expect(screen.getByRole("heading", { level: 1 }).textContent).toBe("Method"));
  expect(screen.getByRole("heading", { level: 2 }).textContent).toBe("Friction");
  expect(screen.getByRole("table").textContent).toContain("nylon");
});

it("works sayings out on the rig at hand, by word and sign, and again when it is changed", async () => {
  show(<SayingsView />);
  await waitFor(() => expect(document.querySelectorAll("[data-saying]")).toHaveLength(3));
  const text = document.body.textContent ?? "";
  for (const words of ["✕ not here", "at 2.4 kN", "✓ true here", "◐ half true", "Worked out on 12 mm"])
    expect(text).toContain(words);
  fireEvent.click(document.querySelector('[data-phrase="load"]') as HTMLElement);
  const field = await screen.findByLabelText("Highest load");
  fireEvent.change(field, { target: { value: "1 kN" } });
  fireEvent.submit(field.closest("form") as HTMLFormElement);
  await waitFor(() => expect(document.body.textContent).toContain("at 1 kN"));
  expect(calls.some((c) => c.path === "/api/v1/sayings")).toBe(true);
});
