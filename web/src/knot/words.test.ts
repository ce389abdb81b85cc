import { expect, test } from "vitest";
import type { Schemas } from "../api/client";
import { split } from "./words";

const words: Schemas["TradeWord"][] = [
  { id: "bight", word: "bight", also: ["bights"], says: "bent back" },
  { id: "standing-part", word: "standing part", says: "to the load" },
  { id: "turn", word: "turn", says: "once" },
  { id: "round-turn", word: "round turn", says: "all round" },
];
const shown = (text: string) =>
  split(text, words).map((p) => (typeof p === "string" ? p : `[${p.shown}]${p.after}`));

test("a word is explained where it first comes, whole and in any case", () => {
  expect(shown("Bight over the standing part, and the bight again.")).toEqual([
    "[Bight]",
    " over the ",
    "[standing part],",
    " and the bight again.",
  ]);
});

test("the longer word wins, and parts of words are left alone", () => {
  expect(shown("A round turn, then returning.")).toEqual(["A ", "[round turn],", " then returning."]);
  expect(shown("No words here.")).toEqual(["No words here."]);
});
