import { describe, expect, it } from "vitest";

import type { ClipDocument } from "../api/types";
import { expectedBytes, lengthMs, placeAt, played, withRange } from "./playing";

const PLAIN: ClipDocument = { dropped: [], keep_every: 1, speed: 1, there_and_back: false, hold_start_ms: 0, hold_end_ms: 0, repeats: 0, box: null, pointer: true, hidden: [], marks: [] };
const rows = (count: number, change: Partial<ClipDocument>) => played(count, 10, { ...PLAIN, ...change }).map(({ frame, durationMs }) => [frame, durationMs]);

describe("played", () => {
  it("drops frames with their time, and thins without", () => {
    expect(rows(4, { dropped: [1, 2] })).toEqual([[0, 100], [3, 100]]);
    expect(rows(5, { keep_every: 2 })).toEqual([[0, 200], [2, 200], [4, 100]]);
  });

  it("goes there and back, and is held once at each end", () => {
    expect(rows(4, { there_and_back: true, hold_start_ms: 500, hold_end_ms: 300 })).toEqual([[0, 600], [1, 100], [2, 100], [3, 400], [2, 100], [1, 100]]);
    expect(rows(1, { there_and_back: true })).toEqual([[0, 100]]);
  });

  it("shows nothing when all is dropped", () => {
    expect(rows(2, { dropped: [0, 1] })).toEqual([]);
    expect(lengthMs([])).toBe(0);
  });
});

describe("placeAt", () => {
  it("is what is seen at a moment, and the last one afterwards", () => {
    const shown = played(4, 10, { ...PLAIN, speed: 2 });
    expect([0, 49, 50, 149, 9_999].map((moment) => placeAt(shown, moment))).toEqual([0, 0, 1, 2, 3]);
  });
});

describe("withRange", () => {
  it("drops and restores a range, whichever end was chosen first", () => {
    expect(withRange([9], 5, 3, true)).toEqual([3, 4, 5, 9]);
    expect(withRange([3, 4, 5, 9], 4, 9, false)).toEqual([3]);
  });
});

describe("expectedBytes", () => {
  it("follows the number of pictures", () => {
    expect(expectedBytes(90_000, 90, 60)).toBe(60_000);
    expect(expectedBytes(500, 0, 3)).toBe(500);
  });
});
