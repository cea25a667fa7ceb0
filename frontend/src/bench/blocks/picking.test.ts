import { beforeEach, expect, test } from "vitest";

import type { Block } from "../../api/types";
import { createCutStore } from "../cut/cutStore";
import { grown, pick, pickAround, pickInside, setMargin, union, usePicking } from "./picking";

const PAGE = { width_px: 1_000, height_px: 5_000 };
const block = (role: string, x_px: number, y_px: number, width_px: number, height_px: number) => ({ role, x_px, y_px, width_px, height_px, text: "", alt: "", level: 0, link: "" }) as Block;
const MAIN = block("main", 0, 100, 1_000, 4_000);
const ARTICLE = block("article", 100, 200, 800, 1_000);
const HEADING = block("heading", 120, 220, 300, 40);
const TABLE = block("table", 120, 700, 700, 400);
const BLOCKS = [MAIN, ARTICLE, HEADING, TABLE];

function open() {
  const store = createCutStore(PAGE, { version: 1, hidden: [], sought: [], marks: [], styles: {}, frame: { x_px: 0, y_px: 0, ...PAGE, folds: [] } });
  return { store, frame: () => store.getState().document.frame };
}

beforeEach(() => usePicking.setState({ margin_px: 0, picked: null }));

test("a block becomes the frame, and one that joins makes it the box around both", () => {
  const { store, frame } = open();
  pick(store, HEADING, true);
  expect(frame()).toMatchObject({ x_px: 120, y_px: 220, width_px: 300, height_px: 40 });
  pick(store, TABLE, true);
  expect(frame()).toMatchObject({ x_px: 120, y_px: 220, width_px: 700, height_px: 880 });
  pick(store, HEADING, false);
  expect(frame()).toMatchObject({ width_px: 300, height_px: 40 });
  expect(store.getState().past.map((step) => step.words)).toEqual(["block framed", "block joined", "block framed"]);
});

test("a margin goes around what was picked, and never adds to itself", () => {
  const { store, frame } = open();
  pick(store, TABLE, false);
  setMargin(store, 20);
  expect(frame()).toMatchObject({ x_px: 100, y_px: 680, width_px: 740, height_px: 440 });
  setMargin(store, 5);
  expect(frame()).toMatchObject({ x_px: 115, y_px: 695, width_px: 710, height_px: 410 });
  pick(store, HEADING, true);
  expect(frame()).toMatchObject({ x_px: 115, y_px: 215, width_px: 710, height_px: 890 });
});

test("a margin ends at the edges of the page", () => {
  expect(grown({ x_px: 5, y_px: 0, width_px: 990, height_px: 10 }, 20, PAGE)).toEqual({ x_px: 0, y_px: 0, width_px: 1_000, height_px: 30 });
});

test("the frame goes out to the block that holds it, and in again", () => {
  const { store, frame } = open();
  pick(store, HEADING, false);
  expect(pickAround(store, BLOCKS)).toBe(true);
  expect(frame()).toMatchObject({ x_px: 100, y_px: 200, width_px: 800 });
  pickAround(store, BLOCKS);
  expect(frame()).toMatchObject({ width_px: 1_000, height_px: 4_000 });
  expect(pickAround(store, BLOCKS)).toBe(false);
  pickInside(store, BLOCKS);
  pickInside(store, BLOCKS);
  expect(frame()).toMatchObject({ x_px: 120, y_px: 700, width_px: 700 });
  expect(pickInside(store, BLOCKS)).toBe(false);
});

test("the box around two boxes holds both and no more", () => {
  for (const first of BLOCKS)
    for (const second of BLOCKS) {
      const both = union(first, second);
      expect(union(both, first)).toEqual(both);
      expect(both.x_px).toBe(Math.min(first.x_px, second.x_px));
      expect(both.y_px + both.height_px).toBe(Math.max(first.y_px + first.height_px, second.y_px + second.height_px));
    }
});
