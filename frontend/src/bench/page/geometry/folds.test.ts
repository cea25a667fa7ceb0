import { expect, test } from "vitest";

import { foldsOf, bottomOf, foldBetween, movedEdge, withFolds } from "./folds";

const AREA = { x_px: 5, y_px: 100, width_px: 50, height_px: 400 };
const TOPS = [0, 90, 150, 200, 350, 480];
const PAIRS = TOPS.flatMap((first) => TOPS.map((second) => [first, second] as const));

test.each(PAIRS)("folds from %i and %i stand in order, apart from each other and inside the frame", (first, second) => {
  const kept = withFolds(AREA, [{ top_px: first, height_px: 60 }, { top_px: second, height_px: 120 }]).folds;
  let below = AREA.y_px - 1;
  for (const fold of kept) {
    expect(fold.top_px).toBeGreaterThan(below);
    expect(fold.height_px).toBeGreaterThan(0);
    below = bottomOf(fold);
  }
  expect(below).toBeLessThanOrEqual(AREA.y_px + AREA.height_px);
  expect(withFolds(AREA, kept).folds).toEqual(kept);
});

test("folds that meet become one, and a frame is never folded away whole", () => {
  const touching = [{ top_px: 200, height_px: 50 }, { top_px: 150, height_px: 50 }];
  expect(withFolds(AREA, touching).folds).toEqual([{ top_px: 150, height_px: 100 }]);
  expect(withFolds(AREA, [{ top_px: 0, height_px: 900 }]).folds).toEqual([]);
});

test("a band is drawn in either direction", () => {
  expect(foldBetween(300.4, 120)).toEqual({ top_px: 120, height_px: 180 });
  expect(foldBetween(80, 80)).toEqual({ top_px: 80, height_px: 1 });
});

test("an edge stops before the other", () => {
  const fold = { top_px: 100, height_px: 50 };
  expect(movedEdge(fold, "top", 120)).toEqual({ top_px: 120, height_px: 30 });
  expect(movedEdge(fold, "top", 900)).toEqual({ top_px: 149, height_px: 1 });
  expect(movedEdge(fold, "bottom", 20)).toEqual({ top_px: 100, height_px: 1 });
});

test("empty stretches are folded but for some rows on each side, and not over what is folded already", () => {
  const stretches = [
    { top_px: 100, height_px: 200 },
    { top_px: 500, height_px: 40 },
    { top_px: 900, height_px: 300 },
  ];
  expect(foldsOf(stretches, [], 20)).toEqual([
    { top_px: 120, height_px: 160 },
    { top_px: 920, height_px: 260 },
  ]);
  expect(foldsOf(stretches, [{ top_px: 150, height_px: 10 }], 20)).toEqual([{ top_px: 920, height_px: 260 }]);
});
