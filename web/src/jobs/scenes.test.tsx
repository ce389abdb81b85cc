import { readFileSync } from "node:fs";
import { render, screen } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { JobScene, sceneNames } from "./scenes";

const named = [
  ...readFileSync("../catalogue/procedures.yaml", "utf8").matchAll(/picture: ([a-z0-9-]+)/g),
].map((m) => m[1] ?? "");

describe("pictures of jobs", () => {
  it("draws every picture that a step names, and none that no step names", () => {
    const elsewhere = /^(winch|clutch|lashing-[1-4]$|reeve-[12]$)/;
    expect(new Set(named.filter((n) => !elsewhere.test(n)))).toEqual(new Set(sceneNames));
  });

  it("says what each shows", () => {
    for (const name of sceneNames) {
      const { unmount } = render(<JobScene of={name} />);
      expect(screen.getByRole("img").getAttribute("aria-label")).toMatch(/^.{20,}$/);
      unmount();
    }
  });
});
