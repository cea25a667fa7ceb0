import { expect, test } from "vitest";

import { withFolds } from "./folds";
import { createFrameStore, shownFrame } from "./frameStore";
import { wholeFrame } from "./geometry";

const PAGE = { width_px: 600, height_px: 1_500 };
const WHOLE = withFolds(wholeFrame(PAGE), []);

function storeAt() {
  let now_ms = 0;
  const store = createFrameStore(PAGE, WHOLE, () => now_ms);
  return { store, later: (ms: number) => (now_ms += ms), undo: () => store.temporal.getState().undo() };
}

test("a drag is shown while it lasts and becomes one step when it ends", () => {
  const { store, undo } = storeAt();
  for (const width_px of [500, 400, 300]) store.getState().drag({ ...WHOLE, width_px });
  expect(shownFrame(store.getState()).width_px).toBe(300);
  expect(store.getState().frame.width_px).toBe(600);
  store.getState().drop();
  expect(store.getState().frame.width_px).toBe(300);
  undo();
  expect(store.getState().frame.width_px).toBe(600);
});

test("a drag that is broken off leaves nothing behind", () => {
  const { store } = storeAt();
  store.getState().drag({ ...WHOLE, width_px: 5 });
  store.getState().cancelDrag();
  expect(shownFrame(store.getState())).toEqual(WHOLE);
  expect(store.temporal.getState().pastStates).toHaveLength(0);
});

test("keys pressed closely after each other are undone as one, with a pause between as two", () => {
  const { store, later, undo } = storeAt();
  store.getState().setField("height_px", 100);
  for (let press = 0; press < 5; press += 1) {
    store.getState().nudge(0, 10);
    later(100);
  }
  later(2_000);
  store.getState().nudge(0, 10);
  expect(store.getState().frame.y_px).toBe(60);
  undo();
  expect(store.getState().frame.y_px).toBe(50);
  undo();
  expect(store.getState().frame.y_px).toBe(0);
});

test("a number outside the page is refused and nothing changes", () => {
  const { store } = storeAt();
  for (const value of [0, -1, 601, 1.5, Number.NaN]) expect(store.getState().setField("width_px", value)).toBe(false);
  expect(store.getState().frame).toEqual(WHOLE);
});

test("what another window wrote cannot be undone here", () => {
  const { store, undo } = storeAt();
  store.getState().setField("width_px", 100);
  store.getState().replace({ ...WHOLE, width_px: 50 });
  undo();
  expect(store.getState().frame.width_px).toBe(50);
});

test("folds are drawn, moved and taken away, each undone as one, and stay when the frame moves", () => {
  const { store, later, undo } = storeAt();
  const folds = () => store.getState().frame.folds;
  store.getState().setFolding(true);
  store.getState().addFolds([{ top_px: 200, height_px: 300 }]);
  expect(store.getState().folding).toBe(false);
  later(2_000);
  for (const height_px of [310, 320, 330]) store.getState().setFold(0, { top_px: 200, height_px });
  expect(folds()).toEqual([{ top_px: 200, height_px: 330 }]);
  later(2_000);
  store.getState().setFold(0, { top_px: 0, height_px: 1_500 });
  store.getState().addFolds([{ top_px: 0, height_px: 1_500 }]);
  expect(folds()).toEqual([{ top_px: 200, height_px: 330 }]);
  store.getState().setField("height_px", 400);
  expect(folds()).toEqual([{ top_px: 200, height_px: 200 }]);
  store.getState().removeFold(0);
  expect(folds()).toEqual([]);
  for (let step = 0; step < 3; step += 1) undo();
  expect(folds()).toEqual([{ top_px: 200, height_px: 300 }]);
});

test("a nudge after an undo is a step of its own, however soon it comes", () => {
  const { store, undo } = storeAt();
  store.getState().setField("height_px", 100);
  store.getState().nudge(0, 10);
  undo();
  store.getState().nudge(0, 30);
  expect(store.getState().frame.y_px).toBe(30);
  undo();
  expect(store.getState().frame.y_px).toBe(0);
  expect(store.getState().frame.height_px).toBe(100);
});

test("a fold that is dragged over its neighbour and back joins nothing, and is one step when it is let go", () => {
  const { store, later, undo } = storeAt();
  const folds = [
    { top_px: 100, height_px: 50 },
    { top_px: 300, height_px: 50 },
  ];
  store.getState().addFolds(folds);
  later(2_000);
  for (const height_px of [150, 230, 120]) store.getState().dragFold(0, { top_px: 100, height_px });
  expect(store.getState().frame.folds).toEqual(folds);
  expect(shownFrame(store.getState()).folds).toHaveLength(2);
  store.getState().drop();
  expect(store.getState().frame.folds).toEqual([{ top_px: 100, height_px: 120 }, folds[1]]);
  undo();
  expect(store.getState().frame.folds).toEqual(folds);
  store.getState().dragFold(0, { top_px: 100, height_px: 220 });
  store.getState().drop();
  expect(store.getState().frame.folds).toEqual([{ top_px: 100, height_px: 250 }]);
  store.getState().dragFold(0, { top_px: 0, height_px: 1_500 });
  store.getState().drop();
  expect(store.getState().frame.folds).toEqual([{ top_px: 100, height_px: 250 }]);
});
