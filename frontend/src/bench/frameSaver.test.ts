import { afterEach, beforeEach, expect, test, vi } from "vitest";

import { Problem } from "../api/client";
import type { Cut, Frame } from "../api/types";
import { withFolds } from "./folds";
import { FrameSaver, type SaveState } from "./frameSaver";
import { createFrameStore } from "./frameStore";
import { wholeFrame } from "./geometry";

const PAGE = { width_px: 600, height_px: 1_500 };
const WHOLE = withFolds(wholeFrame(PAGE), []);

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

function bench(save: (version: number, frame: Frame) => Promise<Cut>) {
  const store = createFrameStore(PAGE, WHOLE);
  const states: SaveState["kind"][] = [];
  const told: string[] = [];
  const cut: Cut = { id: 1, capture_id: 1, name: "Cut 1", frame: WHOLE, version: 1 };
  const saver = new FrameSaver(cut, store, {
    save: (_id, version, frame) => save(version, frame),
    fetch: () => Promise.resolve({ ...cut, version: 7, frame: { ...WHOLE, height_px: 77 } }),
    asProblem: (error) => error as Problem,
    onState: (state) => states.push(state.kind),
    onSaved: () => undefined,
    onChangedElsewhere: (problem) => told.push(problem.sentence),
  });
  return { store, saver, states, told };
}

test("many changes in a moment are written once, with the newest version", async () => {
  const save = vi.fn((version: number, frame: Frame) => Promise.resolve({ id: 1, capture_id: 1, name: "", frame, version: version + 1 }));
  const { store } = bench(save);
  for (let height_px = 10; height_px < 20; height_px += 1) store.getState().setField("height_px", height_px);
  await vi.runAllTimersAsync();
  store.getState().setField("height_px", 500);
  await vi.runAllTimersAsync();
  expect(save.mock.calls.map(([version, frame]) => [version, frame.height_px])).toEqual([
    [1, 19],
    [2, 500],
  ]);
});

test("a refused write keeps the frame and can be tried again", async () => {
  const save = vi
    .fn<(version: number, frame: Frame) => Promise<Cut>>()
    .mockRejectedValueOnce(new Problem(507, "storage_full", "The disk is full.", ""))
    .mockImplementation((version, frame) => Promise.resolve({ id: 1, capture_id: 1, name: "", frame, version: version + 1 }));
  const { store, saver, states } = bench(save);
  store.getState().setField("height_px", 40);
  await vi.runAllTimersAsync();
  expect(states.at(-1)).toBe("failed");
  expect(store.getState().frame.height_px).toBe(40);
  await saver.flush();
  expect(states.at(-1)).toBe("saved");
});

test("what another window wrote first is taken over and told", async () => {
  const save = () => Promise.reject(new Problem(409, "changed_elsewhere", "Changed in another window.", ""));
  const { store, told } = bench(save);
  store.getState().setField("height_px", 40);
  await vi.runAllTimersAsync();
  expect(store.getState().frame.height_px).toBe(77);
  expect(told).toEqual(["Changed in another window."]);
});

test("nothing is written when nothing changed", async () => {
  const save = vi.fn();
  const { saver } = bench(save);
  await saver.flush();
  saver.close();
  expect(save).not.toHaveBeenCalled();
});
