import { create } from "zustand";

import type { Point } from "../page/geometry/boxes";

/** An outline that is being drawn: what has been drawn of it, and where the pointer is; and the corner in hand of one that stands. */
interface OutlineDraft {
  points: readonly Point[];
  inHand: number | null;
}

export const useOutlineDraft = create<OutlineDraft>(() => ({ points: [], inHand: null }));

export function forgetDraft(): void {
  useOutlineDraft.setState({ points: [], inHand: null });
}
