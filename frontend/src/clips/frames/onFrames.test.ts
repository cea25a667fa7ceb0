import { expect, test } from "vitest";

import type { ClipDocument } from "../../api/types";
import { placeOf } from "../../bench/marks/numbers";
import { ALL_FRAMES, drawnOn, spanWords } from "./onFrames";

const PLAIN: ClipDocument = { dropped: [], keep_every: 1, speed: 1, there_and_back: false, hold_start_ms: 0, hold_end_ms: 0, repeats: 0, box: null, pointer: true, hidden: [], marks: [] };
const FRAMES = { width_px: 640, height_px: 400 };
const at = (x_px: number, y_px: number) => ({ x_px, y_px });

test("a drag in any direction hides an area on the frames in hand, and stays on them", () => {
  const { hidden } = drawnOn(PLAIN, "hide", at(700, 90), at(600, 40), FRAMES, { first: 3, last: 9 }) ?? {};
  expect(hidden).toMatchObject([{ first: 3, last: 9, area: { x_px: 600, y_px: 40, width_px: 40, height_px: 50, how: "solid" } }]);
});

test("an arrow keeps its direction, and what was there stays below it", () => {
  const first = { ...PLAIN, ...drawnOn(PLAIN, "box", at(0, 0), at(50, 50), FRAMES, ALL_FRAMES) };
  const { marks } = drawnOn(first, "arrow", at(300, 200), at(100, 50), FRAMES, ALL_FRAMES) ?? {};
  expect(marks?.map(({ mark }) => mark.kind)).toEqual(["box", "arrow"]);
  expect(marks?.[1]?.mark).toMatchObject({ from_x_px: 300, from_y_px: 200, to_x_px: 100, to_y_px: 50 });
});

test("a press draws nothing, but words begin where it was", () => {
  for (const pen of ["part", "hide", "box", "arrow"] as const) expect(drawnOn(PLAIN, pen, at(9, 9), at(10, 10), FRAMES, ALL_FRAMES)).toBeNull();
  expect(drawnOn(PLAIN, "text", at(9, 9), at(9, 9), FRAMES, ALL_FRAMES)?.marks?.[0]?.mark).toMatchObject({ kind: "text", x_px: 9, y_px: 9 });
});

test("frames are counted from 1 in words", () => {
  expect([ALL_FRAMES, { first: 4, last: null }, { first: 2, last: 2 }, { first: 2, last: 11 }].map(spanWords)).toEqual(["all frames", "from frame 5", "frame 3", "frames 3 to 12"]);
});

test("where a mark lies is told by the numbers that it has", () => {
  const { marks } = drawnOn(PLAIN, "arrow", at(1, 2), at(30, 40), FRAMES, ALL_FRAMES) ?? {};
  expect(marks?.flatMap(({ mark }) => placeOf(mark).map(([, words, value]) => `${words} ${value}`))).toEqual(["from x 1", "y 2", "to x 30", "y 40"]);
});
