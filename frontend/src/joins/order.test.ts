import { describe, expect, it } from "vitest";

import { shifted } from "./order";

describe("shifted", () => {
  it("moves one up or down and leaves the list as it was", () => {
    const rows = [1, 2, 3];
    expect(shifted(rows, 2, -1)).toEqual([1, 3, 2]);
    expect(shifted(rows, 0, 1)).toEqual([2, 1, 3]);
    expect(rows).toEqual([1, 2, 3]);
  });
});
