import { expect, test } from "vitest";

import type { Output } from "../../api/types";
import { finishedSince, finishedWords, seenOf } from "./finished";

const MADE = {
  label: "Article",
  file_key: "a",
  format: "webp",
  bytes: 84_900,
  limit_bytes: 90_000,
  fidelity: 80.4,
  met: true,
  job: { state: "done", error: null },
} as unknown as Output;

test("a file that was made says what it is", () => {
  expect(finishedWords(MADE)).toBe("Article is made: WebP, 84.9 kB of 90.0 kB, fidelity 80.");
  expect(finishedWords({ ...MADE, met: false })).toContain("does not look acceptable");
});

test("so does one that could not be made", () => {
  expect(finishedWords({ ...MADE, file_key: "" })).toBe("Article: no file keeps to 90.0 kB.");
  const error = { code: "x", sentence: "The disk is full.", hint: "" };
  expect(finishedWords({ ...MADE, job: { ...MADE.job, state: "failed", error } })).toBe("Article: The disk is full.");
});

test("a file that was made before anybody saw it under way is news all the same", () => {
  const before = seenOf([{ ...MADE, id: 1 }]);
  const quick = { ...MADE, id: 2 };
  expect(finishedSince(before, [{ ...MADE, id: 1 }, quick])).toEqual([quick]);
  const again = { ...MADE, id: 1, file_key: "b" };
  expect(finishedSince(before, [again])).toEqual([again]);
  expect(finishedSince(before, [{ ...MADE, id: 1 }])).toEqual([]);
});
