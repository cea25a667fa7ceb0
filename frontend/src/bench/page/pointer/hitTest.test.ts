import { expect, test } from "vitest";

import type { HiddenArea } from "../../../api/types";
import { hiddenAt, hitAt, nearestWithin } from "./hitTest";

const FRAME = { x_px: 100, y_px: 200, width_px: 400, height_px: 600, folds: [{ top_px: 400, height_px: 50 }] };

const at = (x_px: number, y_px: number, { breaks = [] as number[], zoom = 1 } = {}) => hitAt({ x_px, y_px }, { frame: FRAME, breaks }, zoom);

test("the frame, its corners, its edges and the page around it", () => {
  expect(at(300, 300)).toEqual({ kind: "frame" });
  expect(at(50, 50)).toEqual({ kind: "page" });
  expect(at(104, 195)).toEqual({ kind: "handle", handle: { x: -1, y: -1 } });
  expect(at(497, 806)).toEqual({ kind: "handle", handle: { x: 1, y: 1 } });
  expect(at(300, 207)).toEqual({ kind: "handle", handle: { x: 0, y: -1 } });
  expect(at(507, 500)).toEqual({ kind: "handle", handle: { x: 1, y: 0 } });
  expect(at(300, 209)).toEqual({ kind: "frame" });
  expect(at(520, 800)).toEqual({ kind: "page" });
});

test("edges of folds lie above the frame, and breaks above both", () => {
  expect(at(300, 402)).toEqual({ kind: "fold-edge", axis: "across", index: 0, edge: "top" });
  expect(at(300, 447)).toEqual({ kind: "fold-edge", axis: "across", index: 0, edge: "bottom" });
  expect(at(600, 402)).toEqual({ kind: "page" });
  expect(at(300, 402, { breaks: [300, 404] })).toEqual({ kind: "break", index: 1 });
  expect(at(600, 404, { breaks: [404] })).toEqual({ kind: "break", index: 0 });
});

test("what is within reach is so on the screen, however much the page is shrunk or enlarged", () => {
  expect(at(300, 230, { zoom: 0.25 })).toEqual({ kind: "handle", handle: { x: 0, y: -1 } });
  expect(at(300, 206, { zoom: 2 })).toEqual({ kind: "frame" });
});

test("of a frame narrower than its handles reach, the nearer side is taken", () => {
  const sliver = { x_px: 100, y_px: 100, width_px: 6, height_px: 300, folds: [] };
  const side = (x_px: number) => hitAt({ x_px, y_px: 250 }, { frame: sliver, breaks: [] }, 1);
  expect(side(101)).toEqual({ kind: "handle", handle: { x: -1, y: 0 } });
  expect(side(105)).toEqual({ kind: "handle", handle: { x: 1, y: 0 } });
});

test("the nearest row within reach", () => {
  expect(nearestWithin([10, 14], 13, 6)).toBe(1);
  expect(nearestWithin([10, 14], 21, 6)).toBeNull();
  expect(nearestWithin([], 0, 6)).toBeNull();
});

test("hidden areas: the uppermost one, and of the one in hand its corners first", () => {
  const areas: HiddenArea[] = [
    { id: "a", how: "solid", x_px: 100, y_px: 100, width_px: 200, height_px: 80 },
    { id: "b", how: "blur", x_px: 250, y_px: 120, width_px: 100, height_px: 80 },
  ];
  const under = (x_px: number, y_px: number, selected: string[] = [], zoom = 1) => hiddenAt({ x_px, y_px }, areas, selected, zoom);
  expect(under(260, 130)).toEqual({ kind: "hidden", id: "b" });
  expect(under(106, 95)).toBeNull();
  expect(under(106, 95, ["a"])).toEqual({ kind: "hidden-corner", id: "a", corner: { x: -1, y: -1 } });
  expect(under(296, 176, ["a"])).toEqual({ kind: "hidden-corner", id: "a", corner: { x: 1, y: 1 } });
  expect(under(116, 95, ["a"], 0.5)).toEqual({ kind: "hidden-corner", id: "a", corner: { x: -1, y: -1 } });
});
