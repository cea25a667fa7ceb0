import type { Fold } from "../../api/types";
import { bottomOf } from "../page/geometry/folds";

/** The nearest place in a calm stretch within reach; one that is in a stretch stays. */
export function nearestCalm(at_px: number, stretches: readonly Fold[], reach_px: number): number {
  let nearest = at_px;
  let least = reach_px;
  for (const stretch of stretches) {
    const inside = Math.min(Math.max(at_px, stretch.top_px), bottomOf(stretch));
    const far = Math.abs(inside - at_px);
    if (far > least) continue;
    [nearest, least] = [inside, far];
  }
  return nearest;
}
