import { describe, expect, test } from "vitest";

import { drawnFrame, fieldRange, type Handle, movedFrame, resizedFrame, wholeFrame } from "./boxes";

const PAGE = { width_px: 1_000, height_px: 40_000 };
const HANDLES: Handle[] = ([-1, 0, 1] as const).flatMap((x) => ([-1, 0, 1] as const).map((y) => ({ x, y })));

/** Numbers that look random and are the same at every run. */
function* numbers(seed: number): Generator<number> {
  let state = seed;
  for (;;) {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
    yield state;
  }
}

function liesOnPage(frame: ReturnType<typeof wholeFrame>): boolean {
  return (
    Object.values(frame).every(Number.isInteger) &&
    frame.x_px >= 0 &&
    frame.y_px >= 0 &&
    frame.width_px >= 1 &&
    frame.height_px >= 1 &&
    frame.x_px + frame.width_px <= PAGE.width_px &&
    frame.y_px + frame.height_px <= PAGE.height_px
  );
}

describe("whatever is done to a frame, it stays on the page", () => {
  const source = numbers(7);
  const next = (least: number, greatest: number) =>
    least + ((source.next().value as number) / 2_147_483_648) * (greatest - least);

  test.each(Array.from({ length: 200 }, (_, run) => run))("run %i", () => {
    const point = () => ({ x_px: next(-500, 1_500), y_px: next(-500, 41_000) });
    let frame = drawnFrame(point(), point(), PAGE);
    expect(liesOnPage(frame)).toBe(true);
    const { width_px, height_px } = frame;
    frame = movedFrame(frame, next(-2_000, 2_000), next(-50_000, 50_000), PAGE);
    expect(liesOnPage(frame)).toBe(true);
    expect([frame.width_px, frame.height_px]).toEqual([width_px, height_px]);
    for (const handle of HANDLES) {
      frame = resizedFrame(frame, handle, next(-900, 900), next(-9_000, 9_000), PAGE);
      expect(liesOnPage(frame)).toBe(true);
    }
  });
});

test("a box drawn in any direction is the same box", () => {
  const [a, b, c, d] = [
    { x_px: 10, y_px: 20 },
    { x_px: 110, y_px: 220 },
    { x_px: 110, y_px: 20 },
    { x_px: 10, y_px: 220 },
  ];
  const wanted = { x_px: 10, y_px: 20, width_px: 100, height_px: 200 };
  for (const [from, to] of [[a, b], [b, a], [c, d], [d, c]] as const) expect(drawnFrame(from, to, PAGE)).toEqual(wanted);
});

test("a handle moves only its own edges", () => {
  const frame = { x_px: 100, y_px: 100, width_px: 200, height_px: 300 };
  expect(resizedFrame(frame, { x: 1, y: 0 }, 5, 7, PAGE)).toEqual({ ...frame, width_px: 205 });
  expect(resizedFrame(frame, { x: 0, y: -1 }, 5, 7, PAGE)).toEqual({ ...frame, y_px: 107, height_px: 293 });
  expect(resizedFrame(frame, { x: -1, y: 0 }, 999, 0, PAGE)).toEqual({ ...frame, x_px: 299, width_px: 1 });
});

test("a field may have what keeps the others as they are", () => {
  const frame = { x_px: 100, y_px: 0, width_px: 200, height_px: 40_000 };
  expect(fieldRange(frame, "x_px", PAGE)).toEqual({ least: 0, greatest: 800 });
  expect(fieldRange(frame, "y_px", PAGE)).toEqual({ least: 0, greatest: 0 });
  expect(fieldRange(frame, "width_px", PAGE)).toEqual({ least: 1, greatest: 900 });
  expect(fieldRange(frame, "height_px", PAGE)).toEqual({ least: 1, greatest: 40_000 });
});
