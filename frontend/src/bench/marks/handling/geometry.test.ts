import { expect, test } from "vitest";

import type { Mark } from "../../../api/types";
import { badgeLabels, boxBetween, captionLines, movedBy, movedMark, pointsOf } from "./geometry";

const BOX = { x_px: 100, y_px: 200, width_px: 300, height_px: 120 };
const ENDS = { from_x_px: 100, from_y_px: 200, to_x_px: 400, to_y_px: 320 };
const MARKS: Mark[] = [
  { kind: "arrow", id: "a", ...ENDS, bend_px: 30 },
  { kind: "line", id: "l", ...ENDS },
  { kind: "box", id: "b", ...BOX },
  { kind: "ellipse", id: "e", ...BOX },
  { kind: "dim", id: "d", ...BOX },
  { kind: "sticker", id: "s", ...BOX, sign: "ship" },
  { kind: "pen", id: "p", points: [[1, 2], [30, 40]] },
  { kind: "highlighter", id: "h", points: [[5, 6]] },
  { kind: "text", id: "t", x_px: 10, y_px: 20, text: "Pier", spot_x_px: 90, spot_y_px: 95 },
  { kind: "badge", id: "n", x_px: 10, y_px: 20 },
];

test.each(MARKS)("a moved $kind has all of its points moved, and is known as moved", (mark) => {
  const moved = movedMark(mark, 7, -3.5);
  expect(pointsOf(moved)).toEqual(pointsOf(mark).map(({ x_px, y_px }) => ({ x_px: x_px + 7, y_px: y_px - 3.5 })));
  expect(movedBy(mark, moved)).toEqual({ x_px: 7, y_px: -3.5 });
  expect(movedBy(mark, { ...moved, opacity: 0.5 })).toBeNull();
});

test("a box between two points has a px at least", () => {
  expect(boxBetween({ x_px: 9, y_px: 9 }, { x_px: 9, y_px: 4 })).toEqual({ x_px: 9, y_px: 4, width_px: 1, height_px: 5 });
});

test("numbers count by sequence in the order of the marks, letters go on after Z", () => {
  const badge = (sequence: number, letters = false): Mark => ({ kind: "badge", id: "", x_px: 0, y_px: 0, sequence, letters });
  expect([...badgeLabels([badge(1), badge(2), MARKS[0] as Mark, badge(1), badge(2)]).entries()]).toEqual([[0, "1"], [1, "1"], [3, "2"], [4, "2"]]);
  const many = badgeLabels(Array.from({ length: 28 }, () => badge(1, true)));
  expect([many.get(0), many.get(25), many.get(26), many.get(27)]).toEqual(["A", "Z", "AA", "AB"]);
});

test("captions are lines with the number that is in the picture; numbers without one count all the same", () => {
  const badge = (caption: string): Mark => ({ kind: "badge", id: "", x_px: 0, y_px: 0, caption });
  expect(captionLines([badge("Pick a day"), badge(""), MARKS[0] as Mark, badge("Pay")])).toEqual(["1. Pick a day", "3. Pay"]);
  expect(captionLines(MARKS)).toEqual([]);
});
