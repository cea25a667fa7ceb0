import { create } from "zustand";

import type { Point } from "../page/geometry/boxes";

/** Where a drag on the page is now, and where that is in the window; null while nothing is dragged. */
export interface Pointed {
  at: Point;
  x: number;
  y: number;
}

export const usePointed = create<{ pointed: Pointed | null }>(() => ({ pointed: null }));
