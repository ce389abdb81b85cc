import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { show } from "../test/app";
import { Boundary } from "./boundary";
import { keys, useKey } from "./keys";

beforeEach(() => void vi.spyOn(console, "error").mockImplementation(() => undefined));
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

let broken = false;

function View() {
  if (broken) throw new Error("a bug");
  return <p>The view</p>;
}

function Heard({ heard }: { heard: () => void }) {
  useKey("undo", heard);
  useKey("help", heard);
  return <input aria-label="field" />;
}

it("stands in for a view that fails, and lets it try again", () => {
  broken = true;
  show(
    <Boundary where="/log">
      <View />
    </Boundary>,
  );
  expect(screen.getByRole("alert").textContent).toContain("cannot be shown");
  broken = false;
  fireEvent.click(screen.getByText("Try again"));
  expect(screen.getByText("The view")).toBeTruthy();
});

it("leaves keys to who is typing and to a sheet that lies over the page", () => {
  const heard = vi.fn();
  render(<Heard heard={heard} />);
  const press = (on: Element, key: string, more = {}) =>
    fireEvent.keyDown(on, { key, code: "KeyX", ...more });
  press(document.body, "z");
  press(screen.getByLabelText("field"), "z", { ctrlKey: true });
  expect(heard).not.toHaveBeenCalled();
  press(document.body, "z", { ctrlKey: true });
  press(document.body, "?", { shiftKey: true });
  expect(heard).toHaveBeenCalledTimes(2);
  document.body.insertAdjacentHTML("beforeend", '<div id="over" role="dialog" data-state="open"></div>');
  press(document.body, "z", { ctrlKey: true });
  document.getElementById("over")?.remove();
  expect(heard).toHaveBeenCalledTimes(2);
});

it("has one meaning for each key", () => {
  const all = Object.values(keys).flatMap((k) => k.key.split(/,\s*/));
  expect(new Set(all).size).toBe(all.length);
});
