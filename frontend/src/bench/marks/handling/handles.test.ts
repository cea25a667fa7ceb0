import { expect, test } from "vitest";

import type { Mark } from "../../../api/types";
import type { Point } from "../../page/geometry/boxes";
import { pointsOf } from "./geometry";
import { handlesOf, reshaped, turnedAbout } from "./handles";

const BOX = { x_px: 100, y_px: 200, width_px: 300, height_px: 120 };
const ENDS = { from_x_px: 100, from_y_px: 200, to_x_px: 400, to_y_px: 320 };
const HELD = { left_px: 10, top_px: 20, right_px: 110, bottom_px: 60 };
const MARKS: Mark[] = [
  { kind: "arrow", id: "a", ...ENDS, bend_px: 30 },
  { kind: "line", id: "l", ...ENDS },
  { kind: "box", id: "b", ...BOX },
  { kind: "ellipse", id: "e", ...BOX, angle_deg: 40 },
  { kind: "dim", id: "d", ...BOX, angle_deg: -75 },
  { kind: "sticker", id: "s", ...BOX, sign: "ship" },
  { kind: "pen", id: "p", points: [[1, 2], [30, 40], [10, 90]] },
  { kind: "highlighter", id: "h", points: [[5, 6], [60, 6]] },
  { kind: "text", id: "t", x_px: 10, y_px: 20, text: "Pier", spot_x_px: 90, spot_y_px: 95, angle_deg: 20, width_px: 78.4 },
  { kind: "badge", id: "n", x_px: 10, y_px: 20 },
];
const at = (x_px: number, y_px: number): Point => ({ x_px, y_px });

test.each(MARKS)("a handle of a $kind that is put where it is changes nothing", (mark) => {
  const handles = handlesOf(mark, HELD, 2);
  expect(handles.length).toBeGreaterThan(0);
  for (const handle of handles) {
    const again = reshaped(mark, handle.name, handle.at, HELD);
    for (const [index, point] of pointsOf(again).entries()) {
      expect(Math.abs(point.x_px - (pointsOf(mark)[index]?.x_px ?? NaN))).toBeLessThanOrEqual(0.51);
      expect(Math.abs(point.y_px - (pointsOf(mark)[index]?.y_px ?? NaN))).toBeLessThanOrEqual(0.51);
    }
    if ("angle_deg" in mark) expect(again).toMatchObject({ angle_deg: mark.angle_deg });
  }
});

test("a corner that is dragged past the opposite one turns the box around", () => {
  const turned = reshaped({ kind: "box", id: "b", ...BOX }, "nw", at(500, 400));
  expect(turned).toMatchObject({ x_px: 400, y_px: 320, width_px: 100, height_px: 80 });
});

test.each([0, 30, 90, -135])("of a box turned by %d°, the dragged corner goes along and the opposite one stays", (angle_deg) => {
  const box: Mark = { kind: "box", id: "b", ...BOX, angle_deg };
  const opposite = handlesOf(box, null, 1).find((row) => row.name === "nw")?.at ?? at(0, 0);
  const corners = handlesOf(reshaped(box, "se", at(555, 444)), null, 1).filter((row) => row.name !== "turn");
  // A corner that passes the opposite one takes the box to its other side; the points are the same.
  const off = (point: Point) => Math.min(...corners.map((row) => Math.hypot(row.at.x_px - point.x_px, row.at.y_px - point.y_px)));
  expect(off(opposite)).toBeLessThan(0.2);
  expect(off(at(555, 444))).toBeLessThan(0.2);
});

test("with Shift a corner keeps the proportions", () => {
  const grown = reshaped({ kind: "sticker", id: "s", ...BOX, sign: "ship" }, "se", at(700, 260), null, true);
  expect(grown).toMatchObject({ x_px: 100, y_px: 200, width_px: 600, height_px: 240 });
});

test("the handle above turns: freely, upright when near it, in steps with Shift", () => {
  const box: Mark = { kind: "box", id: "b", ...BOX };
  const middle = at(250, 260);
  const towards = (degrees: number) => turnedAbout(at(250, 100), middle, degrees);
  expect(reshaped(box, "turn", towards(37.4))).toMatchObject({ angle_deg: 37 });
  expect(reshaped(box, "turn", towards(88.7))).toMatchObject({ angle_deg: 90 });
  expect(reshaped(box, "turn", towards(-37.4), null, true)).toMatchObject({ angle_deg: -30 });
});

test("what is drawn by hand is sized and turned point by point", () => {
  const pen: Mark = { kind: "pen", id: "p", points: [[0, 0], [100, 50]] };
  expect(reshaped(pen, "se", at(200, 100))).toMatchObject({ points: [[0, 0], [200, 100]] });
  expect(reshaped(pen, "turn", at(150, 25))).toMatchObject({ points: [[75, -25], [25, 75]] });
});

test("text grows by its corner, within what letters may be, and is wrapped by its side", () => {
  const text: Mark = { kind: "text", id: "t", x_px: 10, y_px: 20, text: "Pier", size_px: 20 };
  expect(reshaped(text, "size", at(210, 60), HELD)).toMatchObject({ size_px: 40 });
  expect(reshaped(text, "size", at(-500, -500), HELD)).toMatchObject({ size_px: 4 });
  expect(reshaped(text, "wrap", at(90, 40), HELD)).toMatchObject({ width_px: 62 });
});

test("an end that is dragged with Shift keeps to steps of 15°", () => {
  const line: Mark = { kind: "line", id: "l", from_x_px: 0, from_y_px: 0, to_x_px: 100, to_y_px: 0 };
  expect(reshaped(line, "to", at(100, 6), null, true)).toMatchObject({ to_x_px: 100.2, to_y_px: 0 });
});

test("a line is bent by its middle, and is straight again near the line", () => {
  const line: Mark = { kind: "line", id: "l", from_x_px: 0, from_y_px: 0, to_x_px: 100, to_y_px: 0 };
  expect(reshaped(line, "bend", at(50, 40))).toMatchObject({ bend_px: 40 });
  expect(reshaped(line, "bend", at(50, -40))).toMatchObject({ bend_px: -40 });
  expect(reshaped(line, "bend", at(50, 2))).toMatchObject({ bend_px: 0 });
});
