import { expect, test } from "vitest";

import { outputSize } from "./outputSize";

const FRAME = { width_px: 1_280, height_px: 2_000 };
const RULES = { way: "width", width_px: 720, height_px: 0, percent: 0, enlarge: false } as const;

test("a frame comes to the size that its rules ask for", () => {
  expect(outputSize(FRAME, RULES)).toMatchObject({ width_px: 720, height_px: 1_125, enlarged: false });
  expect(outputSize(FRAME, { ...RULES, way: "height", height_px: 500 })).toMatchObject({ width_px: 320, height_px: 500 });
  expect(outputSize(FRAME, { ...RULES, way: "share", percent: 150 })).toMatchObject({ width_px: 1_920, enlarged: true });
  expect(outputSize(FRAME, { ...RULES, way: "fill", width_px: 1_200, height_px: 630 })).toMatchObject({ width_px: 1_200, height_px: 630, scale: 0.9375 });
  expect(outputSize(FRAME, { ...RULES, way: "pad", width_px: 1_200, height_px: 630 })).toMatchObject({ width_px: 1_200, height_px: 630, scale: 0.315 });
});

test("what is too small stays small, or is enlarged where that is wanted", () => {
  const small = { width_px: 400, height_px: 300 };
  expect(outputSize(small, RULES)).toMatchObject({ width_px: 400, height_px: 300, keptSmall: true, enlarged: false });
  expect(outputSize(small, { ...RULES, enlarge: true })).toMatchObject({ width_px: 720, height_px: 540, enlarged: true });
  expect(outputSize(small, { ...RULES, way: "fill", width_px: 800, height_px: 800 })).toMatchObject({ width_px: 300, height_px: 300, keptSmall: true });
});
