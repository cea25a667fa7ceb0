import { expect, test } from "vitest";

import { proofShape } from "./proofShape";

test("on a narrow screen all of the width is for pictures, and rows are taller by the words above", () => {
  const wide = proofShape(150, false);
  const narrow = proofShape(150, true);
  expect(wide.labelPx).toBeGreaterThan(0);
  expect(narrow.labelPx).toBe(0);
  expect(narrow.heightPx).toBe(wide.heightPx);
  expect(narrow.rowPx).toBeGreaterThan(wide.rowPx);
  expect(wide.rowPx).toBeGreaterThan(wide.heightPx);
});
