import { expect, test } from "vitest";

import type { CutDocument, Orientation } from "../../api/types";
import { createCutStore } from "../cut/cutStore";
import { turnedPage } from "./turned";
import { turnedCut } from "./turnedCut";
import { angleToLevel, levelBy, mirror, quarterTurn, setAngle } from "./turnSteps";

const PAGE = { width_px: 1_000, height_px: 400 };
const QUARTERS: Orientation[] = [false, true].flatMap((mirror) => ([0, 90, 180, 270] as const).map((turn_deg) => ({ mirror, turn_deg })));
const ANGLES = [0, 0.3, 1.3, -7, 30, 45, 90, 135, -179.5];
const SIZES = [PAGE, { width_px: 1, height_px: 1 }, { width_px: 1_280, height_px: 60_000 }, { width_px: 60_000, height_px: 7 }];
const SHARES = [0, 0.2, 0.5, 0.97, 1];

function cutOf(parts: Partial<CutDocument> = {}): CutDocument {
  return { version: 1, hidden: [], sought: [], marks: [], styles: {}, frame: { x_px: 0, y_px: 0, ...PAGE, folds: [] }, ...parts };
}

test("a point goes there and back, and stays on a page whose corners are filled", () => {
  for (const size of SIZES)
    for (const quarter of QUARTERS)
      for (const angle_deg of ANGLES)
        for (const across of SHARES)
          for (const down of SHARES) {
            const turned = turnedPage(size, { ...quarter, angle_deg });
            const point = { x_px: across * size.width_px, y_px: down * size.height_px };
            const there = turned.there(point);
            const back = turned.back(there);
            expect(Math.hypot(back.x_px - point.x_px, back.y_px - point.y_px)).toBeLessThan(0.001);
            expect(Math.min(there.x_px, there.y_px, turned.width_px - there.x_px, turned.height_px - there.y_px)).toBeGreaterThan(-0.001);
          }
});

test("a quarter turns clockwise, after the mirror", () => {
  expect(turnedPage(PAGE, { turn_deg: 90 })).toMatchObject({ width_px: 400, height_px: 1_000 });
  expect(turnedPage(PAGE, { turn_deg: 90 }).there({ x_px: 0, y_px: 0 })).toEqual({ x_px: 400, y_px: 0 });
  expect(turnedPage(PAGE, { turn_deg: 90, mirror: true }).there({ x_px: 0, y_px: 0 })).toEqual({ x_px: 400, y_px: 1_000 });
  expect(turnedPage(PAGE, { angle_deg: 30 })).toMatchObject({ width_px: 1_067, height_px: 847 });
  expect(turnedPage(PAGE, { angle_deg: 10, corners: "cropped" })).toMatchObject({ width_px: 974, height_px: 234 });
});

test("what lies on a page goes along with every quarter, and back to where it was", () => {
  const cut = cutOf({
    frame: { x_px: 100, y_px: 50, width_px: 300, height_px: 200, folds: [{ top_px: 80, height_px: 30 }], folds_down: [{ left_px: 120, width_px: 7 }] },
    hidden: [{ id: "h", how: "solid", x_px: 10, y_px: 20, width_px: 30, height_px: 40 }],
    marks: [
      { kind: "arrow", id: "a", from_x_px: 10, from_y_px: 20, to_x_px: 200, to_y_px: 300 },
      { kind: "box", id: "b", x_px: 500, y_px: 100, width_px: 80, height_px: 40 },
      { kind: "text", id: "t", x_px: 600, y_px: 300, text: "here", spot_x_px: 10, spot_y_px: 10 },
    ],
    cleared: { colours: [{ colour: "#ffffff", x_px: 3, y_px: 9 }], put_back: [{ x_px: 1, y_px: 2, width_px: 3, height_px: 4 }] },
    outline: { points: [[10, 10], [200, 20], [90.5, 300]], smooth: true },
  });
  for (const orientation of QUARTERS) {
    const back = turnedCut(turnedCut(cut, PAGE, orientation), PAGE, {});
    expect(back.frame).toEqual(cut.frame);
    expect([back.hidden, back.marks, back.cleared, back.outline]).toEqual([cut.hidden, cut.marks, cut.cleared, cut.outline]);
  }
  expect(turnedCut(cut, PAGE, { turn_deg: 90 }).frame).toMatchObject({ folds: [{ top_px: 120, height_px: 7 }], folds_down: [{ left_px: 290, width_px: 30 }] });
  expect(turnedCut(cutOf(), PAGE, { turn_deg: 90 }).frame).toEqual({ x_px: 0, y_px: 0, width_px: 400, height_px: 1_000, folds: [] });
});

test("turns are steps that can be undone, and the page follows", () => {
  const store = createCutStore(PAGE, cutOf());
  quarterTurn(store, 90);
  expect(store.getState().page).toEqual({ width_px: 400, height_px: 1_000 });
  quarterTurn(store, 270);
  expect(store.getState().document).toEqual(cutOf());
  setAngle(store, 2);
  mirror(store);
  expect(store.getState().document.orientation).toEqual({ mirror: true, angle_deg: -2 });
  store.undo();
  store.undo();
  expect(store.getState().page).toEqual(PAGE);
  expect(store.getState().document.orientation).toBeUndefined();
});

test("a mirror exchanges left and right of what is seen, however it is turned", () => {
  const store = createCutStore(PAGE, cutOf());
  quarterTurn(store, 90);
  const before = turnedPage(PAGE, store.getState().document.orientation);
  mirror(store);
  const after = turnedPage(PAGE, store.getState().document.orientation);
  const [point, seen] = [{ x_px: 120, y_px: 30 }, before.there({ x_px: 120, y_px: 30 })];
  expect(after.there(point)).toEqual({ x_px: before.width_px - seen.x_px, y_px: seen.y_px });
});

test("a line says by which angle it becomes level, or plumb", () => {
  const from = { x_px: 0, y_px: 0 };
  expect(angleToLevel(from, { x_px: 100, y_px: 0 })).toBe(0);
  expect(angleToLevel(from, { x_px: 1_000, y_px: 35 })).toBe(-2);
  expect(angleToLevel({ x_px: 1_000, y_px: 35 }, from)).toBe(-2);
  expect(angleToLevel(from, { x_px: -35, y_px: 1_000 })).toBe(-2);
  const store = createCutStore(PAGE, cutOf());
  levelBy(store, from, { x_px: 1_000, y_px: 35 });
  expect(store.getState().document.orientation).toEqual({ angle_deg: -2 });
});
