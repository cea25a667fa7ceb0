import { expect, test } from "vitest";

import type { Output } from "../../../api/types";
import { expectedBytes } from "./expectedBytes";

const frame = (top_px: number, height_px: number, width_px = 600, folds: { top_px: number; height_px: number }[] = []) => ({ x_px: 0, y_px: top_px, width_px, height_px, folds });
const weights = [
  { top_px: 0, height_px: 100, bytes: 4_000 },
  { top_px: 100, height_px: 100, bytes: 1_000 },
];
const output = (way: "width" | "share") => ({ weights, way, width_px: 300, height_px: 0, percent: 50, enlarge: false }) as unknown as Output;
const made = (way: "width" | "share" = "share") => ({ frame: frame(0, 200), output: output(way) });

test.each([
  ["the same frame", frame(0, 200), 5_000],
  ["its upper half", frame(0, 100), 4_000],
  ["its lower half", frame(100, 100), 1_000],
  ["a fold over its upper half", frame(0, 200, 600, [{ top_px: 0, height_px: 100 }]), 1_000],
  ["rows beyond it cost what its rows cost on average", frame(100, 200), 3_500],
  ["half of its width", frame(0, 200, 300), 2_500],
])("%s", (_, now, bytes) => {
  expect(expectedBytes(now, made())).toBe(bytes);
});

test("at a fixed width, a narrower frame is shown larger", () => {
  expect(expectedBytes(frame(0, 200, 300), made("width"))).toBe(10_000);
});

test("of a file without weights nothing is expected", () => {
  expect(expectedBytes(frame(0, 200), { frame: frame(0, 200), output: { ...output("width"), weights: [] } })).toBeNull();
});
