import { expect, test } from "vitest";

import { apart, boundsOf, type Corner, cornerAt, crossesItself, isPossible, loopOf, pathOf, sideAt, simplified } from "./outlines";

const SQUARE: Corner[] = [[10, 10], [110, 10], [110, 110], [10, 110]];
const at = (x_px: number, y_px: number) => ({ x_px, y_px });

test("a line drawn by hand keeps the points that matter", () => {
  const drawn = Array.from({ length: 101 }, (_, step) => (step <= 50 ? at(step * 2, (step % 2) * 0.4) : at(100, (step - 50) * 2)));
  expect(simplified(drawn, 1)).toEqual([at(0, 0), at(100, 0), at(100, 100)]);
  expect(simplified([at(0, 0)], 1)).toEqual([at(0, 0)]);
});

test("what was drawn beyond the beginning of a loop is left out", () => {
  const circle = Array.from({ length: 41 }, (_, step) => at(100 + 50 * Math.cos((step * Math.PI) / 20), 100 + 50 * Math.sin((step * Math.PI) / 20)));
  const drawn = [at(150, 70), ...circle, at(140, 130)];
  expect(crossesItself(drawn.map(({ x_px, y_px }) => [x_px, y_px]))).toBe(true);
  const loop = apart(loopOf(drawn).map(({ x_px, y_px }) => [x_px, y_px]));
  expect(isPossible(loop)).toBe(true);
  expect(loop.length).toBeGreaterThan(36);
  expect(isPossible(apart(loopOf(circle).map(({ x_px, y_px }) => [x_px, y_px])))).toBe(true);
  const open = circle.slice(0, 30);
  expect(loopOf(open)).toEqual(open);
});

test.each<[string, Corner[], boolean]>([
  ["a square", SQUARE, true],
  ["a bow", [[0, 0], [10, 10], [10, 0], [0, 10]], false],
  ["a corner on a side", [[0, 0], [10, 0], [10, 10], [5, 0], [0, 10]], false],
  ["a line there and back", [[0, 0], [10, 0], [5, 0]], false],
  ["two points", [[0, 0], [10, 10]], false],
  ["a star of one piece", [[50, 0], [60, 40], [100, 50], [60, 60], [50, 100], [40, 60], [0, 50], [40, 40]], true],
])("%s: whether it can be kept", (_, corners, possible) => {
  expect(isPossible(corners)).toBe(possible);
});

test("an outline is possible wherever it begins, and in either direction", () => {
  for (let first = 0; first < 4; first += 1) {
    const turned = [...SQUARE.slice(first), ...SQUARE.slice(0, first)];
    expect([crossesItself(turned), crossesItself(turned.toReversed())]).toEqual([false, false]);
  }
});

test("what surrounds it lies on the page", () => {
  const page = { width_px: 100, height_px: 400 };
  expect(boundsOf(SQUARE, page)).toEqual({ x_px: 10, y_px: 10, width_px: 90, height_px: 100 });
  expect(boundsOf([[200, 10], [300, 10], [250, 50]], page)).toBeNull();
});

test("corners and sides are found near a point", () => {
  expect(cornerAt(at(112, 9), SQUARE, 5)).toBe(1);
  expect(cornerAt(at(60, 12), SQUARE, 5)).toBeNull();
  expect(sideAt(at(60, 12), SQUARE, 5)).toBe(0);
  expect(sideAt(at(12, 60), SQUARE, 5)).toBe(3);
  expect(sideAt(at(60, 60), SQUARE, 5)).toBeNull();
});

test("straight lines join the corners, smooth ones go through them", () => {
  expect(pathOf(SQUARE, false, 0.5)).toBe("M5 5L55 5L55 55L5 55L5 5Z");
  expect(pathOf(SQUARE, true, 1)).toMatch(/^M10 10C.* 110 10C.* 110 110C.* 10 110C.* 10 10Z$/);
});
