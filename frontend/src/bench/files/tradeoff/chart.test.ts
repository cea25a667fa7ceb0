import { expect, test } from "vitest";

import type { Tradeoff } from "../../../api/types";
import { chartScale } from "./chart";

const point = (bytes: number, fidelity: number) => ({ bytes, fidelity, choice: { format: "jpeg" as const, subsampled: false, softened: false, sharpened: false, deblocked: false, patient: false } });
const TRADEOFFS: Tradeoff[] = [{ recipe: "JPEG", points: [point(1_000, 20), point(8_000, 80)] }];

test("everything lies on the chart, heavier to the right and better above", () => {
  for (const limit of [100, 4_000, 90_000]) {
    const { x, y } = chartScale(TRADEOFFS, limit, 300, 120);
    const places = [1_000, 8_000, limit].map(x);
    for (const place of places) expect(place).toBeGreaterThan(0);
    for (const place of places) expect(place).toBeLessThan(300);
    expect(x(1_000)).toBeLessThan(x(8_000));
    expect(y(80)).toBeLessThan(y(20));
  }
});

test("equal ratios are equally far apart", () => {
  const { x } = chartScale(TRADEOFFS, 2_000, 300, 120);
  expect(x(2_000) - x(1_000)).toBeCloseTo(x(8_000) - x(4_000));
});

test("the chart begins at the tens below the worst, and what is worse still stays on it", () => {
  const { y, floor } = chartScale(TRADEOFFS, 2_000, 300, 120);
  expect(floor).toBe(10);
  expect(y(-30)).toBe(120);
  expect(y(100)).toBe(0);
});
