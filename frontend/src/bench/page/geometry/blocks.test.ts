import { expect, test } from "vitest";

import type { Block } from "../../../api/types";
import { blockAt, blockWords } from "./blocks";

function block(role: string, x_px: number, y_px: number, width_px: number, height_px: number, text = ""): Block {
  return { role, level: null, x_px, y_px, width_px, height_px, text, link: "", alt: "" };
}

const PAGE = [
  block("section", 0, 0, 1_280, 30_000),
  block("table", 100, 200, 800, 600),
  block("text", 100, 200, 800, 600, "same box, further in"),
  block("image", 120, 220, 10, 10),
];

const WHOLE = { x_px: 0, y_px: 0, width_px: 1_280, height_px: 30_400 };

test("the innermost block under the pointer is found", () => {
  expect(blockAt(PAGE, { x_px: 500, y_px: 29_000 }, WHOLE)?.role).toBe("section");
  expect(blockAt(PAGE, { x_px: 500, y_px: 500 }, WHOLE)?.role).toBe("text");
});

test("clicking a framed block again goes outwards, and elsewhere begins anew", () => {
  const [section, table] = PAGE as [Block, Block];
  expect(blockAt(PAGE, { x_px: 500, y_px: 500 }, table)?.role).toBe("section");
  expect(blockAt(PAGE, { x_px: 500, y_px: 500 }, section)).toBeNull();
  expect(blockAt(PAGE, { x_px: 500, y_px: 9_000 }, table)?.role).toBe("section");
});

test("what is too small to be framed is passed over, and beside everything there is nothing", () => {
  expect(blockAt(PAGE, { x_px: 125, y_px: 225 }, WHOLE)?.role).toBe("text");
  expect(blockAt(PAGE, { x_px: 1_280, y_px: 10 }, WHOLE)).toBeNull();
  expect(blockAt([], { x_px: 1, y_px: 1 }, WHOLE)).toBeNull();
});

test("a block says what it is and how it begins", () => {
  expect(blockWords(block("image", 0, 0, 50, 50))).toBe("image");
  expect(blockWords(block("heading", 0, 0, 50, 50, "x".repeat(60)))).toBe(`heading: ${"x".repeat(47)}…`);
});
