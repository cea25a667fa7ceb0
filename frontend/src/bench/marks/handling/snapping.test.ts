import { expect, test } from "vitest";

import type { Extent } from "../../../api/types";
import { snapOf, spot } from "./snapping";

const box = (left_px: number, top_px: number, width_px: number, height_px: number): Extent => ({ left_px, top_px, right_px: left_px + width_px, bottom_px: top_px + height_px });
const BLOCK = box(100, 100, 400, 200);

test("an edge that is near a block's is drawn to it, and a guide runs along both", () => {
  const { by, guides } = snapOf(box(104, 320, 50, 50), { blocks: [BLOCK], marks: [] }, 1);
  expect(by).toEqual({ x_px: -4, y_px: 0 });
  expect(guides).toEqual([{ axis: "x", at_px: 100, from_px: 100, to_px: 370 }]);
});

test("what is far on the screen draws nothing: the reach is in its px, at any zoom", () => {
  const near = box(108, 320, 50, 50);
  expect(snapOf(near, { blocks: [BLOCK], marks: [] }, 1).by.x_px).toBe(0);
  expect(snapOf(near, { blocks: [BLOCK], marks: [] }, 0.5).by.x_px).toBe(-8);
  expect(snapOf(box(104, 9_000, 50, 50), { blocks: [BLOCK], marks: [] }, 1).by.x_px).toBe(0);
});

test("the nearest of several wins; both axes are met at once", () => {
  const { by } = snapOf(box(103, 298, 50, 40), { blocks: [BLOCK, box(105, 60, 20, 20)], marks: [] }, 1);
  expect(by).toEqual({ x_px: 2, y_px: 2 });
});

test("middles meet those of other marks, and not those of blocks", () => {
  const moving = box(283, 500, 40, 40);
  expect(snapOf(moving, { blocks: [BLOCK], marks: [] }, 1).by.x_px).toBe(0);
  const { by, guides } = snapOf(moving, { blocks: [], marks: [BLOCK] }, 1);
  expect(by.x_px).toBe(-3);
  expect(guides[0]).toMatchObject({ axis: "x", at_px: 300 });
});

test("between two marks the gaps become equal, and are measured", () => {
  const marks = [box(0, 0, 100, 50), box(300, 0, 100, 50)];
  const { by, guides } = snapOf(box(172, 5, 50, 40), { blocks: [], marks }, 1);
  expect(by.x_px).toBe(3);
  expect(guides.filter((guide) => guide.gap).map(({ from_px, to_px }) => [from_px, to_px])).toEqual([[100, 175], [225, 300]]);
});

test("beside two marks the gap becomes theirs", () => {
  const marks = [box(0, 0, 50, 50), box(80, 0, 50, 50)];
  expect(snapOf(box(157, 10, 50, 30), { blocks: [], marks }, 1).by.x_px).toBe(3);
  expect(snapOf(box(-77, 10, 50, 30), { blocks: [], marks }, 1).by.x_px).toBe(-3);
});

test("a point meets edges, and no middles or gaps", () => {
  const around = { blocks: [], marks: [box(0, 0, 100, 100), box(300, 0, 100, 100)] };
  expect(snapOf(spot({ x_px: 103, y_px: 52 }), around, 1).by).toEqual({ x_px: -3, y_px: 0 });
  expect(snapOf(spot({ x_px: 199, y_px: 52 }), around, 1).by.x_px).toBe(0);
});
