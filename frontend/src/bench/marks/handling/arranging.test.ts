import { expect, test } from "vitest";

import { aligned, spread } from "./arranging";

const box = (left_px: number, top_px: number, width_px: number, height_px: number) => ({ left_px, top_px, right_px: left_px + width_px, bottom_px: top_px + height_px });
const THREE = [box(0, 0, 100, 20), box(500, 40, 50, 30), box(120, 10, 10, 80)];

test("edges come to the outermost one, middles to the middle of all", () => {
  expect(aligned(THREE, "left").map((by) => by.x_px)).toEqual([0, -500, -120]);
  expect(aligned(THREE, "right").map((by) => by.x_px)).toEqual([450, 0, 420]);
  expect(aligned(THREE, "top").map((by) => by.y_px)).toEqual([0, -40, -10]);
  expect(aligned(THREE, "bottom").map((by) => by.y_px)).toEqual([70, 20, 0]);
  expect(aligned(THREE, "centre").map((by, index) => ((THREE[index]?.left_px ?? 0) + (THREE[index]?.right_px ?? 0)) / 2 + by.x_px)).toEqual([275, 275, 275]);
  expect(aligned(THREE, "middle").every((by) => by.x_px === 0)).toBe(true);
});

test("spread, neighbours have equal gaps and the outermost two stay", () => {
  const moves = spread(THREE, "x");
  const after = THREE.map((row, index) => ({ left: row.left_px + (moves[index]?.x_px ?? 0), right: row.right_px + (moves[index]?.x_px ?? 0) }));
  expect(moves.map((by) => by.x_px)).toEqual([0, 0, 175]);
  expect((after[2]?.left ?? 0) - (after[0]?.right ?? 0)).toBe((after[1]?.left ?? 0) - (after[2]?.right ?? 0));
  expect(spread(THREE.slice(0, 2), "x").every((by) => by.x_px === 0)).toBe(true);
});
