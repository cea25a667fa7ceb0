import { temporal } from "zundo";
import { createStore } from "zustand/vanilla";

import type { Frame } from "../api/types";
import {
  fieldRange,
  type FrameField,
  type Handle,
  movedFrame,
  type PageSize,
  resizedFrame,
  sameFrame,
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
  drag: (draft: Frame) => void;
  drop: () => void;
  cancelDrag: () => void;
  setField: (field: FrameField, value: number) => boolean;
  nudge: (dx_px: number, dy_px: number) => void;
  stretch: (handle: Handle, dx_px: number, dy_px: number) => void;
  frameAll: () => void;
  setFrame: (frame: Frame) => void;
  /** Take over what another window wrote; nothing before it can be undone. */
  replace: (frame: Frame) => void;
}

/** The frame of one cut: plain state with undo, no React. */
export function createFrameStore(page: PageSize, initial: Frame, clock: () => number = () => Date.now()) {
  let lastNudge_ms = -Infinity;
  const store = createStore<FrameState>()(
    temporal(
      (set, get) => {
        /** Consecutive key presses become one step of the history: only the first is recorded. */
        const setByKey = (frame: Frame) => {
          const now_ms = clock();
          const history = store.temporal.getState();
          const sameGesture = now_ms - lastNudge_ms < SAME_GESTURE_MS && history.pastStates.length > 0;
          lastNudge_ms = now_ms;
          if (sameGesture) history.pause();
          set({ frame });
          if (sameGesture) history.resume();
        };
        return {
          page,
          frame: initial,
          draft: null,
          drag: (draft) => set({ draft }),
          drop: () => {
            const { draft } = get();
            lastNudge_ms = -Infinity;
            if (draft) set({ frame: draft, draft: null });
          },
          cancelDrag: () => set({ draft: null }),
          setField: (field, value) => {
            const { least, greatest } = fieldRange(get().frame, field, page);
            if (!Number.isInteger(value) || value < least || value > greatest) return false;
            lastNudge_ms = -Infinity;
            set({ frame: { ...get().frame, [field]: value } });
            return true;
          },
          nudge: (dx_px, dy_px) => setByKey(movedFrame(get().frame, dx_px, dy_px, page)),
          stretch: (handle, dx_px, dy_px) => setByKey(resizedFrame(get().frame, handle, dx_px, dy_px, page)),
          frameAll: () => get().setFrame(wholeFrame(page)),
          setFrame: (frame) => {
            lastNudge_ms = -Infinity;
            set({ frame });
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
  return store;
}

export type FrameStore = ReturnType<typeof createFrameStore>;

/** The frame to show: the one being dragged, else the one that stands. */
export function shownFrame(state: FrameState): Frame {
  return state.draft ?? state.frame;
}
