import { expect, test } from "vitest";

import { createCutStore } from "../cut/cutStore";
import { filterOf, PLAIN, tone } from "./toneSteps";

const PAGE = { width_px: 100, height_px: 200 };
const cut = () => createCutStore(PAGE, { version: 1, hidden: [], sought: [], marks: [], styles: {}, frame: { x_px: 0, y_px: 0, ...PAGE, folds: [] } });

test("what is plain is not kept, and taking it all off leaves no tone", () => {
  const store = cut();
  tone(store, { brightness: 1.2, grey: true }, "changed");
  expect(store.getState().document.tone).toEqual({ brightness: 1.2, grey: true });
  tone(store, { brightness: 1 }, "changed");
  expect(store.getState().document.tone).toEqual({ grey: true });
  tone(store, PLAIN, "taken off");
  expect(store.getState().document).not.toHaveProperty("tone");
  store.undo();
  expect(store.getState().document.tone).toEqual({ grey: true });
});

test("the filter has the steps in the order of the files", () => {
  expect(filterOf(null)).toBeUndefined();
  expect(filterOf({ grey: false })).toBeUndefined();
  expect(filterOf({ invert: true, contrast: 1.5, brightness: 0.8, grey: true })).toBe("brightness(0.8) contrast(1.5) grayscale(1) invert(1)");
  expect(filterOf({ threshold: 90, grey: true })).toBe("grayscale(1) url(#tone-threshold)");
});
