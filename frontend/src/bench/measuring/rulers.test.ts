import { beforeEach, expect, test } from "vitest";

import { rulerGesture } from "./rulerGesture";
import { rulerWords, useRulers } from "./rulers";

const NO_KEYS = { shift: false, alt: false };
const FREE = { by: () => ({ x_px: 0, y_px: 0 }), end: () => undefined };

beforeEach(() => useRulers.setState({ standing: [], drawn: null }));

test("a ruler says how far it is across, down and straight, and how far that is in the file", () => {
  const ruler = { from: { x_px: 10, y_px: 20 }, to: { x_px: 40, y_px: 60 } };
  expect(rulerWords(ruler, null)).toBe("30 × 40, 50 px");
  expect(rulerWords(ruler, 0.5)).toBe("30 × 40, 50 px = 25 px in the file");
  expect(rulerWords({ ...ruler, to: { x_px: 110, y_px: 20 } }, null)).toBe("100 px");
});

test("a ruler stands where it was drawn; a press takes all of them away; Shift keeps it level", () => {
  const gesture = rulerGesture({ x_px: 10.4, y_px: 20 }, FREE);
  gesture.move({ x_px: 60, y_px: 24 }, { ...NO_KEYS, shift: true });
  expect(useRulers.getState().drawn).toEqual({ from: { x_px: 10, y_px: 20 }, to: { x_px: 60, y_px: 20 } });
  gesture.drop({ x_px: 60, y_px: 24 }, NO_KEYS);
  expect(useRulers.getState()).toEqual({ drawn: null, standing: [{ from: { x_px: 10, y_px: 20 }, to: { x_px: 60, y_px: 24 } }] });
  rulerGesture({ x_px: 1, y_px: 1 }, FREE).click?.({ x_px: 1, y_px: 1 });
  expect(useRulers.getState().standing).toEqual([]);
});

test("a ruler goes from edge to edge of what stands near", () => {
  const gesture = rulerGesture({ x_px: 98, y_px: 50 }, { by: () => ({ x_px: 2, y_px: 0 }), end: () => undefined });
  gesture.drop({ x_px: 298, y_px: 50 }, NO_KEYS);
  expect(useRulers.getState().standing).toEqual([{ from: { x_px: 100, y_px: 50 }, to: { x_px: 300, y_px: 50 } }]);
});
