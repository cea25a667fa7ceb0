import { describe, expect, it } from "vitest";

import { areaBetween, buttonOf, FingerAsPointer, fittedTo, keyInput, modifiersOf, placeOn } from "./pointing";

const DESK = { width_px: 1280, height_px: 800, scale: 1, touch: false };
const BARE = { altKey: false, ctrlKey: false, metaKey: false, shiftKey: false };

describe("placeOn", () => {
  it("takes what is shown smaller for what it is", () => {
    expect(placeOn(DESK, { left: 100, top: 50, width: 640, height: 400 }, 420, 250)).toEqual({ x_px: 640, y_px: 400 });
  });

  it("stays on the screen", () => {
    expect(placeOn(DESK, { left: 0, top: 0, width: 640, height: 400 }, 9_999, -5)).toEqual({ x_px: 1279, y_px: 0 });
  });
});

describe("fittedTo", () => {
  it("shows a screen whole", () => {
    expect(fittedTo(DESK, { width: 640, height: 900 })).toEqual({ width: 640, height: 400 });
  });

  it("enlarges nothing", () => {
    expect(fittedTo({ ...DESK, width_px: 390, height_px: 844 }, { width: 2_000, height: 2_000 })).toEqual({ width: 390, height: 844 });
  });
});

describe("areaBetween", () => {
  it("is the same from either corner", () => {
    const one = { x_px: 30, y_px: 90 };
    const other = { x_px: 10, y_px: 20 };
    expect(areaBetween(DESK, one, other)).toEqual(areaBetween(DESK, other, one));
    expect(areaBetween(DESK, one, other)).toEqual({ x_px: 10, y_px: 20, width_px: 20, height_px: 70 });
  });

  it("is never empty, and never beyond the screen", () => {
    const corner = { x_px: 1279, y_px: 799 };
    expect(areaBetween(DESK, corner, corner)).toEqual({ ...corner, width_px: 1, height_px: 1 });
  });
});

describe("keyInput", () => {
  it("types a letter, and a line for Enter", () => {
    expect(keyInput("down", { ...BARE, key: "é", code: "KeyE", keyCode: 69, repeat: false })).toMatchObject({ text: "é", key_code: 69 });
    expect(keyInput("down", { ...BARE, key: "Enter", code: "Enter", keyCode: 13, repeat: false })).toMatchObject({ text: "\r" });
  });

  it("types nothing with Control, by a named key, or when a key goes up", () => {
    expect(keyInput("down", { ...BARE, ctrlKey: true, key: "a", code: "KeyA", keyCode: 65, repeat: false })).toMatchObject({ text: "", modifiers: 2 });
    expect(keyInput("down", { ...BARE, key: "Tab", code: "Tab", keyCode: 9, repeat: false })).toMatchObject({ text: "" });
    expect(keyInput("up", { ...BARE, key: "a", code: "KeyA", keyCode: 65, repeat: false })).toMatchObject({ text: "" });
  });
});

describe("modifiersOf and buttonOf", () => {
  it("are as the browser counts them", () => {
    expect(modifiersOf({ altKey: true, ctrlKey: true, metaKey: true, shiftKey: true })).toBe(15);
    expect([0, 1, 2, 3].map(buttonOf)).toEqual(["left", "middle", "right", "none"]);
  });
});

describe("FingerAsPointer", () => {
  it("clicks where it taps", () => {
    const finger = new FingerAsPointer();
    finger.start({ x_px: 10, y_px: 20 });
    finger.move({ x_px: 12, y_px: 21 });
    expect(finger.end().map((input) => input.kind === "pointer" && input.act)).toEqual(["move", "down", "up"]);
  });

  it("scrolls by what it is drawn along, and does not click then", () => {
    const finger = new FingerAsPointer();
    finger.start({ x_px: 10, y_px: 200 });
    expect(finger.move({ x_px: 10, y_px: 150 })).toEqual([{ kind: "pointer", act: "wheel", x_px: 10, y_px: 150, right_px: 0, down_px: 50 }]);
    expect(finger.move({ x_px: 10, y_px: 149 })).toEqual([{ kind: "pointer", act: "wheel", x_px: 10, y_px: 149, right_px: 0, down_px: 1 }]);
    expect(finger.end()).toEqual([]);
  });
});
