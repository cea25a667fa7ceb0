import { describe, expect, it } from "vitest";

import { copyName, moved } from "./order";

const ROWS = [{ id: 7 }, { id: 3 }, { id: 5 }];

describe("order", () => {
  it("moves one entry by one place, and not beyond the ends", () => {
    expect(moved(ROWS, 1, -1)).toEqual([3, 7, 5]);
    expect(moved(ROWS, 1, 1)).toEqual([7, 5, 3]);
    expect(moved(ROWS, 0, -1)).toEqual([7, 3, 5]);
    expect(moved(ROWS, 2, 1)).toEqual([7, 3, 5]);
  });

  it("names copies within the greatest length", () => {
    expect(copyName("Article")).toBe("Article copy");
    expect(copyName("x".repeat(80))).toHaveLength(80);
  });
});
