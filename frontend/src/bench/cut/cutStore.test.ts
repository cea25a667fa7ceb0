import { expect, test } from "vitest";

import { withFolds } from "../page/geometry/folds";
import { wholeFrame } from "../page/geometry/boxes";
import type { CutDocument } from "../../api/types";
import { complete, createCutStore, sameDocument } from "./cutStore";
import { addFolds, dragFold, dragFrame, dropFrame, nudge, removeFold, setField, setFold, shownFrame } from "./frameSteps";

const PAGE = { width_px: 600, height_px: 1_500 };
const WHOLE = withFolds(wholeFrame(PAGE), []);

function storeAt() {
  let now_ms = 0;
  const store = createCutStore(PAGE, { version: 1, hidden: [], sought: [], marks: [], styles: {}, frame: WHOLE }, undefined, () => now_ms);
  const frame = () => store.getState().document.frame;
  return { store, frame, later: (ms: number) => (now_ms += ms) };
}

test("a drag is shown while it lasts and becomes one step when it ends", () => {
  const { store, frame } = storeAt();
  for (const width_px of [500, 400, 300]) dragFrame(store, { ...WHOLE, width_px });
  expect(shownFrame(store.getState()).width_px).toBe(300);
  expect(frame().width_px).toBe(600);
  dropFrame(store, "frame drawn");
  expect(frame().width_px).toBe(300);
  expect(store.getState().past.map((step) => step.words)).toEqual(["frame drawn"]);
  store.undo();
  expect(frame().width_px).toBe(600);
  store.redo();
  expect(frame().width_px).toBe(300);
});

test("a drag that is broken off leaves nothing behind", () => {
  const { store } = storeAt();
  dragFrame(store, { ...WHOLE, width_px: 5 });
  store.cancel();
  expect(shownFrame(store.getState())).toEqual(WHOLE);
  expect(store.getState().past).toHaveLength(0);
});

test("keys pressed closely after each other are undone as one, with a pause between as two", () => {
  const { store, frame, later } = storeAt();
  setField(store, "height_px", 100);
  for (let press = 0; press < 5; press += 1) {
    nudge(store, 0, 10);
    later(100);
  }
  later(2_000);
  nudge(store, 0, 10);
  expect(frame().y_px).toBe(60);
  store.undo();
  expect(frame().y_px).toBe(50);
  store.undo();
  expect(frame().y_px).toBe(0);
  store.redo();
  expect(frame().y_px).toBe(50);
});

test("a number outside the page is refused and nothing changes", () => {
  const { store, frame } = storeAt();
  for (const value of [0, -1, 601, 1.5, Number.NaN]) expect(setField(store, "width_px", value)).toBe(false);
  expect(frame()).toEqual(WHOLE);
  expect(setField(store, "width_px", 600)).toBe(true);
  expect(store.getState().past).toHaveLength(0); // as it was already
});

test("folds are drawn, moved and taken away, each undone as one, and stay when the frame moves", () => {
  const { store, frame, later } = storeAt();
  store.setTool({ kind: "fold", axis: "across" });
  addFolds(store, [{ top_px: 200, height_px: 300 }]);
  expect(store.getState().tool.kind).toBe("frame");
  later(2_000);
  for (const height_px of [310, 320, 330]) setFold(store, "across", 0, { top_px: 200, height_px });
  expect(frame().folds).toEqual([{ top_px: 200, height_px: 330 }]);
  later(2_000);
  setFold(store, "across", 0, { top_px: 0, height_px: 1_500 });
  addFolds(store, [{ top_px: 0, height_px: 1_500 }]);
  expect(frame().folds).toEqual([{ top_px: 200, height_px: 330 }]);
  setField(store, "height_px", 400);
  expect(frame().folds).toEqual([{ top_px: 200, height_px: 200 }]);
  removeFold(store, "across", 0);
  expect(frame().folds).toEqual([]);
  for (let step = 0; step < 3; step += 1) store.undo();
  expect(frame().folds).toEqual([{ top_px: 200, height_px: 300 }]);
});

test("a nudge after an undo is a step of its own, however soon it comes", () => {
  const { store, frame } = storeAt();
  setField(store, "height_px", 100);
  nudge(store, 0, 10);
  store.undo();
  nudge(store, 0, 30);
  expect(frame().y_px).toBe(30);
  store.undo();
  expect([frame().y_px, frame().height_px]).toEqual([0, 100]);
});

test("a fold that is dragged over its neighbour and back joins nothing, and is one step when it is let go", () => {
  const { store, frame, later } = storeAt();
  const folds = [
    { top_px: 100, height_px: 50 },
    { top_px: 300, height_px: 50 },
  ];
  addFolds(store, folds);
  later(2_000);
  for (const height_px of [150, 230, 120]) dragFold(store, "across", 0, { top_px: 100, height_px });
  expect(frame().folds).toEqual(folds);
  expect(shownFrame(store.getState()).folds).toHaveLength(2);
  dropFrame(store, "fold moved");
  expect(frame().folds).toEqual([{ top_px: 100, height_px: 120 }, folds[1]]);
  store.undo();
  expect(frame().folds).toEqual(folds);
  dragFold(store, "across", 0, { top_px: 100, height_px: 220 });
  dropFrame(store, "fold moved");
  expect(frame().folds).toEqual([{ top_px: 100, height_px: 250 }]);
  dragFold(store, "across", 0, { top_px: 0, height_px: 1_500 });
  dropFrame(store, "fold moved");
  expect(frame().folds).toEqual([{ top_px: 100, height_px: 250 }]);
});

test("a history that was kept goes on where it was left, and only so many steps are kept", () => {
  const { store } = storeAt();
  for (let width_px = 1; width_px <= 300; width_px += 1) setField(store, "width_px", width_px);
  const { document, past, future } = store.getState();
  expect(past).toHaveLength(200);
  const reopened = createCutStore(PAGE, document, JSON.parse(JSON.stringify({ past, future })) as { past: typeof past; future: typeof future });
  reopened.undo();
  expect(reopened.getState().document.frame.width_px).toBe(299);
  reopened.redo();
  expect(reopened.getState().document.frame.width_px).toBe(300);
});

test("documents are the same whatever the order of their fields, and without what is empty", () => {
  const document = { version: 1, hidden: [], sought: [], marks: [], styles: {}, frame: WHOLE } as const;
  const marked: CutDocument = { ...document, hidden: [], sought: [], marks: [{ kind: "badge", id: "a", x_px: 1, y_px: 2 }] };
  expect(sameDocument(marked, { ...marked, marks: [{ y_px: 2, x_px: 1, id: "a", kind: "badge" }] })).toBe(true);
  expect(sameDocument(marked, { ...marked, dressing: {} })).toBe(true);
  expect(sameDocument(marked, { ...marked, dressing: { corner_px: 3 } })).toBe(false);
  expect(sameDocument(marked, { ...marked, marks: [{ kind: "badge", id: "a", x_px: 1, y_px: 3 }] })).toBe(false);
  // As a browser kept it before there were marks.
  expect(complete({ version: 1, frame: WHOLE } as unknown as CutDocument).marks).toEqual([]);
});
