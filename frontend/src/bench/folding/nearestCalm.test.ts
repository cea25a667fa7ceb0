import { expect, test } from "vitest";

import { nearestCalm } from "./nearestCalm";

const STRETCHES = [
  { top_px: 10, height_px: 20 },
  { top_px: 50, height_px: 5 },
];

test.each([
  [20, 20],
  [7, 10],
  [2, 2],
  [33, 30],
  [47, 50],
  [58, 55],
  [90, 90],
])("a line at %i comes to %i", (at, calm) => {
  expect(nearestCalm(at, STRETCHES, 6)).toBe(calm);
});
