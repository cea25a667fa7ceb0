import { expect, test } from "vitest";

import { lookWords } from "./lookWords";

test.each([
  [{ parts: 1, doubted: [], lost: [] }, "It has its place", true],
  [{ parts: 4, doubted: [], lost: [] }, "All 4 parts have their place", true],
  [{ parts: 4, doubted: ["frame"], lost: ["mark", "mark"] }, "Not found: 2 marks. Not sure: frame", false],
  [{ parts: 3, doubted: [], lost: ["fold", "fold_down", "outline"] }, "Not found: 2 folds, outline", false],
])("%o", (look, text, sure) => {
  expect(lookWords(look)).toEqual({ text, sure });
});
