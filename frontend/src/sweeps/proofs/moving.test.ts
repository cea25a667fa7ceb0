import { describe, expect, it } from "vitest";

import { moved } from "./moving";

describe("moving among proofs", () => {
  it("goes along and down, and on with the next row", () => {
    const from = { row: 1, column: 1 };
    expect(moved(from, "ArrowRight", 3, 2)).toEqual({ row: 2, column: 0 });
    expect(moved(from, "ArrowLeft", 3, 2)).toEqual({ row: 1, column: 0 });
    expect(moved(from, "ArrowUp", 3, 2)).toEqual({ row: 0, column: 1 });
    expect(moved(from, "ArrowDown", 3, 2)).toEqual({ row: 2, column: 1 });
  });

  it("stays at both ends, with other keys, and where there is nothing", () => {
    expect(moved({ row: 0, column: 0 }, "ArrowLeft", 3, 2)).toEqual({ row: 0, column: 0 });
    expect(moved({ row: 2, column: 1 }, "ArrowDown", 3, 2)).toEqual({ row: 2, column: 1 });
    expect(moved({ row: 1, column: 0 }, "Enter", 3, 2)).toEqual({ row: 1, column: 0 });
    expect(moved({ row: 0, column: 0 }, "ArrowDown", 0, 2)).toEqual({ row: 0, column: 0 });
  });
});
