import { afterEach, beforeEach, expect, it, vi } from "vitest";

import { useNotices } from "./notices";

beforeEach(() => {
  vi.useFakeTimers();
  useNotices.setState({ notices: [] });
});
afterEach(() => vi.useRealTimers());

it("lets a line go after a while, but keeps one with something to undo until it is dismissed", () => {
  const { show, dismiss } = useNotices.getState();
  show({ tone: "info", text: "Saved." });
  show({ tone: "info", text: "Deleted.", action: { label: "Undo", run: () => undefined } });
  vi.advanceTimersByTime(60_000);
  expect(useNotices.getState().notices.map((row) => row.text)).toEqual(["Deleted."]);
  dismiss(useNotices.getState().notices[0]?.id ?? 0);
  expect(useNotices.getState().notices).toEqual([]);
});
