import { expect, test } from "vitest";

import { ANYTHING, isParticular, lookedOf, wantedOf } from "./looked";

test("the pages of sweeps are left out only where nothing in particular is looked for", () => {
  expect(wantedOf(ANYTHING).alone).toBe(true);
  expect(wantedOf({ ...ANYTHING, swept: true }).alone).toBe(false);
  for (const said of [{ words: "fare" }, { folder: 0 }, { host: "a.example" }, { until: "2026-03-31" }, { state: "failed" as const }]) {
    expect(isParticular({ ...ANYTHING, ...said })).toBe(true);
    expect(wantedOf({ ...ANYTHING, ...said }).alone).toBe(false);
  }
});

test("days and folders that are not said are not asked for", () => {
  expect(wantedOf({ ...ANYTHING, words: " fare " })).toEqual({ words: "fare", alone: false, label: "", host: "", screen: "", state: "" });
  expect(wantedOf({ ...ANYTHING, folder: 0, since: "2026-03-01" })).toMatchObject({ folder: 0, since: "2026-03-01" });
});

test("a search that was kept is looked for as it was", () => {
  const looked = { ...ANYTHING, words: "fare", folder: 3, since: "2026-03-01" };
  for (const row of [looked, ANYTHING, { ...ANYTHING, swept: true }]) expect(lookedOf(wantedOf(row))).toEqual(row);
});
