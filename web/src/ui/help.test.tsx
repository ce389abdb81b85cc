import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { show } from "../test/app";
import { FirstVisit, HelpSheet } from "./help";
import { prefs, setPrefs } from "./prefs";

beforeEach(() => setPrefs({ hand: "right", large: false, letters: true, met: false }));
afterEach(() => {
  cleanup();
  localStorage.clear();
});

it("keeps what somebody likes on the device", async () => {
  const setLight = vi.fn();
  show(<HelpSheet open close={() => undefined} light="day" setLight={setLight} />);
  fireEvent.click(await screen.findByText("Left"));
  fireEvent.click(screen.getByText("Large"));
  fireEvent.click(screen.getByText("Off"));
  fireEvent.click(screen.getByText("Full sun"));
  expect(prefs()).toMatchObject({ hand: "left", large: true, letters: false });
  expect(JSON.parse(localStorage.getItem("oarweed-prefs") ?? "{}")).toMatchObject({
    hand: "left",
    large: true,
  });
  expect(setLight).toHaveBeenCalledWith("sun");
  expect(screen.getByText("Left").getAttribute("aria-pressed")).toBe("true");
  // The marks are explained where they are looked for.
  expect(document.body.textContent).toContain("recalled and unchecked: a starting point only");
});

it("greets once", () => {
  show(<FirstVisit />);
  expect(screen.getByTestId("first-visit").textContent).toContain("every underlined phrase can be changed");
  fireEvent.click(screen.getByText("Understood"));
  expect(screen.queryByTestId("first-visit")).toBeNull();
  cleanup();
  show(<FirstVisit />);
  expect(screen.queryByTestId("first-visit")).toBeNull();
});
