import { expect, test } from "vitest";

import type { Rules } from "../../api/types";
import { asTyped, atWidth, readSize } from "./sizing";

test("a typed size holds nothing but what its way needs", () => {
  const typed = { way: "width", width: "1,080 px", height: "7", percent: "9" } as const;
  expect(readSize(typed)).toEqual({ way: "width", width_px: 1_080, height_px: 0, percent: 0 });
  expect(readSize({ ...typed, way: "height" })).toEqual({ way: "height", width_px: 0, height_px: 7, percent: 0 });
  expect(readSize({ ...typed, way: "pad" })).toEqual({ way: "pad", width_px: 1_080, height_px: 7, percent: 0 });
  expect(readSize({ ...typed, way: "share", percent: "50 %" })).toEqual({ way: "share", width_px: 0, height_px: 0, percent: 50 });
});

test("a number that is missing is named", () => {
  const empty = asTyped();
  expect(readSize(empty)).toEqual({ problem: "The width is not a number of px. Type it like 720." });
  expect(readSize({ ...empty, way: "fill", width: "600" })).toEqual({ problem: "The height is not a number of px. Type it like 480." });
  expect(readSize({ ...empty, way: "share" })).toEqual({ problem: "The share is not a number. Type it like 50." });
});

test("what is typed is what was stored", () => {
  const stored = { way: "fill", width_px: 600, height_px: 400, percent: 0 } as const;
  expect(readSize(asTyped(stored))).toEqual(stored);
});

test("a smaller width keeps the shape of a box", () => {
  const made = { width_px: 600, height_px: 400 };
  const rules = (way: Rules["way"]) => ({ way, width_px: 600, height_px: 400, percent: 0 }) as Rules;
  expect(atWidth(rules("fill"), 300, made)).toEqual({ way: "fill", width_px: 300, height_px: 200, percent: 0 });
  expect(atWidth(rules("height"), 300, made)).toEqual({ way: "width", width_px: 300, height_px: 0, percent: 0 });
});
