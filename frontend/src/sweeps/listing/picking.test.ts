import { describe, expect, it } from "vitest";

import type { ListedPage } from "../../api/types";
import { counted } from "../../parts/figures";
import { isChangedSince, isPicked, matches, placeOf, roughly, toggled } from "./picking";

const page: ListedPage = {
  address: "https://skerrin.example/news/fog?x=1",
  host: "skerrin.example",
  section: "/news",
  title: "Fog at the Narrows",
  line: 3,
  modified: "",
  forbidden: false,
};
const none = { leftOut: new Set<string>(), placesOut: new Set<string>(), respectRobots: true };

describe("which pages stay", () => {
  it("finds words in address and title, and takes stars for anything", () => {
    expect(["", "NARROWS", "/news/", "example/*?x=1", "fog*narrows"].map((words) => matches(page, words))).toEqual([
      true, true, true, true, true,
    ]);
    expect(["fleet", "news*fleet", "f.g"].map((words) => matches(page, words))).toEqual([false, false, false]);
  });

  it("knows which were changed since a day", () => {
    const changed = { ...page, modified: "2026-11-18" };
    expect(["", "2026-11-18", "2026-11-19"].map((day) => isChangedSince(changed, day))).toEqual([true, true, false]);
    expect(isChangedSince(page, "2026-01-01")).toBe(false);
  });

  it("leaves out single pages, whole places, and what robots.txt asks for", () => {
    expect(isPicked(page, none)).toBe(true);
    expect(isPicked(page, { ...none, leftOut: new Set([page.address]) })).toBe(false);
    expect(isPicked(page, { ...none, placesOut: new Set([placeOf(page)]) })).toBe(false);
    expect(isPicked({ ...page, forbidden: true }, none)).toBe(false);
    expect(isPicked({ ...page, forbidden: true }, { ...none, respectRobots: false })).toBe(true);
  });

  it("toggles without touching the set it was given", () => {
    const set = new Set([1]);
    expect([...toggled(set, 2)]).toEqual([1, 2]);
    expect([...toggled(set, 1)]).toEqual([]);
    expect([...set]).toEqual([1]);
  });
});

describe("words for counts and times", () => {
  it("counts one and many", () => {
    expect([counted(1, "page"), counted(1_200, "page"), counted(2, "address", "addresses")]).toEqual([
      "1 page", "1,200 pages", "2 addresses",
    ]);
  });

  it("rounds what is left", () => {
    expect([10, 240, 7_200].map(roughly)).toEqual(["under a minute", "about 4 min", "about 2.0 h"]);
  });
});
