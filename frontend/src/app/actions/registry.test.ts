import { expect, test } from "vitest";

import { type Action, ACTIONS, type ActionId, clashes, shownKeys, titled } from "./registry";
import { helpGroups } from "./help";

test("no key does two things where both are heard", () => {
  expect(clashes()).toEqual([]);
});

test("a clash is found within a scope and with what is around it, and not between two screens", () => {
  const action = (scope: Action["scope"], ...keys: string[]): Action => ({ scope, group: "x", words: "x", keys });
  expect(clashes({ one: action("bench", "w"), two: action("everywhere", "w") })).toEqual(["w: one, two"]);
  expect(clashes({ one: action("large", "k"), two: action("proofs", "j", "k") })).toEqual(["k: one, two"]);
  expect(clashes({ one: action("bench", "k"), two: action("proofs", "k") })).toEqual([]);
});

test("keys are shown as a person reads them, and buttons say theirs", () => {
  expect(shownKeys(ACTIONS.undo)).toBe("Ctrl + Z");
  expect(shownKeys(ACTIONS.mark)).toBe("K / R / D / U");
  expect(shownKeys(ACTIONS.nudge)).toBe("Arrows");
  expect(titled("wholePage")).toBe("Frame the whole page (P)");
  expect(titled("undo", "Undo: frame moved")).toBe("Undo: frame moved (Ctrl+Z)");
});

test("help shows every action once, under its heading", () => {
  const shown = helpGroups().flatMap((group) => group.rows.map((row) => row.does));
  for (const id of Object.keys(ACTIONS) as ActionId[]) expect(shown.filter((words) => words === ACTIONS[id].words)).toHaveLength(1);
  expect(helpGroups()[0]?.name).toBe("Everywhere");
});
