import { expect, test } from "vitest";

import { atMost } from "./hideSteps";

const BOXES = Array.from({ length: 10 }, (_, number) => ({ x_px: number * 10, y_px: 100 - number, width_px: 8, height_px: 6 }));

test("as many areas as a cut can hide; the last covers all that are left", () => {
  expect(atMost(BOXES, 10)).toEqual(BOXES);
  expect(atMost(BOXES, 200)).toEqual(BOXES);
  const four = atMost(BOXES, 4);
  expect(four.slice(0, 3)).toEqual(BOXES.slice(0, 3));
  expect(four[3]).toEqual({ x_px: 30, y_px: 91, width_px: 68, height_px: 12 });
  expect(atMost(BOXES, 0)).toHaveLength(1);
});
