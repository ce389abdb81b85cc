import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { Catalogue, Rig, SavedRig } from "../api/client";
import { fakeServer, show } from "../test/app";
import { firstRig, lineOf, withLine } from "./document";
import { RigsSheet } from "./rigs";
import type { Saving } from "./saving";
import type { RigActs } from "./use-rig";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const usual = withLine({ ...firstRig, name: "Lugger fenders" }, { diameter_mm: 8 });
const catalogue = {
  knots: [],
  fields: [],
  templates: [{ id: "fenders", rig: usual }],
  weights: { mooring: {}, "quick-release": {} },
  materials: [{ id: "polyester", name: "polyester", constructions: ["laid", "braid"] }],
} as unknown as Catalogue;

const saved = (id: number, name: string) => ({ id, revision: 2, rig: { ...usual, name } }) as SavedRig;

function sheet(rig: Rig, more: Record<string, unknown> = {}) {
  const calls = fakeServer({
    "GET /api/v1/catalogue": catalogue,
    "GET /api/v1/rigs": [saved(4, "Slip"), saved(5, "Outer quay")],
    "GET /api/v1/lines": [
      {
        id: 1,
        code: "L000001-1",
        name: "Bow line",
        material: "polyester",
        construction: "braid",
        diameter_mm: 12,
        wear: 1,
      },
      {
        id: 2,
        code: "L000002-2",
        name: "Old warp",
        material: "polyester",
        diameter_mm: 12,
        retired: "2026-01-01",
      },
    ],
    ...more,
  });
  const acts = { rig, from: saved(4, "Slip"), change: vi.fn(), open: vi.fn() };
  const saving = { save: vi.fn(), saving: false, setSaid: vi.fn() };
  const close = vi.fn();
  const wrong = vi.fn();
  show(
    <RigsSheet
      open
      close={close}
      acts={acts as unknown as RigActs}
      here={rig}
      joint={1}
      catalogue={catalogue}
      saving={saving as unknown as Saving}
      wrong={wrong}
    />,
  );
  return { calls, acts, saving, close, wrong };
}

it("takes a line of the locker as this one; a retired line is not offered", async () => {
  const { acts, close } = sheet(firstRig);
  fireEvent.click(await screen.findByText("Bow line"));
  const changed = acts.change.mock.calls[0]?.[0] as Rig;
  expect(lineOf(changed)).toMatchObject({ own: "L000001-1", diameter_mm: 12, wear: 1 });
  expect(close).toHaveBeenCalled();
  expect(screen.queryByText("Old warp")).toBeNull();
  // Changed in anything but its length it is that one no more.
  expect(lineOf(withLine(changed, { length_m: 3 })).own).toBe("L000001-1");
  expect(lineOf(withLine(changed, { diameter_mm: 10 })).own).toBeUndefined();
});

it("puts the rig's line into the locker and takes it as this one", async () => {
  const { acts, calls } = sheet(firstRig, {
    "POST /api/v1/lines": (c: { body: object }) => ({ ...c.body, id: 9, code: "L000009-9" }),
  });
  await screen.findByText("Bow line");
  fireEvent.click(screen.getByText("Put this line into the locker"));
  fireEvent.change(await screen.findByLabelText("Name"), { target: { value: "Slip warp" } });
  fireEvent.click(screen.getByText("Into the locker"));
  await waitFor(() => expect(acts.change).toHaveBeenCalled());
  expect(calls.find((c) => c.method === "POST")?.body).toMatchObject({
    name: "Slip warp",
    material: "polyester",
    diameter_mm: 12,
  });
  expect(lineOf(acts.change.mock.calls[0]?.[0] as Rig).own).toBe("L000009-9");
});

it("says which line of the locker it is, and then offers no second of it", async () => {
  sheet(withLine(firstRig, { own: "L000001-1" }));
  const line = await screen.findByText("Bow line");
  expect(line.getAttribute("aria-pressed")).toBe("true");
  expect(screen.queryByText("Put this line into the locker")).toBeNull();
});

it("saves over the record it came from or as another, and says where a name is taken", async () => {
  const { saving } = sheet({ ...firstRig, name: "Slip" });
  const field = await screen.findByLabelText("Name of the rig");
  await screen.findByText("Outer quay");
  fireEvent.change(field, { target: { value: "Outer quay" } });
  expect(screen.getByText(/Another rig has this name/)).toBeTruthy();
  fireEvent.change(field, { target: { value: " Slip in May " } });
  expect(screen.queryByText(/Another rig has this name/)).toBeNull();
  fireEvent.click(screen.getByText("Save"));
  expect(saving.save).toHaveBeenLastCalledWith(
    expect.objectContaining({ name: "Slip in May" }),
    saved(4, "Slip"),
  );
  fireEvent.click(screen.getByText("Save as another"));
  expect(saving.save).toHaveBeenLastCalledWith(expect.objectContaining({ name: "Slip in May" }), undefined);
});

it("opens, removes and brings back; begins with a usual one; ranks for something", async () => {
  const { acts, calls } = sheet(firstRig, { "DELETE /api/v1/rigs/5": {}, "POST /api/v1/rigs": {} });
  const kept = within(await screen.findByRole("group", { name: "Saved rigs" }));
  fireEvent.click(await kept.findByText("Outer quay"));
  expect(acts.open).toHaveBeenLastCalledWith(saved(5, "Outer quay").rig, saved(5, "Outer quay"));
  fireEvent.click(screen.getByLabelText("Remove Outer quay"));
  fireEvent.click(await screen.findByText("Bring it back"));
  await waitFor(() => expect(calls.some((c) => c.method === "POST")).toBe(true));
  fireEvent.click(screen.getByText("Lugger fenders"));
  expect(acts.open).toHaveBeenLastCalledWith(usual);
  fireEvent.click(screen.getByText("quick, release"));
  expect(acts.change).toHaveBeenLastCalledWith(expect.objectContaining({ weights: "quick-release" }));
  fireEvent.click(screen.getByText("the task, as usual"));
  expect(acts.change).toHaveBeenLastCalledWith(expect.objectContaining({ weights: undefined }));
});

it("keeps the rig on screen until that of a file is known to be sound", async () => {
  const { acts, saving, wrong } = sheet(firstRig, {
    "POST /api/v1/rig-checks": (c: { body: Rig }) =>
      c.body.peak_kn === 3
        ? { rig: c.body }
        : { status: 422, title: "Unprocessable", detail: "It is no rig." },
  });
  const file = await screen.findByLabelText("Rig to take in");
  fireEvent.change(file, {
    target: { files: [new File([JSON.stringify({ ...usual, peak_kn: 3 })], "a.json")] },
  });
  await waitFor(() => expect(acts.open).toHaveBeenCalled());
  expect(saving.setSaid).toHaveBeenLastCalledWith("Taken in");
  for (const text of ["no rig at all", JSON.stringify({ ...usual, peak_kn: -1 })]) {
    wrong.mockClear();
    fireEvent.change(file, { target: { files: [new File([text], "b.json")] } });
    await waitFor(() => expect(wrong).toHaveBeenCalledWith(expect.any(Error)));
  }
  expect(acts.open).toHaveBeenCalledTimes(1);
});
