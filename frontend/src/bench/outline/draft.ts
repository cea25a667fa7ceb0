import { create } from "zustand";

import type { Point } from "../page/geometry/boxes";

/** What has been drawn of an outline that is on its way, and which corner of one that stands is in hand. */
interface OutlineDraft {
  points: readonly Point[];
  inHand: number | null;
}

export const useOutlineDraft = create<OutlineDraft>(() => ({ points: [], inHand: null }));

export function forgetDraft(): void {
  useOutlineDraft.setState({ points: [], inHand: null });
}
