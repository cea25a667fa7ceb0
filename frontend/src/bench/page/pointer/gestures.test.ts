import { expect, test, vi } from "vitest";

import type { Block } from "../../../api/types";
import { createCutStore, type Tool } from "../../cut/cutStore";
import { type BreakMoves, gestureAt } from "./gestures";
import type { ToCalm } from "../../folding/calm";
import type { Hit } from "./hitTest";

const NO_KEYS = { shift: false, alt: false };
const PAGE = { width_px: 1_000, height_px: 5_000 };
const FRAME = { x_px: 100, y_px: 200, width_px: 400, height_px: 600, folds: [{ top_px: 400, height_px: 50 }] };
const BLOCK = { role: "article", x_px: 600, y_px: 1_000, width_px: 300, height_px: 200, text: "", alt: "" } as Block;

function hands(breaks: Partial<BreakMoves> = {}, calm: ToCalm = (at) => at) {
  const store = createCutStore(PAGE, { version: 1, hidden: [], sought: [], marks: [], styles: {}, frame: structuredClone(FRAME) });
  const moves = { rows: [], show: vi.fn(), send: vi.fn(), forget: vi.fn(), ...breaks };
  const begin = (x_px: number, y_px: number, hit: Hit, tool: Tool = { kind: "frame" }) =>
    gestureAt({ x_px, y_px }, hit, tool, { store, page: PAGE, blocks: [BLOCK], breaks: moves, joining: false, snapping: { by: () => ({ x_px: 0, y_px: 0 }), end: () => undefined }, calm: () => calm });
  return { store, moves, begin, frame: () => store.getState().document.frame, words: () => store.getState().past.map((step) => step.words) };
}

test("a drag on the page draws a frame, in one step that can be undone", () => {
  const { begin, frame, words, store } = hands();
  const gesture = begin(600, 900, { kind: "page" });
  gesture.move({ x_px: 700, y_px: 1_000 }, NO_KEYS);
  expect(frame()).toMatchObject({ x_px: 100 });
  gesture.move({ x_px: 550, y_px: 1_100 }, NO_KEYS);
  gesture.drop({ x_px: 550, y_px: 1_100 }, NO_KEYS);
  expect(frame()).toMatchObject({ x_px: 550, y_px: 900, width_px: 50, height_px: 200 });
  expect(words()).toEqual(["frame drawn"]);
  store.undo();
  expect(frame()).toEqual(FRAME);
});

test("a drag inside the frame moves it, and its handles stretch it", () => {
  const moving = hands();
  const move = moving.begin(300, 300, { kind: "frame" });
  move.move({ x_px: 310, y_px: 280 }, NO_KEYS);
  move.drop({ x_px: 310, y_px: 280 }, NO_KEYS);
  expect(moving.frame()).toMatchObject({ x_px: 110, y_px: 180, width_px: 400, height_px: 600 });
  const stretching = hands();
  const stretch = stretching.begin(500, 500, { kind: "handle", handle: { x: 1, y: 0 } });
  stretch.move({ x_px: 530, y_px: 900 }, NO_KEYS);
  stretch.drop({ x_px: 530, y_px: 900 }, NO_KEYS);
  expect(stretching.frame()).toMatchObject({ x_px: 100, y_px: 200, width_px: 430, height_px: 600 });
});

test("what is broken off changes nothing", () => {
  const { begin, frame, words } = hands();
  const gesture = begin(300, 300, { kind: "frame" });
  gesture.move({ x_px: 400, y_px: 400 }, NO_KEYS);
  gesture.cancel();
  expect([frame(), words()]).toEqual([FRAME, []]);
});

test("a click frames the block under it, a click on an edge does not", () => {
  const { begin, frame } = hands();
  expect(begin(500, 500, { kind: "handle", handle: { x: 1, y: 0 } }).click).toBeUndefined();
  begin(700, 1_100, { kind: "page" }).click?.({ x_px: 700, y_px: 1_100 });
  expect(frame()).toMatchObject({ x_px: 600, y_px: 1_000, width_px: 300, height_px: 200 });
});

test("with the fold tool, a drag folds a band away and lays the tool aside; edges of folds move all the same", () => {
  const { begin, frame, store } = hands();
  store.setTool({ kind: "fold", axis: "across" });
  const band = begin(300, 600, { kind: "frame" }, { kind: "fold", axis: "across" });
  band.move({ x_px: 300, y_px: 640 }, NO_KEYS);
  expect(store.getState().preview?.frame.folds).toHaveLength(2);
  band.drop({ x_px: 300, y_px: 650 }, NO_KEYS);
  expect(frame().folds).toEqual([...FRAME.folds, { top_px: 600, height_px: 50 }]);
  expect(store.getState().tool).toEqual({ kind: "frame" });
  const edge = begin(300, 450, { kind: "fold-edge", axis: "across", index: 0, edge: "bottom" }, { kind: "fold", axis: "across" });
  edge.move({ x_px: 300, y_px: 470 }, NO_KEYS);
  edge.drop({ x_px: 300, y_px: 470 }, NO_KEYS);
  expect(frame().folds[0]).toEqual({ top_px: 400, height_px: 70 });
});

test("a break is shown while it is dragged, and sent when it is let go", () => {
  const { begin, moves, frame } = hands({ rows: [400, 600] });
  const gesture = begin(300, 400, { kind: "break", index: 0 });
  gesture.move({ x_px: 0, y_px: 450 }, NO_KEYS);
  expect(moves.show).toHaveBeenCalledWith([450, 600]);
  gesture.drop({ x_px: 0, y_px: 700 }, NO_KEYS);
  expect(moves.send).toHaveBeenCalledWith([584, 600]);
  gesture.cancel();
  expect(moves.forget).toHaveBeenCalled();
  expect(frame()).toEqual(FRAME);
});

test("a band down the page lies between two columns, drawn to where nothing stands", () => {
  const { begin, frame, store } = hands({}, (at) => Math.round(at / 10) * 10);
  const band = begin(203, 300, { kind: "frame" }, { kind: "fold", axis: "down" });
  band.drop({ x_px: 247, y_px: 900 }, NO_KEYS);
  expect(frame()).toMatchObject({ folds: FRAME.folds, folds_down: [{ left_px: 200, width_px: 50 }] });
  const edge = begin(250, 500, { kind: "fold-edge", axis: "down", index: 0, edge: "bottom" });
  edge.drop({ x_px: 0, y_px: 0 }, NO_KEYS);
  store.cancel();
  edge.move({ x_px: 312, y_px: 500 }, NO_KEYS);
  edge.drop({ x_px: 312, y_px: 500 }, NO_KEYS);
  expect(frame().folds_down).toEqual([{ left_px: 200, width_px: 110 }]);
});

test("a side of the frame comes to where nothing stands, when no edge is near", () => {
  const { begin, frame } = hands({}, (at) => (Math.abs(at - 815) < 10 ? 815 : at));
  const handle = begin(300, 800, { kind: "handle", handle: { x: 0, y: 1 } });
  handle.move({ x_px: 300, y_px: 810 }, NO_KEYS);
  handle.drop({ x_px: 300, y_px: 810 }, NO_KEYS);
  expect(frame()).toMatchObject({ y_px: 200, height_px: 615, width_px: 400 });
});
