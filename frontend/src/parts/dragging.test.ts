import { expect, test } from "vitest";

import { scrollStep } from "./dragging";

const VIEW = { top: 100, bottom: 700 };

test("a drag scrolls near the edges of the view, towards what lies beyond, and not elsewhere", () => {
  expect([110, 300, 400, 690].map((y) => scrollStep(y, 350, VIEW))).toEqual([-18, 0, 0, 18]);
  expect(scrollStep(50, 350, VIEW)).toBe(-18); // beyond the edge as well
});

test("a handle that lies at the edge to start with does not scroll before it is moved", () => {
  expect(scrollStep(110, 108, VIEW)).toBe(0);
  expect(scrollStep(110, 120, VIEW)).toBe(-18);
});
