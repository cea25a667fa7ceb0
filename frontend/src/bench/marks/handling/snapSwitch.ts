import { create } from "zustand";

import type { Block } from "../../../api/types";
import { extentOf, type ShownMark } from "./hitMarks";
import type { Snapping } from "./markGestures";
import { type Guide, type Snap, snapOf } from "./snapping";

const KEPT = "tallpage-snapping";

/** Whether marks are drawn to edges: one switch for all pages, kept in this browser. */
export const useSnapSwitch = create<{ on: boolean; turn: () => void }>((set, get) => ({
  on: localStorage.getItem(KEPT) !== "off",
  turn: () => {
    const on = !get().on;
    localStorage.setItem(KEPT, on ? "on" : "off");
    set({ on });
  },
}));

/** What draws some marks to the blocks of a page and to its other marks. */
export function snappingFor(blocks: readonly Block[], shown: readonly ShownMark[], zoom: number, ids: readonly string[], show: (guides: readonly Guide[]) => void): Snapping {
  const edges = blocks.map(({ x_px, y_px, width_px, height_px }) => ({ left_px: x_px, top_px: y_px, right_px: x_px + width_px, bottom_px: y_px + height_px }));
  const marks = shown.flatMap((row) => (ids.includes(row.mark.id) || row.mark.kind === "dim" ? [] : (extentOf(row) ?? [])));
  return {
    by: (moving, { alt }, axes = "xy") => {
      const snap = useSnapSwitch.getState().on && !alt ? snapOf(moving, { blocks: edges, marks }, zoom, axes) : NOWHERE;
      show(snap.guides);
      return snap.by;
    },
    end: () => show([]),
  };
}

const NOWHERE: Snap = { by: { x_px: 0, y_px: 0 }, guides: [] };
