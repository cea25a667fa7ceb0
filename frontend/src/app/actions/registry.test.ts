import { expect, test } from "vitest";

import { type Action, ACTIONS, type ActionId, clashes, isOfTheBrowser, plainKey, pressedKey, shownKeys, titled, withOwnKeys } from "./registry";
import { useOwnKeys } from "./ownKeys";
import { helpGroups } from "./help";

test("no key does two things where both are heard", () => {
  expect(clashes()).toEqual([]);
});

test("a clash is found within a scope and with what is around it, and not between two screens", () => {
  const action = (scope: Action["scope"], ...keys: string[]): Action => ({ scope, group: "x", words: "x", keys });
  expect(clashes({ one: action("bench", "w"), two: action("everywhere", "w") })).toEqual([{ key: "w", first: "one", second: "two" }]);
  expect(clashes({ one: action("large", "k"), two: action("proofs", "j", "k") })).toEqual([{ key: "k", first: "one", second: "two" }]);
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

test("own keys take the place of the usual ones, in buttons and help too, but for those that belong together", () => {
  const own = withOwnKeys({ wholePage: ["shift+w"], closer: ["mod+alt+k"], nudge: ["q"], fold: [] });
  expect([shownKeys(own.wholePage), shownKeys(own.closer), shownKeys(own.nudge), shownKeys(own.fold)]).toEqual(["Shift + W", "Ctrl + Alt + K", "Arrows", ""]);
  useOwnKeys.setState({ own: { wholePage: ["shift+w"], fold: [] } });
  expect([titled("wholePage"), titled("fold", "Fold")]).toEqual(["Frame the whole page (Shift+W)", "Fold"]);
  useOwnKeys.setState({ own: {} });
});

test("what is pressed has one spelling, and clashes are found whatever the order of its modifiers", () => {
  const pressed = (code: string, held: Partial<KeyboardEvent> = {}) => pressedKey({ code, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...held });
  expect([pressed("KeyA", { shiftKey: true }), pressed("Digit3", { ctrlKey: true, altKey: true }), pressed("ArrowLeft"), pressed("BracketLeft"), pressed("ShiftLeft")]).toEqual(["shift+a", "mod+alt+3", "left", "bracketleft", null]);
  expect(plainKey("shift+mod+z")).toBe("mod+shift+z");
  const own = withOwnKeys({ wholePage: ["shift+mod+z"] });
  expect(clashes(own)).toEqual([{ key: "mod+shift+z", first: "wholePage", second: "redo" }]);
});

test("keys of the browser stay its own", () => {
  expect([isOfTheBrowser("mod+w"), isOfTheBrowser("tab"), isOfTheBrowser("w"), isOfTheBrowser("shift+f")]).toEqual([true, true, false, false]);
});
