import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { fakeServer, show } from "../test/app";
import { MooringView } from "./mooring";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it("shares the wind, and asks again when wind, berth or boat change", async () => {
  const calls = fakeServer({
    "GET /api/v1/catalogue": { materials: [{ id: "polyamide", name: "nylon", constructions: ["laid"] }] },
    "POST /api/v1/moorings/solve": (c: { body: unknown }) => ({
      lines: (c.body as { lines: unknown[] }).lines.map((_, i) => ({
        load_kn: i,
        margin: i === 3 ? 0.7 : 2,
      })),
      stands_kn: 38,
      wind_kn: 5,
      moved_m: [0, 0.1],
      turn_deg: 1,
      quay_kn: 0,
      says: ["It stands 38 knots from there."],
      cautions: [],
      ahead_kn: { low: 2, likely: 3, high: 4, tag: "memory", source: "table" },
      abeam: { low: 2, likely: 3, high: 4, tag: "memory", source: "wide" },
    }),
  });
  const { container } = show(<MooringView />);
  await screen.findByText("It stands 38 knots from there.");
  expect(container.querySelectorAll("[data-line]")).toHaveLength(4);
  expect(screen.getByText(/aft spring 3.0 kN/)).toBeTruthy();
  const last = () =>
    calls.filter((c) => c.method === "POST").at(-1)?.body as {
      wind: { kn: number };
      lines: { name: string; from: [number, number] }[];
      boat: { loa_m: number };
    };
  expect(last().lines.map((l) => l.name)).toEqual(["bow line", "stern line", "fore spring", "aft spring"]);
  fireEvent.change(screen.getByLabelText(/Wind, knots/), { target: { value: "40" } });
  await waitFor(() => expect(last().wind.kn).toBe(40));
  fireEvent.click(screen.getByText("Between four posts"));
  await waitFor(() => expect(last().lines[0]?.name).toBe("bow line to port"));
  fireEvent.change(screen.getByLabelText("Length, m"), { target: { value: "7,5" } });
  await waitFor(() => expect(last().boat.loa_m).toBe(7.5));
});
