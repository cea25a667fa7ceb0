import { afterEach, beforeEach, expect, test, vi } from "vitest";

import { Problem } from "../../api/client";
import type { Cut, CutDocument, Frame } from "../../api/types";
import { withFolds } from "../page/geometry/folds";
import { wholeFrame } from "../page/geometry/boxes";
import { CutSaver, type SaveState } from "./cutSaver";
import { createCutStore } from "./cutStore";
import { addFolds, setField } from "./frameSteps";

const PAGE = { width_px: 600, height_px: 1_500 };
const WHOLE = withFolds(wholeFrame(PAGE), []);
const OFFLINE = new Problem(0, "offline", "Tall Page does not answer.", "");
const ELSEWHERE = new Problem(409, "changed_elsewhere", "Changed.", "");

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

const cut = (version: number, frame: Frame): Cut => ({ id: 1, capture_id: 1, name: "", version, changed_by: "", review: [], document: { version: 1, hidden: [], sought: [], marks: [], styles: {}, frame } });

/** A server that has one cut, and may be out of reach or in somebody else's hands. */
class Server {
  has = cut(1, WHOLE);
  problem: Problem | null = null;
  /** How long it takes to answer. */
  takes_ms = 0;
  asked = 0;
  writes: CutDocument[] = [];

  save = async (version: number, document: CutDocument): Promise<Cut> => {
    this.asked += 1;
    if (this.takes_ms) await new Promise((resolve) => setTimeout(resolve, this.takes_ms));
    if (this.problem) throw this.problem;
    if (version !== this.has.version) throw ELSEWHERE;
    this.writes.push(document);
    this.has = { ...this.has, version: version + 1, document };
    return this.has;
  };

  changedElsewhere(frame: Frame) {
    this.has = cut(this.has.version + 1, frame);
  }
}

function bench() {
  const server = new Server();
  const store = createCutStore(PAGE, server.has.document);
  const states: SaveState[] = [];
  const leaving = vi.fn();
  const saver = new CutSaver(server.has, store, {
    save: server.save,
    saveLeaving: leaving,
    fetch: () => Promise.resolve(server.has),
    asProblem: (error) => error as Problem,
    onState: (state) => states.push(state),
    onSaved: () => undefined,
    onMerged: () => undefined,
  });
  return { server, store, saver, states, leaving, last: () => states.at(-1) };
}

test("many changes in a moment are written once, with the newest version", async () => {
  const { server, store, last } = bench();
  for (let height_px = 10; height_px < 20; height_px += 1) setField(store, "height_px", height_px);
  expect(last()?.kind).toBe("saving");
  await vi.runAllTimersAsync();
  setField(store, "height_px", 500);
  await vi.runAllTimersAsync();
  expect(server.writes.map((document) => document.frame.height_px)).toEqual([19, 500]);
  expect([last()?.kind, server.has.version]).toEqual(["saved", 3]);
});

test("“saved” is not said while something newer than what was written is shown", async () => {
  const { server, store, states, last } = bench();
  server.takes_ms = 5_000;
  setField(store, "height_px", 100);
  await vi.advanceTimersByTimeAsync(1_000);
  setField(store, "height_px", 200);
  states.length = 0;
  await vi.advanceTimersByTimeAsync(5_000);
  expect(server.writes.map((document) => document.frame.height_px)).toEqual([100]);
  expect(states.map((state) => state.kind)).not.toContain("saved");
  await vi.advanceTimersByTimeAsync(5_000);
  expect([last()?.kind, server.has.document.frame.height_px]).toEqual(["saved", 200]);
});

test("a save that fails twice is kept, told of, tried again by itself, and then saved", async () => {
  const { server, store, states, last } = bench();
  server.problem = OFFLINE;
  setField(store, "width_px", 222);
  await vi.advanceTimersByTimeAsync(300);
  expect(last()).toEqual({ kind: "failed", problem: OFFLINE, again: true });
  await vi.advanceTimersByTimeAsync(1_000);
  expect(states.filter((state) => state.kind === "failed")).toHaveLength(2);
  expect(store.getState().document.frame.width_px).toBe(222);
  server.problem = null;
  await vi.advanceTimersByTimeAsync(2_000);
  expect(last()?.kind).toBe("saved");
  expect(server.has.document.frame.width_px).toBe(222);
});

test("what the server refuses is told of and not tried again by itself", async () => {
  const { server, store, last } = bench();
  server.problem = new Problem(422, "frame_outside", "Outside.", "");
  setField(store, "width_px", 9);
  await vi.advanceTimersByTimeAsync(60_000);
  expect([last(), server.asked]).toEqual([{ kind: "failed", problem: server.problem, again: false }, 1]);
});

test("two windows that change different things both have their way", async () => {
  const { server, store, last } = bench();
  addFolds(store, [{ top_px: 100, height_px: 50 }]);
  server.changedElsewhere({ ...WHOLE, width_px: 300 });
  await vi.runAllTimersAsync();
  expect(last()?.kind).toBe("saved");
  expect(server.has.document.frame).toEqual({ ...WHOLE, width_px: 300, folds: [{ top_px: 100, height_px: 50 }] });
  store.undo(); // the other window's part is a step of its own
  expect(store.getState().document.frame.width_px).toBe(600);
});

test.each(["mine", "theirs"] as const)("two windows that change the same thing: %s is chosen and the other is not lost", async (choice) => {
  const { server, store, saver, last } = bench();
  setField(store, "width_px", 111);
  server.changedElsewhere({ ...WHOLE, width_px: 333 });
  await vi.runAllTimersAsync();
  expect(last()?.kind).toBe("conflict");
  expect([store.getState().document.frame.width_px, server.has.document.frame.width_px]).toEqual([111, 333]);
  setField(store, "width_px", 112); // goes on meanwhile; nothing is written
  await vi.runAllTimersAsync();
  expect(server.writes).toHaveLength(0);
  const { asked } = server;
  await saver.flush(); // somebody wants a file of it
  expect(server.asked).toBe(asked);
  saver.resolve(choice);
  await vi.runAllTimersAsync();
  const [chosen, other] = choice === "mine" ? [112, 333] : [333, 112];
  expect([store.getState().document.frame.width_px, server.has.document.frame.width_px, last()?.kind]).toEqual([chosen, chosen, "saved"]);
  store.undo();
  expect(store.getState().document.frame.width_px).toBe(other);
});

test("a window that is left sends off what is not written, and nothing when all is", async () => {
  const { store, saver, leaving } = bench();
  saver.leave();
  expect(leaving).not.toHaveBeenCalled();
  setField(store, "width_px", 50);
  saver.leave();
  expect(leaving).toHaveBeenCalledWith(1, store.getState().document);
  await vi.runAllTimersAsync();
});

test("a cut that is closed is written", async () => {
  const { server, store, saver } = bench();
  setField(store, "width_px", 50);
  saver.close();
  await vi.runAllTimersAsync();
  expect(server.has.document.frame.width_px).toBe(50);
});
