import { describe, expect, test } from "vitest";

import type { CutDocument, Fold, Mark } from "../../api/types";
import { merged } from "./merging";

const BOX = { x_px: 0, y_px: 0, width_px: 600, height_px: 1_500 };
const cut = (folds: Fold[], box = BOX): CutDocument => ({ version: 1, hidden: [], sought: [], marks: [], styles: {}, frame: { ...box, folds } });
const fold = (top_px: number, height_px = 50): Fold => ({ top_px, height_px });
const NARROW = { ...BOX, width_px: 300 };

test("what only one window changed goes its way, whichever that is", () => {
  const base = cut([fold(100)]);
  expect(merged(base, cut([fold(100)], NARROW), cut([fold(100), fold(900)]))).toEqual(cut([fold(100), fold(900)], NARROW));
  expect(merged(base, cut([fold(100), fold(900)]), cut([fold(100)], NARROW))).toEqual(cut([fold(100), fold(900)], NARROW));
  expect(merged(base, cut([]), base)).toEqual(cut([]));
  expect(merged(base, base, cut([]))).toEqual(cut([]));
});

test("folds that both drew apart from each other are both there", () => {
  expect(merged(cut([]), cut([fold(100)]), cut([fold(900)]))).toEqual(cut([fold(100), fold(900)]));
  expect(merged(cut([fold(400)]), cut([fold(100), fold(400)]), cut([fold(900)]))).toEqual(cut([fold(100), fold(900)]));
});

test("the same change in both is one", () => {
  expect(merged(cut([]), cut([fold(100)], NARROW), cut([fold(100)], NARROW))).toEqual(cut([fold(100)], NARROW));
});

test.each<[string, CutDocument, CutDocument, CutDocument]>([
  ["two boxes", cut([]), cut([], NARROW), cut([], { ...BOX, width_px: 200 })],
  ["folds that touch", cut([]), cut([fold(100)]), cut([fold(120)])],
  ["one fold moved to two places", cut([fold(100)]), cut([fold(300)]), cut([fold(700)])],
  ["one fold moved and taken away", cut([fold(100)]), cut([]), cut([fold(700)])],
  ["a box between folds that leave nothing of it", cut([]), cut([], { ...BOX, height_px: 50 }), cut([fold(0, 60)])],
])("%s: nobody but a person can choose", (_, base, mine, theirs) => {
  expect(merged(base, mine, theirs)).toBeNull();
  expect(merged(base, theirs, mine)).toBeNull();
});

describe("marks, hidden areas and what is around", () => {
  const mark = (id: string, x_px = 0): Mark => ({ kind: "badge", id, x_px, y_px: 0 });
  const with_ = (marks: Mark[], dressing?: CutDocument["dressing"]): CutDocument => ({ ...cut([]), marks, ...(dressing ? { dressing } : {}) });
  const base = with_([mark("one"), mark("two")]);

  test("marks that two windows added are both there, and one that was removed is gone", () => {
    const both = merged(base, with_([mark("one"), mark("two"), mark("mine")]), with_([mark("two"), mark("theirs")]));
    expect(both?.marks.map((row) => row.id)).toEqual(["two", "theirs", "mine"]);
  });

  test("one mark that each moved elsewhere has to be chosen", () => {
    expect(merged(base, with_([mark("one", 5), mark("two")]), with_([mark("one", 9), mark("two")]))).toBeNull();
    expect(merged(base, with_([mark("one", 5), mark("two")]), with_([mark("one", 5), mark("two")]))?.marks).toHaveLength(2);
  });

  test("a caption of one window and a mark of the other are both there", () => {
    const both = merged(base, with_(base.marks, { caption: { text: "Islands" } }), with_([...base.marks, mark("three")]));
    expect([both?.dressing?.caption?.text, both?.marks.length]).toEqual(["Islands", 3]);
    expect(merged(base, with_(base.marks, { corner_px: 4 }), with_(base.marks, { corner_px: 8 }))).toBeNull();
  });

  test("a colour cleared in one and an outline drawn in the other are both there", () => {
    const cleared = { colours: [{ colour: "#ffffff" }] };
    const outline = { points: [[0, 0], [9, 0], [9, 9]] as [number, number][] };
    expect(merged(base, { ...base, cleared }, { ...base, outline })).toMatchObject({ cleared, outline });
    expect(merged(base, { ...base, outline }, { ...base, cleared })).toMatchObject({ cleared, outline });
  });

  test("a page that one turned and on which the other put something is not put together", () => {
    const turned = { ...base, orientation: { turn_deg: 90 as const } };
    expect(merged(base, turned, with_([mark("one")]))).toBeNull();
    expect(merged(base, turned, base)).toMatchObject({ orientation: { turn_deg: 90 } });
  });
});
