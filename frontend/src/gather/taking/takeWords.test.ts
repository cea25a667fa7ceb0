import { expect, test } from "vitest";

import { takeWords } from "./takeWords";

test("only what is said is told", () => {
  expect(takeWords({})).toEqual([]);
  expect(takeWords({ scheme: "dark", wait_ms: 1_500, leave_out: ["#chat", ".advert"], signed_in: false })).toEqual([
    "dark colours",
    "wait 1.5 s",
    "hide #chat, .advert",
    "never signed in",
  ]);
});

test("what goes back to the usual for one host is told too", () => {
  expect(takeWords({ leave_out: [], wait_ms: 0, page_width: "screen" })).toEqual(["as wide as the screen", "wait 0 s", "hide nothing by selector"]);
});

test("steps and elements are told with where they are", () => {
  expect(takeWords({ extent: "between", element: "h2", to_element: "footer", steps: [{ kind: "click", target: '"Accept"', text: "" }] })).toEqual([
    "from h2 to footer",
    'Click "Accept"',
  ]);
});
