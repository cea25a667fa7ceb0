import { beforeEach, expect, test } from "vitest";

import { Problem } from "../api/client";
import { stayMs, useNotices } from "./notices";
import { showProblem } from "./showProblem";

beforeEach(() => {
  useNotices.setState({ waiting: [], begun: false });
});

test("what is said before anything can show it is shown in its order, once", () => {
  const { show, take } = useNotices.getState();
  show({ tone: "info", text: "Deleted." });
  show({ tone: "error", text: "The file is gone." });
  expect(take().map((row) => row.text)).toEqual(["Deleted.", "The file is gone."]);
  expect(take()).toEqual([]);
  expect(useNotices.getState().begun).toBe(true);
});

test("what can be undone stays until it is dismissed, all else goes by itself", () => {
  expect(stayMs({ tone: "info", text: "Saved." })).toBeGreaterThan(5_000);
  expect(stayMs({ tone: "info", text: "Deleted.", action: { label: "Undo", run: () => undefined } })).toBe(0);
});

test("what went wrong is said with what can be done", () => {
  const { take } = useNotices.getState();
  showProblem(new Problem(409, "no_file", "There is no file yet.", "Fit it again."));
  showProblem(new TypeError("x is undefined"));
  expect(take()).toEqual([
    { tone: "error", text: "There is no file yet.", hint: "Fit it again." },
    { tone: "error", text: "Something went wrong in this window.", hint: "Reload the page and try again." },
  ]);
});
