import { expect, test } from "vitest";

import { movedTo } from "./movedTo";

test("a row comes to its new place, and the others keep their order", () => {
  expect(movedTo([1, 2, 3, 4], 0, 2)).toEqual([2, 3, 1, 4]);
  expect(movedTo([1, 2, 3, 4], 3, 0)).toEqual([4, 1, 2, 3]);
  expect(movedTo([1, 2], 5, 0)).toEqual([1, 2]);
});
