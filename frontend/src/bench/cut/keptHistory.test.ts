import { expect, test } from "vitest";

import type { Cut, CutDocument } from "../../api/types";
import { type Kept, openingOf } from "./keptHistory";

const at = (width_px: number): CutDocument => ({ version: 1, hidden: [], sought: [], marks: [], styles: {}, frame: { x_px: 0, y_px: 0, width_px, height_px: 900, folds: [] } });
const cut = (version: number, width_px: number): Cut => ({ id: 3, capture_id: 1, name: "Cut 1", version, changed_by: "", review: [], document: at(width_px) });
const STEP = { words: "frame drawn", forward: [], back: [] };
const kept = (saved_px: number, shown_px: number): Kept => ({
  saved: { version: 4, document: at(saved_px) },
  document: at(shown_px),
  past: [STEP],
  future: [],
  kept_ms: 0,
});

test("without anything kept it begins as the server has it", () => {
  expect(openingOf(cut(4, 100), undefined)).toEqual({ saved: { version: 4, document: at(100) }, document: at(100), past: [], future: [] });
});

test("a cut that is as it was left has its history again, also when it was written while leaving", () => {
  expect(openingOf(cut(4, 100), kept(100, 100)).past).toEqual([STEP]);
  const written = openingOf(cut(5, 120), kept(100, 120));
  expect([written.saved.version, written.past.length]).toEqual([5, 1]);
});

test("what was never saved is there again, on top of what it was made from", () => {
  const opening = openingOf(cut(4, 100), kept(100, 120));
  expect([opening.document, opening.saved.version, opening.past.length]).toEqual([at(120), 4, 1]);
});

test("a cut that was changed elsewhere meanwhile begins anew", () => {
  expect(openingOf(cut(9, 77), kept(100, 100))).toEqual({ saved: { version: 9, document: at(77) }, document: at(77), past: [], future: [] });
});
