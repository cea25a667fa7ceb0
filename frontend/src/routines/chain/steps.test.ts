import { expect, test } from "vitest";

import type { RoutineDocument, RoutineStep } from "../../api/types";
import { blockWords, kindOf, STEP_KINDS, stepWords } from "./stepKinds";
import { asking, duplicated, isAskable, mayMove, moved, replaced, valueAt, withoutPart, withoutStep, withPart, withStep, withValue } from "./steps";

const kinds = (document: RoutineDocument) => document.steps.map((step) => kindOf(step).words);
const chain = (...steps: RoutineStep[]): RoutineDocument => ({ version: 1, name: "Tried", steps });
const FRAME: RoutineStep = { kind: "frame_block", block: { role: "table" } };
const BORDER: RoutineStep = { kind: "dress", dressing: { border: { width_px: 2 } } };
const SLOT: RoutineStep = { kind: "slot", width_px: 600, limit_bytes: 60_000 };

test("a step goes to its place in the order of work, behind those of its stage", () => {
  let document = chain();
  for (const step of [SLOT, BORDER, { kind: "trim" }, FRAME, { kind: "take" }]) document = withStep(document, step).document;
  expect(kinds(document)).toEqual(["Take a page", "Trim plain edges", "Show a block", "Border", "Make a file"]);
  expect(withStep(document, { kind: "tone", tone: {} }).at).toBe(3);
});

test("steps change places within their stage only", () => {
  const document = chain({ kind: "trim" }, FRAME, BORDER);
  expect([mayMove(document, 0, -1), mayMove(document, 0, 1), mayMove(document, 1, 1)]).toEqual([false, true, false]);
  expect(kinds(moved(document, 0, 1))).toEqual(["Show a block", "Trim plain edges", "Border"]);
  expect(moved(document, 1, 1)).toBe(document);
});

test("a step is duplicated apart from the first, replaced and removed", () => {
  const document = duplicated(chain(FRAME, SLOT), 1);
  const [, first, second] = document.steps;
  expect(second).toEqual(first);
  expect(second).not.toBe(first);
  expect(kinds(withoutStep(document, 0))).toEqual(["Make a file", "Make a file"]);
  expect(replaced(document, 0, { kind: "trim" }).steps[0]).toEqual({ kind: "trim" });
});

test("values are read and set where they stand, and what is not given any more has gone", () => {
  expect(valueAt(BORDER, "dressing.border.width_px")).toBe(2);
  expect(withValue(BORDER, "dressing.border.colour", "#123456")).toEqual({ kind: "dress", dressing: { border: { width_px: 2, colour: "#123456" } } });
  expect(withValue(SLOT, "limit_bytes", undefined)).toEqual({ kind: "slot", width_px: 600 });
  expect(BORDER).toEqual({ kind: "dress", dressing: { border: { width_px: 2 } } });
});

test("single values can be asked for, and are known by the last part of their place", () => {
  expect([isAskable(SLOT, "width_px"), isAskable(FRAME, "block"), isAskable(SLOT, "name")]).toEqual([true, false, false]);
  const asked = asking(SLOT, "width_px", "Width, px", true);
  expect(asked.ask).toEqual([{ name: "width", field: "width_px", words: "Width, px" }]);
  expect(asking(asked, "width_px", "Width, px", false)).toEqual(SLOT);
});

test("each step that can be added is known again, and says something of itself", () => {
  for (const kind of STEP_KINDS) {
    if (!kind.fresh) continue;
    expect(kindOf(kind.fresh).words).toBe(kind.words);
    expect(stepWords(kind.fresh), kind.words).not.toBe("");
  }
});

test("kinds stand in the order of their stages", () => {
  const stages = STEP_KINDS.map((kind) => kind.stage);
  expect(stages).toEqual([...stages].sort((one, other) => one - other));
});

test("a rule for a block is said in words", () => {
  expect(blockWords({ role: "table", below: "Fares", number: -1 })).toBe("table below “Fares”, the last");
  expect(blockWords({ says: "Cars", selector: "#x" })).toBe("“Cars” #x");
  expect(blockWords(undefined)).toBe("a block");
});

test("a part of a step is changed or left out, and the others stay", () => {
  const step: RoutineStep = { kind: "marks", marks: [{ kind: "box", x_px: 1 }, { kind: "text", text: "Here" }] };
  expect(withPart(step, "marks", 1, { text: "There" })).toEqual({ kind: "marks", marks: [{ kind: "box", x_px: 1 }, { kind: "text", text: "There" }] });
  expect(withoutPart(step, "marks", 0)).toEqual({ kind: "marks", marks: [{ kind: "text", text: "Here" }] });
});
