import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { SavedRig } from "../api/client";
import { fakeServer, show } from "../test/app";
import { fields } from "../test/fields";
import { type Conflict, ConflictSheet } from "./conflict";
import { firstRig, withLine } from "./document";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const kept = {
  id: 4,
  revision: 3,
  rig: { ...withLine(firstRig, { diameter_mm: 16 }), name: "Tow" },
  changed_at: "2026-06-02T10:00:00Z",
} as SavedRig;

function sheet(more: Partial<Conflict>) {
  fakeServer({ "GET /api/v1/catalogue": { fields } });
  const settle = vi.fn();
  const conflict = { mine: firstRig, over: { id: 4, revision: 2 }, kept, nameTaken: false, ...more };
  show(<ConflictSheet conflict={conflict} settle={settle} />);
  return settle;
}

it("shows both versions where they differ, in the words of the fields", async () => {
  const settle = sheet({});
  const text = (await screen.findByTestId("conflict")).textContent;
  await screen.findByText(/diameter/);
  await screen.findByText("12 mm");
  await screen.findByText("16 mm");
  expect(text).toContain("nothing is lost");
  fireEvent.click(screen.getByText("Take theirs"));
  expect(settle).toHaveBeenCalledWith("theirs");
  fireEvent.click(screen.getByText("Keep mine"));
  expect(settle).toHaveBeenCalledWith("mine");
});

it("keeps both where only the name is the same", async () => {
  const settle = sheet({ nameTaken: true });
  await screen.findByText("Another rig is called “Tow”");
  fireEvent.click(screen.getByText("Keep both"));
  expect(settle).toHaveBeenCalledWith("both");
  expect(screen.queryByText("Take theirs")).toBeNull();
});
