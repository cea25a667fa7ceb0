import { applyPatches, type Draft, enablePatches, type Patch, produce, produceWithPatches } from "immer";
import { createStore, type StoreApi } from "zustand/vanilla";

import type { CutDocument, HiddenArea, MarkKind } from "../../api/types";
import type { PageSize } from "../page/geometry/boxes";
import type { FoldAxis } from "../page/geometry/folds";
import { isUpright, turnedPage } from "../turning/turned";
import { canonical } from "./canonical";

enablePatches();

/** Steps that are kept. */
const MOST_STEPS = 200;
/** Presses of a key that follow each other so closely are undone as one. */
const SAME_GESTURE_MS = 700;

/** The order of work: which part, what is pointed at, what is hidden, what is put around it. */
export type Stage = "part" | "point" | "hide" | "dress";

/** What the next drag on the page does. */
export type Tool =
  | { kind: "frame" }
  | { kind: "fold"; axis: FoldAxis }
  | { kind: "mend" }
  | { kind: "outline"; how: "hand" | "points" | "corners" }
  | { kind: "level" }
  | { kind: "clear" }
  | { kind: "put_back" }
  | { kind: "ruler" }
  | { kind: "select" }
  | { kind: "mark"; mark: MarkKind }
  | { kind: "hide"; how: HiddenArea["how"] };

/** What each stage begins with. */
const FIRST_TOOL: Record<Stage, Tool> = {
  part: { kind: "frame" },
  point: { kind: "select" },
  hide: { kind: "hide", how: "solid" },
  dress: { kind: "select" },
};

/** One step of the history: what was done, in words, and how to do it again and take it back. */
export interface Step {
  words: string;
  forward: Patch[];
  back: Patch[];
}

export interface CutHistory {
  past: Step[];
  /** What was undone, the next to be done again last. */
  future: Step[];
}

export interface Page extends PageSize {
  /** Px of the page for each CSS px of the screen that it was taken on; 1 where that is not known. */
  scale?: number;
}

export interface CutState extends CutHistory {
  /** The page as it was taken. */
  taken: Page;
  /** The page as the cut turns it: all places of the cut count on this one. */
  page: Page;
  /** The cut as it stands. */
  document: CutDocument;
  /** The cut while a gesture lasts; not yet part of the history. */
  preview: CutDocument | null;
  stage: Stage;
  tool: Tool;
  /** Ids of the marks and hidden areas in hand. */
  selected: readonly string[];
  /** Id of the text that is being typed. */
  editing: string | null;
}

export type Change = (document: Draft<CutDocument>) => void;

export interface CutStore extends StoreApi<CutState> {
  /** Show what a gesture would do to the cut as it stands. */
  preview: (change: Change) => void;
  cancel: () => void;
  /** Do something, as one step; with a `gesture`, one with the step before when that follows closely. */
  commit: (words: string, change: Change, gesture?: string) => void;
  undo: () => void;
  redo: () => void;
  setTool: (tool: Tool) => void;
  setStage: (stage: Stage) => void;
  select: (ids: readonly string[]) => void;
  /** Type a text; null ends it. */
  edit: (id: string | null) => void;
}

const NOTHING_DONE: CutHistory = { past: [], future: [] };

/** The whole cut with its history: plain state, no React. */
export function createCutStore(
  taken: Page,
  document: CutDocument,
  history: CutHistory = NOTHING_DONE,
  clock: () => number = () => Date.now(),
): CutStore {
  let last = { gesture: "", at_ms: -Infinity };
  const store = createStore<CutState>()(() => ({ taken, page: pageOf(taken, document), document, preview: null, stage: "part", tool: FIRST_TOOL.part, selected: [], editing: null, ...history }));
  const { getState, setState } = store;
  /** Another document, and the page as it turns that. */
  const changedTo = (document: CutDocument) => {
    const before = getState();
    const turns = canonical(document.orientation ?? null) !== canonical(before.document.orientation ?? null);
    return { document, page: turns ? pageOf(taken, document) : before.page };
  };
  const forgetGesture = () => (last = { gesture: "", at_ms: -Infinity });
  /** Take the last step of one list to the other, and the cut along with it. */
  const walk = (from: keyof CutHistory, to: keyof CutHistory, patches: "back" | "forward") => () => {
    const state = getState();
    const step = state[from].at(-1);
    if (!step) return;
    forgetGesture();
    const document = applyPatches(state.document, step[patches]);
    setState({
      ...changedTo(document),
      preview: null,
      [from]: state[from].slice(0, -1),
      [to]: [...state[to], step],
    });
  };
  return Object.assign(store, {
    preview: (change: Change) => setState({ preview: produce(getState().document, change) }),
    cancel: () => setState({ preview: null }),
    commit: (words: string, change: Change, gesture = "") => {
      const { document: before, past } = getState();
      const [after, forward, back] = produceWithPatches(before, change);
      if (sameDocument(before, after)) {
        setState({ preview: null });
        return;
      }
      const at_ms = clock();
      const goesOn = gesture !== "" && gesture === last.gesture && at_ms - last.at_ms < SAME_GESTURE_MS;
      const joined = goesOn ? past.at(-1) : undefined;
      last = { gesture, at_ms };
      const step = joined
        ? { words, forward: [...joined.forward, ...forward], back: [...back, ...joined.back] }
        : { words, forward, back };
      const kept = joined ? past.slice(0, -1) : past;
      setState({ ...changedTo(after), preview: null, past: [...kept, step].slice(-MOST_STEPS), future: [] });
    },
    undo: walk("past", "future", "back"),
    redo: walk("future", "past", "forward"),
    setTool: (tool: Tool) => setState({ tool }),
    setStage: (stage: Stage) => setState({ stage, tool: FIRST_TOOL[stage], selected: [], editing: null }),
    select: (selected: readonly string[]) => setState({ selected }),
    edit: (editing: string | null) => setState({ editing }),
  });
}

/** Whether two documents say the same. */
export function sameDocument(first: CutDocument, second: CutDocument): boolean {
  return first === second || canonical(complete(first)) === canonical(complete(second));
}

/** A document with all of its parts; older ones do not name those that came later. */
export function complete(document: CutDocument): CutDocument {
  const { dressing, tone, orientation, cleared, seam, outline, frame, ...rest } = document;
  const { folds_down = [], ...across } = frame;
  const whole = folds_down.length > 0 ? frame : across;
  const parts = Object.entries({ dressing, tone, orientation, cleared, seam, outline }).filter(([, part]) => part && Object.keys(part).length > 0);
  return { ...EMPTY, ...rest, frame: whole, ...Object.fromEntries(parts) };
}

function pageOf(taken: Page, { orientation }: CutDocument): Page {
  if (isUpright(orientation)) return taken;
  const { width_px, height_px } = turnedPage(taken, orientation);
  return { ...taken, width_px, height_px };
}

const EMPTY = { hidden: [], sought: [], marks: [], styles: {} } satisfies Partial<CutDocument>;

/** The cut to show: the one in the middle of a gesture, else the one that stands. */
export function shownCut(state: CutState): CutDocument {
  return state.preview ?? state.document;
}
