import { expect, test } from "vitest";

import { pageTransform } from "./pageTransform";

test.each([0.1, 0.37, 1, 2, 16])("a point of the page is found again from where it is shown, at zoom %f", (zoom) => {
  const { toPage, toScreen } = pageTransform({ left: 128.5, top: -31_000 }, zoom);
  for (const point of [{ x_px: 0, y_px: 0 }, { x_px: 1_279, y_px: 39_999 }]) {
    const { x_px, y_px } = toPage(toScreen(point));
    expect(x_px).toBeCloseTo(point.x_px, 6);
    expect(y_px).toBeCloseTo(point.y_px, 6);
  }
  expect(toPage({ x: 128.5 + 10 * zoom, y: -31_000 })).toEqual({ x_px: expect.closeTo(10, 6) as number, y_px: 0 });
});
