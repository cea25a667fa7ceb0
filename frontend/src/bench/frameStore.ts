import { temporal } from "zundo";
import { createStore } from "zustand/vanilla";

import type { Area, Fold, Frame } from "../api/types";
import { sameFolds, withFolds } from "./folds";
import {
  fieldRange,
  type FrameField,
  type Handle,
  movedFrame,
  type PageSize,
  resizedFrame,
  sameArea,
  wholeFrame,
} from "./geometry";

/** Presses of a key that follow each other so closely are undone as one. */
const SAME_GESTURE_MS = 700;

export interface FrameState {
  page: PageSize;
  /** The frame as it stands; its history can be undone. */
  frame: Frame;
  /** The frame while it is being dragged; not yet part of the history. */
  draft: Frame | null;
  /** Whether the next drag draws a fold. */
  folding: boolean;
  drag: (draft: Area) => void;
  /** A fold on its way: it joins its neighbours, and is saved, only when it is let go. */
  dragFold: (index: number, fold: Fold) => void;
  drop: () => void;
  cancelDrag: () => void;
  setField: (field: FrameField, value: number) => boolean;
  nudge: (dx_px: number, dy_px: number) => void;
  stretch: (handle: Handle, dx_px: number, dy_px: number) => void;
  frameAll: () => void;
  setFrame: (area: Area) => void;
  setFolding: (folding: boolean) => void;
  addFolds: (folds: readonly Fold[]) => void;
  setFold: (index: number, fold: Fold) => void;
  removeFold: (index: number) => void;
  /** Take over what another window wrote; nothing before it can be undone. */
  replace: (frame: Frame) => void;
}

/** The frame of one cut: plain state with undo, no React. */
export function createFrameStore(page: PageSize, initial: Frame, clock: () => number = () => Date.now()) {
  let lastNudge_ms = -Infinity;
  const store = createStore<FrameState>()(
    temporal(
      (set, get) => {
        /** Consecutive small changes become one step of the history: only the first is recorded. */
        const setInGesture = (frame: Frame) => {
          const now_ms = clock();
          const history = store.temporal.getState();
          const sameGesture = now_ms - lastNudge_ms < SAME_GESTURE_MS && history.pastStates.length > 0;
          lastNudge_ms = now_ms;
          if (sameGesture) history.pause();
          set({ frame });
          if (sameGesture) history.resume();
        };
        const framed = (area: Area) => withFolds(area, get().frame.folds);
        return {
          page,
          frame: initial,
          draft: null,
          folding: false,
          drag: (area) => set({ draft: framed(area) }),
          dragFold: (index, fold) => set({ draft: { ...get().frame, folds: get().frame.folds.with(index, fold) } }),
          drop: () => {
            const { draft, frame } = get();
            lastNudge_ms = -Infinity;
            if (!draft) return;
            const dropped = withFolds(draft, draft.folds);
            // Folds that would hide everything change nothing.
            const possible = dropped.folds.length > 0 || draft.folds.length === 0;
            set({ frame: possible ? dropped : frame, draft: null });
          },
          cancelDrag: () => set({ draft: null }),
          setField: (field, value) => {
            const { least, greatest } = fieldRange(get().frame, field, page);
            if (!Number.isInteger(value) || value < least || value > greatest) return false;
            lastNudge_ms = -Infinity;
            set({ frame: framed({ ...get().frame, [field]: value }) });
            return true;
          },
          nudge: (dx_px, dy_px) => setInGesture(framed(movedFrame(get().frame, dx_px, dy_px, page))),
          stretch: (handle, dx_px, dy_px) => setInGesture(framed(resizedFrame(get().frame, handle, dx_px, dy_px, page))),
          frameAll: () => get().setFrame(wholeFrame(page)),
          setFrame: (area) => {
            lastNudge_ms = -Infinity;
            set({ frame: framed(area) });
          },
          setFolding: (folding) => set({ folding }),
          addFolds: (folds) => {
            const { frame } = get();
            const changed = withFolds(frame, [...frame.folds, ...folds]);
            lastNudge_ms = -Infinity;
            // What would fold everything away changes nothing.
            set({ frame: changed.folds.length > 0 ? changed : frame, folding: false });
          },
          setFold: (index, fold) => {
            const { frame } = get();
            const changed = withFolds(frame, frame.folds.with(index, fold));
            if (changed.folds.length > 0) setInGesture(changed);
          },
          removeFold: (index) => {
            lastNudge_ms = -Infinity;
            set({ frame: withFolds(get().frame, get().frame.folds.toSpliced(index, 1)) });
          },
          replace: (frame) => {
            set({ frame, draft: null });
            store.temporal.getState().clear();
          },
        };
      },
      {
        partialize: (state) => ({ frame: state.frame }),
        equality: (past, current) => sameFrame(past.frame, current.frame),
        limit: 200,
      },
    ),
  );
  // Whatever is nudged after an undo is a step of its own.
  store.temporal.subscribe((now, before) => {
    if (now.futureStates.length > before.futureStates.length) lastNudge_ms = -Infinity;
  });
  return store;
}

export function sameFrame(first: Frame, second: Frame): boolean {
  return sameArea(first, second) && sameFolds(first.folds, second.folds);
}

export type FrameStore = ReturnType<typeof createFrameStore>;

/** The frame to show: the one being dragged, else the one that stands. */
export function shownFrame(state: FrameState): Frame {
  return state.draft ?? state.frame;
}
