import { expect, test } from "vitest";

import type { DrawnMark, Mark } from "../../../api/types";
import { markAt, marksWithin, type ShownMark } from "./hitMarks";

const drawn = (left_px: number, top_px: number, right_px: number, bottom_px: number): DrawnMark => ({
  parts: [],
  opacity: 1,
  blend: "over",
  blur_px: 0,
  extent: { left_px, top_px, right_px, bottom_px },
  held: null,
  missing: [],
});
const shown = (mark: Mark, look = drawn(0, 0, 1, 1), by = { x_px: 0, y_px: 0 }): ShownMark => ({ mark, drawn: look, by });
const at = (x_px: number, y_px: number) => ({ x_px, y_px });

const ARROW = shown({ kind: "arrow", id: "arrow", from_x_px: 0, from_y_px: 0, to_x_px: 200, to_y_px: 0, thickness_px: 4 }, drawn(0, -5, 200, 5));
const BOX = shown({ kind: "box", id: "box", x_px: 100, y_px: 100, width_px: 100, height_px: 100, outline_px: 4 }, drawn(98, 98, 202, 202));
const FILLED = shown({ kind: "box", id: "filled", x_px: 120, y_px: 120, width_px: 20, height_px: 20, filling: "#FFFFFF" }, drawn(118, 118, 142, 142));
const TEXT = shown({ kind: "text", id: "text", x_px: 300, y_px: 300, text: "Pier" }, drawn(300, 300, 360, 330));
const ALL = [ARROW, BOX, FILLED, TEXT];

test("the uppermost mark is taken; an empty box only by its edge", () => {
  expect(markAt(at(100, 2), ALL, [], 1)).toEqual({ kind: "mark", id: "arrow" });
  expect(markAt(at(101, 150), ALL, [], 1)).toEqual({ kind: "mark", id: "box" });
  expect(markAt(at(170, 170), ALL, [], 1)).toBeNull();
  expect(markAt(at(130, 130), ALL, [], 1)).toEqual({ kind: "mark", id: "filled" });
  expect(markAt(at(310, 310), ALL, [], 1)).toEqual({ kind: "mark", id: "text" });
  expect(markAt(at(900, 900), ALL, [], 1)).toBeNull();
});

test("a bent arrow is taken along its bend and not along the straight line", () => {
  const bent = shown({ kind: "arrow", id: "bent", from_x_px: 0, from_y_px: 0, to_x_px: 200, to_y_px: 0, bend_px: 80, thickness_px: 4 }, drawn(0, 0, 200, 90));
  expect(markAt(at(100, 80), [bent], [], 1)).toEqual({ kind: "mark", id: "bent" });
  expect(markAt(at(100, 0), [bent], [], 1)).toBeNull();
});

test("handles come first for the one mark in hand, and not for a locked one", () => {
  expect(markAt(at(200, 3), ALL, ["arrow"], 1)).toEqual({ kind: "mark-handle", id: "arrow", handle: "to" });
  expect(markAt(at(200, 3), ALL, ["arrow", "box"], 1)).toEqual({ kind: "mark", id: "arrow" });
  const locked = shown({ ...ARROW.mark, locked: true }, drawn(0, -5, 200, 5));
  expect(markAt(at(200, 3), [locked], ["arrow"], 1)).toEqual({ kind: "mark", id: "arrow" });
});

test("the pointer's reach is in px of the screen, at any zoom", () => {
  expect(markAt(at(100, 30), ALL, [], 0.2)).toEqual({ kind: "mark", id: "arrow" });
  expect(markAt(at(100, 30), ALL, [], 1)).toBeNull();
});

test("a mark that was moved since it was drawn is taken where it is now", () => {
  const moved = shown({ ...TEXT.mark }, drawn(300, 300, 360, 330), at(500, 0));
  expect(markAt(at(810, 310), [moved], [], 1)).toEqual({ kind: "mark", id: "text" });
  expect(markAt(at(310, 310), [moved], [], 1)).toBeNull();
});

test("a box around several takes those that it touches", () => {
  expect(marksWithin({ x_px: 90, y_px: 90, width_px: 250, height_px: 250 }, ALL)).toEqual(["box", "filled", "text"]);
});

test("a turned box is taken where it is seen", () => {
  const turned = shown({ kind: "box", id: "turned", x_px: 0, y_px: 0, width_px: 200, height_px: 20, filling: "#FFFFFF", angle_deg: 90 }, drawn(88, -92, 112, 112));
  expect(markAt(at(100, 100), [turned], [], 1)).toEqual({ kind: "mark", id: "turned" });
  expect(markAt(at(20, 10), [turned], [], 1)).toBeNull();
});
