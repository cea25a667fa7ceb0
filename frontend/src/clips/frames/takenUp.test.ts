import { expect, test } from "vitest";

import type { ClipDocument } from "../../api/types";
import { ALL_FRAMES, drawnOn, inTheMiddle } from "./onFrames";
import { placesOf, taken, takenAt, withoutThing } from "./takenUp";

const FRAMES = { width_px: 640, height_px: 400 };
const at = (x_px: number, y_px: number) => ({ x_px, y_px });
const measure = (text: string, size_px: number) => text.length * size_px * 0.5;
const EMPTY: ClipDocument = { dropped: [], keep_every: 1, speed: 1, there_and_back: false, hold_start_ms: 0, hold_end_ms: 0, repeats: 0, box: null, pointer: true, hidden: [], marks: [] };
const hiding = { ...EMPTY, ...drawnOn(EMPTY, "hide", at(100, 100), at(200, 150), FRAMES, { first: 3, last: 6 }) };
const DRAWN = { ...hiding, ...drawnOn(hiding, "text", at(120, 110), at(120, 110), FRAMES, ALL_FRAMES) };
const HIDDEN = { of: "hidden", at: 0 } as const;
const WORDS = { of: "marks", at: 0 } as const;

test("what is uppermost is taken, and only what is on the frame", () => {
  expect(takenAt(DRAWN, 4, at(125, 118), null, 1, measure)?.thing).toEqual(WORDS);
  expect(takenAt(DRAWN, 4, at(195, 145), null, 1, measure)?.thing).toEqual(HIDDEN);
  expect(takenAt(DRAWN, 7, at(195, 145), null, 1, measure)).toBeNull();
  expect(takenAt(DRAWN, 4, at(600, 300), null, 1, measure)).toBeNull();
});

test("a hidden area in hand is resized by its corners, else moved, and stays on the frames", () => {
  const corner = takenAt(DRAWN, 4, at(202, 152), HIDDEN, 1, measure);
  expect(corner?.grip).toEqual({ corner: { x: 1, y: 1 } });
  expect(taken(DRAWN, HIDDEN, corner?.grip ?? null, at(202, 152), at(232, 142), FRAMES, measure).hidden?.[0]?.area).toMatchObject({ x_px: 100, y_px: 100, width_px: 130, height_px: 40 });
  expect(taken(DRAWN, HIDDEN, null, at(0, 0), at(-500, 20), FRAMES, measure).hidden?.[0]?.area).toMatchObject({ x_px: 0, y_px: 120, width_px: 100, height_px: 50 });
});

test("words are moved, and grow by their handle", () => {
  expect(taken(DRAWN, WORDS, null, at(0, 0), at(12, -7), FRAMES, measure).marks?.[0]?.mark).toMatchObject({ x_px: 132, y_px: 103 });
  const size = placesOf(DRAWN, WORDS, 1, measure).find(({ name }) => name === "size");
  expect(size).toBeDefined();
  const grip = takenAt(DRAWN, 0, size?.at ?? at(0, 0), WORDS, 1, measure)?.grip ?? null;
  const grown = taken(DRAWN, WORDS, grip, at(0, 0), at(200, 130), FRAMES, measure).marks?.[0]?.mark;
  expect(grown?.kind === "text" && grown.size_px).toBeGreaterThan(12);
});

test("an arrow is taken by its ends", () => {
  const [from, to] = inTheMiddle(FRAMES);
  const pointing = { ...EMPTY, ...drawnOn(EMPTY, "arrow", from, to, FRAMES, ALL_FRAMES) };
  const grip = takenAt(pointing, 0, to, WORDS, 1, measure)?.grip ?? null;
  expect(taken(pointing, WORDS, grip, to, at(600, 20), FRAMES, measure).marks?.[0]?.mark).toMatchObject({ from_x_px: from.x_px, to_x_px: 600, to_y_px: 20 });
});

test("what is removed is gone from the document, and nothing else is", () => {
  expect({ ...DRAWN, ...withoutThing(DRAWN, HIDDEN) }).toEqual({ ...DRAWN, hidden: [] });
  expect({ ...DRAWN, ...withoutThing(DRAWN, WORDS) }).toEqual({ ...DRAWN, marks: [] });
});
