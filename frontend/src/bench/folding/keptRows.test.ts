import { expect, test } from "vitest";

import type { Block } from "../../api/types";
import { foldsAfterRows, rowsOf } from "./keptRows";

const FRAME = { x_px: 0, y_px: 0, width_px: 800, height_px: 3_000 };
const block = (role: string, y_px: number, height_px: number, x_px = 0, width_px = 600): Block => ({ role, level: null, x_px, y_px, width_px, height_px, text: "", link: "", alt: "" });
const cells = (top_px: number, rows: number) =>
  Array.from({ length: rows }, (_, row) => [block("text", top_px + row * 40, 40, 0, 300), block("text", top_px + row * 40, 38, 300, 300)]).flat();
const table = (top_px: number, rows: number) => [block("table", top_px, rows * 40), ...cells(top_px, rows)];

test("cells beside each other are one row", () => {
  const blocks = table(100, 9);
  expect(rowsOf(blocks[0] as Block, blocks)).toHaveLength(9);
});

test("of a long table the first rows are left", () => {
  expect(foldsAfterRows(table(100, 20), FRAME, 6)).toEqual([{ top_px: 340, height_px: 560 }]);
});

test("a table that is hardly longer is left alone, and so is one beside the frame", () => {
  expect(foldsAfterRows(table(100, 7), FRAME, 6)).toEqual([]);
  expect(foldsAfterRows(table(100, 20), { ...FRAME, y_px: 2_000, height_px: 100 }, 6)).toEqual([]);
});

test("what is stacked in an item of a list is one row of it, and borders may be shared", () => {
  const cards = Array.from({ length: 9 }, (_, row) => [block("item", 100 + row * 197, 200), block("image", 110 + row * 197, 90), block("heading", 210 + row * 197, 30)]).flat();
  const list = block("list", 100, 9 * 197 + 3);
  expect(rowsOf(list, [list, ...cards])).toHaveLength(9);
});

test("a wrapper around all rows is none, and a menu is no list to be folded", () => {
  const wrapped = [block("list", 100, 400), block("section", 102, 396), ...cells(105, 9)];
  expect(rowsOf(wrapped[0] as Block, wrapped)).toHaveLength(9);
  expect(foldsAfterRows([block("navigation", 90, 900), ...table(100, 20)], FRAME, 6)).toEqual([]);
});
