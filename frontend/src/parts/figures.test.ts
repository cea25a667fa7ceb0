import { afterEach, describe, expect, test } from "vitest";

import { splitAddresses } from "../gather/addresses";
import { bandsNear, movedSplit } from "../compare/bands";
import { roomLeftOf, shrinkFor, zoomByWheel, zoomOf, zoomStep } from "../bench/page/geometry/zoom";
import { useOwn } from "../app/own";
import { formatBytes, formatDay, formatsOf, formatSize, formatWhen, parseLimit, parsePx } from "./figures";

test("bytes carry their unit, 1 kB being 1,000 bytes", () => {
  expect([850, 86_400, 999_949, 1_250_000].map(formatBytes)).toEqual(["850 B", "86.4 kB", "999.9 kB", "1.25 MB"]);
  expect(formatSize(1280, 18_420)).toBe("1280 × 18,420");
});

test("leaves in several formats name all of them, each once", () => {
  expect(formatsOf({ format: "", leaves: [] })).toBe("");
  expect(formatsOf({ format: "webp", leaves: [] })).toBe("WebP");
  expect(formatsOf({ format: "webp", leaves: [{ format: "webp" }, { format: "jpeg" }, { format: "webp" }] })).toBe("JPEG, WebP");
});

test("limits are read as people type them, a bare number being kB", () => {
  expect(["90", "90 kB", "64KiB", "1,5 MB", "500 b"].map(parseLimit)).toEqual([90_000, 90_000, 65_536, 1_500_000, 500]);
  expect(["", "0", "-4", "kB", "9 apples"].map(parseLimit)).toEqual([null, null, null, null, null]);
});

test("pixels are whole numbers", () => {
  expect(["720", "1,080 px", " 26 066 "].map(parsePx)).toEqual([720, 1_080, 26_066]);
  expect(["", "7.5", "-3", "px"].map(parsePx)).toEqual([null, null, null, null]);
});

test("times are said as people say them", () => {
  const now = new Date("2026-11-24T12:00:00");
  expect(formatWhen("2026-11-24T11:59:30", now)).toBe("just now");
  expect(formatWhen("2026-11-24T11:48:00", now)).toBe("12 min ago");
  expect(formatWhen("2026-11-24T09:05:00", now)).toBe("09:05");
  expect(formatWhen("2026-10-03T09:05:00", now)).toBe("3 Oct 2026");
});

test("addresses come out of lines, commas and spaces, each once", () => {
  expect(splitAddresses(" a.example\nb.example, a.example;c.example \n")).toEqual(["a.example", "b.example", "c.example"]);
  expect(splitAddresses(" \n ")).toEqual([]);
});

test("only the bands near the view are asked for, and together they are what is seen", () => {
  expect(bandsNear(500, 0, 800)).toEqual([{ number: 0, top_px: 0, height_px: 500 }]);
  const bands = bandsNear(40_000, 20_000, 800);
  expect(bands.length).toBeLessThanOrEqual(4);
  expect(bands[0]?.top_px).toBeLessThanOrEqual(20_000);
  const last = bands.at(-1);
  expect((last?.top_px ?? 0) + (last?.height_px ?? 0)).toBeGreaterThanOrEqual(20_800);
});

test("the split stays on the picture", () => {
  expect([movedSplit(50, 10), movedSplit(95, 10), movedSplit(5, -10)]).toEqual([60, 100, 0]);
});

test("actual pixels are the display's own, and a fitted page never grows beyond them", () => {
  const view = { width: 676, height: 536 };
  const page = { width_px: 1_280, height_px: 10_000 };
  expect(zoomOf(1, page, view, 2)).toBe(0.5);
  expect(zoomOf(16, page, view, 2)).toBe(8);
  expect(zoomOf("fit", { width_px: 300, height_px: 300 }, view, 1)).toBe(1);
  expect(zoomOf("fit", page, view, 1)).toBe(0.5);
  expect(zoomOf("whole", page, view, 1)).toBe(0.05);
  expect(zoomOf("whole", { width_px: 1_280, height_px: 100 }, view, 1)).toBe(0.5);
  expect([1, 0.5, 0.3, 0.2].map((zoom) => shrinkFor(zoom, 1))).toEqual([1, 2, 2, 4]);
  expect([roomLeftOf(100, 301), roomLeftOf(900, 300)]).toEqual([100, 18]);
});

test("zooming goes by known steps, and by the wheel to 16 px of the display for a px and no further", () => {
  expect(zoomStep(1, 1, 1)).toBe(1.5);
  expect(zoomStep(0.5, 2, 1)).toBe(1.5);
  expect(zoomStep(0.63, 1, -1)).toBe(0.5);
  expect(zoomStep(16, 1, 1)).toBe(16);
  expect(zoomStep(0.02, 1, -1)).toBe(0.02);
  expect(zoomByWheel(1, 1, 1)).toBe(1.25);
  expect(zoomByWheel(zoomByWheel(1, 1, 3), 1, -3)).toBeCloseTo(1);
  expect(zoomByWheel(1, 1, 90)).toBe(16);
});

describe("sizes in the unit that is set", () => {
  afterEach(() => useOwn.setState({ values: {} }));

  test("KiB count 1,024 bytes, and a bare limit is read in them", () => {
    useOwn.setState({ values: { "show.units": "KiB" } });
    expect([900, 1_024, 92_160, 5_242_880, 3_221_225_472].map(formatBytes)).toEqual(["900 B", "1.0 KiB", "90.0 KiB", "5.00 MiB", "3.00 GiB"]);
    expect([parseLimit("90"), parseLimit("90 kB"), parseLimit("1 MiB")]).toEqual([92_160, 90_000, 1_048_576]);
  });

  test("no figure is rounded up to a thousand of its unit", () => {
    for (const count of [999_949, 999_950, 999_999, 1_000_000, 999_949_999, 999_999_999]) expect(formatBytes(count)).not.toMatch(/^1000/);
  });
});

test("days are written in the language that is set", () => {
  useOwn.setState({ values: { "show.dates": "de-DE" } });
  expect(formatDay("2026-11-26T12:00:00Z")).toBe("26.11.2026");
  useOwn.setState({ values: {} });
});
