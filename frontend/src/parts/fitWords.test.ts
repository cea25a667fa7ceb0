import { expect, test } from "vitest";

import type { Job } from "../api/types";
import { expectedShortly, expectedWords, tryingWords } from "./fitWords";

const FILE = { recipe: "WebP", bytes: 84_900, fidelity: 78.4, met: true };

test("what is expected says that it is only expected", () => {
  expect(expectedWords(FILE, 90_000)).toBe("Expected to fit 90.0 kB: WebP, about 84.9 kB, fidelity about 78.");
  expect(expectedWords({ ...FILE, recipe: "", met: false }, 90_000)).toBe("No file is expected to fit 90.0 kB.");
  expect(expectedWords({ ...FILE, met: false }, 90_000)).toContain("Not expected to look acceptable under 90.0 kB");
});

test("a row that is not looked at says it shortly", () => {
  expect(expectedShortly(FILE)).toBe("Expected: about 84.9 kB, fidelity about 78");
  expect(expectedShortly({ ...FILE, met: false })).toContain("Expected not to look acceptable");
  expect(expectedShortly({ ...FILE, recipe: "", met: false })).toBe("No file is expected to fit");
});

test("what is tried says how much may be left", () => {
  const job = (told: object | null) => ({ told }) as unknown as Job;
  expect(tryingWords(job(null))).toBeUndefined();
  const waiting = { state: "queued", told: { trying: "AVIF", tries_left: 7, advising: false } } as unknown as Job;
  expect(tryingWords(waiting)).toBeUndefined();
  expect(tryingWords(job({ trying: "AVIF", tries_left: 7, advising: false }))).toBe("Trying AVIF, 7 more files at most");
  expect(tryingWords(job({ trying: "AVIF", tries_left: 1, advising: false }))).toBe("Trying AVIF, the last file");
  expect(tryingWords(job({ trying: "a smaller width", tries_left: 0, advising: true }))).toBe("Looking at a smaller width");
});
