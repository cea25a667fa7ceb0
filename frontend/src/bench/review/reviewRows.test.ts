import { expect, test } from "vitest";

import type { ReviewRow } from "../../api/types";
import { nameOf, nextRow, pieceAround, stateWords, waiting } from "./reviewRows";

const BOX = { x_px: 10, y_px: 500, width_px: 100, height_px: 40 };
const row = (id: string, more: Partial<ReviewRow> = {}): ReviewRow => ({ part: "mark", id, state: "moved", doubt: false, before: BOX, now: BOX, kept: null, ...more });

test("what needs a look comes first, going round", () => {
  const rows = [row("a", { doubt: true }), row("b"), row("c", { doubt: true }), row("d")];
  expect(nextRow(rows, 0)).toBe(2);
  expect(nextRow(rows, 2)).toBe(0);
  expect(waiting(rows)).toBe(2);
});

test("with nothing in doubt the next row is the next one", () => {
  expect(nextRow([row("a"), row("b")], 0)).toBe(1);
  expect(nextRow([row("a"), row("b")], 1)).toBe(0);
  expect(nextRow([], 0)).toBe(0);
});

test("a part that is kept aside is known by what was kept", () => {
  const kept = { kind: "badge", id: "a", x_px: 1, y_px: 1 };
  expect(nameOf(row("a", { state: "lost", kept }), [])).toBe("Number");
  expect(stateWords(row("a", { state: "lost", doubt: true, kept }))).toContain("kept aside");
  expect(stateWords(row("a", { doubt: true }))).toContain("could also belong elsewhere");
});

test("a piece has room around it and stays on the page", () => {
  const page = { width_px: 1_280, height_px: 5_000 };
  expect(pieceAround(BOX, page)).toEqual({ x_px: 0, y_px: 445, width_px: 320, height_px: 150 });
  const all = pieceAround({ x_px: 0, y_px: 0, ...page }, page);
  expect(all.width_px).toBe(900);
  expect(all.y_px + all.height_px).toBeLessThanOrEqual(page.height_px);
  expect(pieceAround(BOX, { width_px: 200, height_px: 90 })).toEqual({ x_px: 0, y_px: 0, width_px: 200, height_px: 90 });
});
