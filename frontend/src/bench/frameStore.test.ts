import { expect, test } from "vitest";

import { createFrameStore, shownFrame } from "./frameStore";
import { wholeFrame } from "./geometry";

const PAGE = { width_px: 600, height_px: 1_500 };

function storeAt() {
  let now_ms = 0;
  const store = createFrameStore(PAGE, wholeFrame(PAGE), () => now_ms);
  return { store, later: (ms: number) => (now_ms += ms), undo: () => store.temporal.getState().undo() };
}

test("a drag is shown while it lasts and becomes one step when it ends", () => {
  const { store, undo } = storeAt();
  for (const width_px of [500, 400, 300]) store.getState().drag({ ...wholeFrame(PAGE), width_px });
  expect(shownFrame(store.getState()).width_px).toBe(300);
  expect(store.getState().frame.width_px).toBe(600);
  store.getState().drop();
  expect(store.getState().frame.width_px).toBe(300);
  undo();
  expect(store.getState().frame.width_px).toBe(600);
});

test("a drag that is broken off leaves nothing behind", () => {
  const { store } = storeAt();
  store.getState().drag({ ...wholeFrame(PAGE), width_px: 5 });
  store.getState().cancelDrag();
  expect(shownFrame(store.getState())).toEqual(wholeFrame(PAGE));
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
  expect(store.getState().frame).toEqual(wholeFrame(PAGE));
});

test("what another window wrote cannot be undone here", () => {
  const { store, undo } = storeAt();
  store.getState().setField("width_px", 100);
  store.getState().replace({ ...wholeFrame(PAGE), width_px: 50 });
  undo();
  expect(store.getState().frame.width_px).toBe(50);
});
