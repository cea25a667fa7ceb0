import { expect, test } from "vitest";

import { isFound } from "./finding";

const WORDS = ["Language of dates", "Days and hours are written in the way of this language.", "TALLPAGE_DATES", "Čeština"];

test("a setting is found by the beginnings of its words, in any order and case", () => {
  for (const sought of ["", "dates", "DATE lang", "written hours", "tallpage_dates", "češ", "  of  "]) expect(isFound(sought, WORDS)).toBe(true);
});

test("every word that is sought has to be there", () => {
  for (const sought of ["dates mail", "ates", "x"]) expect(isFound(sought, WORDS)).toBe(false);
});
