import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { fakeServer, show } from "../test/app";
import { AttemptDialog } from "./attempt";

let calls: ReturnType<typeof fakeServer>;
const close = vi.fn();

beforeEach(() => {
  close.mockReset();
  calls = fakeServer({
    "GET /api/v1/knots/bowline": {
      id: "bowline",
      name: "Bowline",
      faults: [{ code: "tail-short", name: "Tail too short" }],
    },
    "GET /api/v1/learners": [{ id: 3, name: "Ailsa" }],
    "POST /api/v1/learners": { id: 9, name: "Gunnar" },
    "POST /api/v1/attempts": { id: 1 },
  });
  show(<AttemptDialog knot="bowline" close={close} />);
});

afterEach(() => {
  cleanup();
  sessionStorage.clear();
  vi.unstubAllGlobals();
});

const save = () => fireEvent.click(screen.getByText("Save the attempt"));
const alert = async () => (await screen.findByRole("alert")).textContent;

it("asks for what is missing, one thing after the other, and keeps the rest", async () => {
  await screen.findByText("Ailsa");
  save();
  expect(await alert()).toContain("Who tied it?");
  fireEvent.click(screen.getByText("Ailsa"));
  save();
  expect(await alert()).toContain("How did it go?");
  fireEvent.click(screen.getByText("✕ Fault"));
  save();
  expect(await alert()).toContain("Which fault");
  fireEvent.click(screen.getByText("Tail too short"));
  fireEvent.change(screen.getByLabelText("Seconds"), { target: { value: "quick" } });
  save();
  expect(await alert()).toContain("“quick” is no time");
  expect((screen.getByLabelText("Seconds") as HTMLInputElement).value).toBe("quick");
  fireEvent.change(screen.getByLabelText("Seconds"), { target: { value: "12,5" } });
  save();
  await waitFor(() => expect(close).toHaveBeenCalled());
  expect(calls.find((c) => c.path === "/api/v1/attempts")?.body).toEqual({
    key: expect.stringMatching(/^[0-9a-f]{32}$/),
    learner_id: 3,
    knot: "bowline",
    outcome: "fault",
    fault: "tail-short",
    seconds: 12.5,
    conditions: "dry",
  });
});

it("shows what was typed again when it was closed by mistake, and not once it was saved", async () => {
  fireEvent.click(await screen.findByText("Ailsa"));
  fireEvent.change(screen.getByLabelText("Seconds"), { target: { value: "12" } });
  cleanup();
  show(<AttemptDialog knot="bowline" close={close} />);
  await waitFor(() => expect((screen.getByLabelText("Seconds") as HTMLInputElement).value).toBe("12"));
  await screen.findByText("Ailsa");
  fireEvent.click(screen.getByText("✓ Right"));
  save();
  await waitFor(() => expect(close).toHaveBeenCalled());
  cleanup();
  show(<AttemptDialog knot="bowline" close={close} />);
  await screen.findByText("Ailsa");
  expect((screen.getByLabelText("Seconds") as HTMLInputElement).value).toBe("");
});

it("adds a learner and records for them", async () => {
  fireEvent.change(await screen.findByLabelText("New learner"), { target: { value: "Gunnar" } });
  fireEvent.click(await screen.findByText("Add"));
  await waitFor(() => expect((screen.getByLabelText("New learner") as HTMLInputElement).value).toBe(""));
  fireEvent.click(screen.getByText("✓ Right"));
  fireEvent.click(screen.getByText("in gloves"));
  save();
  await waitFor(() => expect(close).toHaveBeenCalled());
  expect(calls.find((c) => c.path === "/api/v1/attempts")?.body).toMatchObject({
    learner_id: 9,
    outcome: "right",
    conditions: "gloves",
    fault: "",
    seconds: 0,
  });
});

it("times with one press to start and one to stop", async () => {
  const clock = vi.spyOn(performance, "now");
  clock.mockReturnValue(1000);
  fireEvent.click(await screen.findByText("Start the clock"));
  clock.mockReturnValue(8450);
  fireEvent.click(await screen.findByText(/^Stop/));
  clock.mockRestore();
  await waitFor(() => expect((screen.getByLabelText("Seconds") as HTMLInputElement).value).toBe("7.5"));
});
