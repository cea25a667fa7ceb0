import { describe, expect, it } from "vitest";

import { middleOf, scrolledTo } from "./views";

const VIEW = { width: 400, height: 300 };

describe("the middle of the view", () => {
  it.each([
    [{ width: 800, height: 9_000 }, { width: 1_600, height: 18_000 }],
    [{ width: 720, height: 4_000 }, { width: 600, height: 3_333 }],
  ])("stays in the middle in another size", (before, after) => {
    const point = middleOf({ left: 120, top: 2_000, ...VIEW }, before);
    const scrolled = scrolledTo(point, after, VIEW);
    expect(middleOf({ ...scrolled, ...VIEW }, after).y).toBeCloseTo(point.y, 3);
  });

  it("is never before the picture's beginning", () => {
    expect(scrolledTo({ x: 0, y: 0 }, { width: 800, height: 9_000 }, VIEW)).toEqual({ left: 0, top: 0 });
  });
});
