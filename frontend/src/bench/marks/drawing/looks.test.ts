import { beforeEach, expect, test, vi } from "vitest";

import type { Mark } from "../../../api/types";
import { lastLook, lengthsOf, rememberLook, shownValue } from "./looks";

const USUAL = { arrow: { filling: "#6B3A5B", thickness_px: 8, outline_px: 2, opacity: 1, locked: false } };
const ARROW: Mark = { kind: "arrow", id: "a", from_x_px: 0, from_y_px: 0, to_x_px: 90, to_y_px: 0, filling: "#112233", thickness_px: 12, locked: true };

beforeEach(() => {
  const kept = new Map<string, string>();
  vi.stubGlobal("localStorage", { getItem: (key: string) => kept.get(key) ?? null, setItem: (key: string, value: string) => void kept.set(key, value) });
});

test("a new mark looks like the last of its kind, and as large on a screen of another density", () => {
  rememberLook(ARROW, USUAL, 2);
  expect(lastLook("arrow", {}, 1)).toEqual({ filling: "#112233", thickness_px: 6 });
  expect(lastLook("arrow", lengthsOf(USUAL.arrow), 3)).toEqual({ filling: "#112233", thickness_px: 18, outline_px: 6 });
  expect(lastLook("line", {}, 1)).toEqual({});
});

test("a browser that keeps nothing begins with the usual look", () => {
  vi.stubGlobal("localStorage", {
    getItem: () => "{",
    setItem: () => {
      throw new Error("full");
    },
  });
  rememberLook(ARROW, USUAL, 1);
  expect(lastLook("arrow", { thickness_px: 8 }, 2)).toEqual({ thickness_px: 16 });
});

test("what a mark says goes before its style, and that before what is usual", () => {
  const styles = { Calm: { filling: "#445566", thickness_px: 3 } };
  expect(shownValue({ ...ARROW, style: "Calm" }, "filling", styles, USUAL)).toBe("#112233");
  expect(shownValue({ kind: "arrow", id: "", from_x_px: 0, from_y_px: 0, to_x_px: 0, to_y_px: 0, style: "Calm" }, "filling", styles, USUAL)).toBe("#445566");
  expect(shownValue(ARROW, "outline_px", styles, USUAL)).toBe(2);
});
