import { expect, test } from "vitest";

import { asKnownNow, differing, USUAL, usualTaking } from "./takeSettings";
import { splitSelectors, stepAs } from "./takeSteps";

test("selectors come one a line or with commas, and keep the commas inside their brackets", () => {
  expect(splitSelectors(" #chat, .advert\n\naside:is(.a, .b) ,[title='x, y']")).toEqual([
    "#chat",
    ".advert",
    "aside:is(.a, .b)",
    "[title='x, y']",
  ]);
  expect(splitSelectors(" ,\n")).toEqual([]);
});

test("settings of an earlier version are known under the name they have now, as far as they are not the usual", () => {
  expect(asKnownNow({ settings: { hanging: "keep", wait_ms: 5 } })).toEqual({ fixed_overlays: "keep", wait_ms: 5 });
  expect(asKnownNow({ settings: { hanging: "keep", fixed_overlays: "leave_out" } })).toEqual({});
  expect(asKnownNow({ settings: USUAL })).toEqual({});
  expect(asKnownNow({ changes: { scheme: "dark" } })).toEqual({ scheme: "dark" });
  expect(asKnownNow(undefined)).toEqual({});
});

test("only what differs is kept", () => {
  expect(differing(USUAL, USUAL)).toEqual({});
  expect(differing({ ...USUAL, scheme: "dark", leave_out: ["#chat"] }, USUAL)).toEqual({ scheme: "dark", leave_out: ["#chat"] });
  expect(differing(USUAL, usualTaking({ scheme: "dark" }))).toEqual({ scheme: "light" });
});

test("a step that becomes another kind keeps only what that kind has", () => {
  const typed = { kind: "type", target: "#q", text: "ferries" } as const;
  expect(stepAs(typed, "click")).toEqual({ kind: "click", target: "#q", text: "" });
  expect(stepAs(typed, "press")).toEqual({ kind: "press", target: "", text: "ferries" });
});
