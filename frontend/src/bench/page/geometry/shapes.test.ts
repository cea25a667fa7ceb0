import { expect, test } from "vitest";

import { type Corner, CORNER_WORDS, fromCorner, placeFrom, withRatio } from "./shapes";

const PAGE = { width_px: 1_000, height_px: 5_000 };
const AREA = { x_px: 100, y_px: 200, width_px: 600, height_px: 300 };
const HANDLES = ([-1, 0, 1] as const).flatMap((x) => ([-1, 0, 1] as const).map((y) => ({ x, y }))).filter(({ x, y }) => x !== 0 || y !== 0);
const NOTHING = { width_px: 0, height_px: 0 };
const RATIOS = [
  { width: 1, height: 1 },
  { width: 16, height: 9 },
  { width: 1_200, height: 630 },
  { width: 1, height: 40 },
];

test("a box of a ratio has it to the px, lies on the page, and keeps what is opposite its handle", () => {
  for (const ratio of RATIOS)
    for (const handle of HANDLES)
      for (const folded of [NOTHING, { width_px: 0, height_px: 120 }, { width_px: 70, height_px: 120 }]) {
        const box = withRatio(AREA, ratio, handle, PAGE, folded);
        expect(Math.abs(box.width_px - folded.width_px - ((box.height_px - folded.height_px) * ratio.width) / ratio.height)).toBeLessThanOrEqual(Math.max(1, ratio.width / ratio.height));
        expect(Math.min(box.x_px, box.y_px)).toBeGreaterThanOrEqual(0);
        expect(box.x_px + box.width_px).toBeLessThanOrEqual(PAGE.width_px);
        expect(box.y_px + box.height_px).toBeLessThanOrEqual(PAGE.height_px);
        if (handle.x < 0) expect(box.x_px + box.width_px).toBe(AREA.x_px + AREA.width_px);
        else expect(box.x_px).toBe(AREA.x_px);
        if (handle.y < 0) expect(box.y_px + box.height_px).toBe(AREA.y_px + AREA.height_px);
        else expect(box.y_px).toBe(AREA.y_px);
      }
});

test("an edge decides by its own side, a corner by the larger one", () => {
  const square = { width: 1, height: 1 };
  expect(withRatio(AREA, square, { x: 1, y: 0 }, PAGE)).toMatchObject({ width_px: 600, height_px: 600 });
  expect(withRatio(AREA, square, { x: 0, y: 1 }, PAGE)).toMatchObject({ width_px: 300, height_px: 300 });
  expect(withRatio(AREA, square, { x: 1, y: 1 }, PAGE)).toMatchObject({ width_px: 600, height_px: 600 });
  expect(withRatio(AREA, { width: 4, height: 1 }, { x: 1, y: 1 }, PAGE)).toMatchObject({ width_px: 900, height_px: 225 });
});

test("numbers from any corner lead back to the same place", () => {
  for (const corner of Object.keys(CORNER_WORDS) as Corner[]) {
    const from = fromCorner(AREA, corner, PAGE);
    expect(placeFrom("x_px", from.x_px, AREA, corner, PAGE)).toBe(AREA.x_px);
    expect(placeFrom("y_px", from.y_px, AREA, corner, PAGE)).toBe(AREA.y_px);
  }
  expect(fromCorner(AREA, "bottom-right", PAGE)).toEqual({ x_px: 300, y_px: 4_500 });
  expect(fromCorner(AREA, "centre", PAGE)).toEqual({ x_px: -100, y_px: -2_150 });
});
