import { ChakraProvider } from "@chakra-ui/react";
import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { system } from "../ui/theme";
import { firstRig } from "./document";
import { Editor } from "./editor";
import type { Phrase } from "./phrase";

const load: Phrase = {
  id: "load",
  label: "Highest load",
  text: "2.4 kN",
  quantity: "force",
  bare: "kN",
  typed: "2.4 kN",
  now: 2.4,
  write: (v) => `${v} kN`,
  hint: "As in 2.4 kN.",
  quick: ["1 kN"],
  set: (value) => ({ ...firstRig, peak_kn: value }),
};

function show(change: (rig: typeof firstRig) => void) {
  render(
    <ChakraProvider value={system}>
      <Editor phrase={load} change={change} title="open" />
    </ChakraProvider>,
  );
  fireEvent.click(screen.getByTitle("open"));
}

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const answer = (status: number, body: unknown) =>
  vi.stubGlobal(
    "fetch",
    async () =>
      new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } }),
  );

it("keeps what was typed when it cannot be read, and says what would be", async () => {
  answer(422, {
    detail: "no",
    fields: [{ field: "", message: '"much" is not a force', fix: "write it like 2.4 kN" }],
  });
  const change = vi.fn();
  show(change);
  const field = (await screen.findByLabelText("Highest load")) as HTMLInputElement;
  fireEvent.change(field, { target: { value: "much" } });
  fireEvent.click(screen.getByText("Set"));
  const alert = await screen.findByRole("alert");
  expect(alert.textContent).toBe('"much" is not a force – write it like 2.4 kN');
  expect(field.value).toBe("much");
  expect(change).not.toHaveBeenCalled();
});

it("says so when the server does not answer", async () => {
  vi.stubGlobal("fetch", async () => {
    throw new TypeError("connection refused");
  });
  show(() => undefined);
  fireEvent.click(await screen.findByText("1 kN"));
  expect((await screen.findByRole("alert")).textContent).toContain("does not answer");
});

it("changes the rig with the value read", async () => {
  answer(200, { value: 5, text: "5 kN", also: "1120 lb" });
  const change = vi.fn();
  show(change);
  fireEvent.click(await screen.findByText("1 kN"));
  await waitFor(() => expect(change).toHaveBeenCalledWith({ ...firstRig, peak_kn: 5 }));
});

it("changes the rig while the slider is dragged, in both directions, and stays open", async () => {
  const change = vi.fn();
  show(change);
  const slider = await screen.findByLabelText("Drag: Highest load");
  fireEvent.change(slider, { target: { value: "1" } });
  expect(change).toHaveBeenLastCalledWith({ ...firstRig, peak_kn: 4.8 });
  expect((screen.getByLabelText("Highest load") as HTMLInputElement).value).toBe("4.8 kN");
  fireEvent.change(slider, { target: { value: "-2" } });
  expect(change).toHaveBeenLastCalledWith({ ...firstRig, peak_kn: 0.6 });
});
