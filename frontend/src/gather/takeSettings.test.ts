import { expect, test } from "vitest";

import { asKnownNow, countUnusual, splitSelectors, stepAs, USUAL } from "./takeSettings";

test("selectors come one a line or with commas, and keep the commas inside their brackets", () => {
  expect(splitSelectors(" #chat, .advert\n\naside:is(.a, .b) ,[title='x, y']")).toEqual([
    "#chat",
    ".advert",
    "aside:is(.a, .b)",
    "[title='x, y']",
  ]);
  expect(splitSelectors(" ,\n")).toEqual([]);
});

test("settings of an earlier version are known under the name they have now", () => {
  expect(asKnownNow({ hanging: "keep", wait_ms: 5 })).toEqual({ ...USUAL, fixed_overlays: "keep", wait_ms: 5 });
  expect(asKnownNow({ hanging: "keep", fixed_overlays: "leave_out" })).toEqual(USUAL);
  expect(asKnownNow({})).toEqual(USUAL);
});

test("what differs from the usual is counted", () => {
  expect(countUnusual(USUAL)).toBe(0);
  expect(countUnusual({ ...USUAL, scheme: "dark", leave_out: ["#chat"] })).toBe(2);
});

test("a step that becomes another kind keeps only what that kind has", () => {
  const typed = { kind: "type", target: "#q", text: "ferries" } as const;
  expect(stepAs(typed, "click")).toEqual({ kind: "click", target: "#q", text: "" });
  expect(stepAs(typed, "press")).toEqual({ kind: "press", target: "", text: "ferries" });
});
