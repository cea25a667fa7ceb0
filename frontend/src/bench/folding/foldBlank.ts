import { findBlank, preparationText } from "../../api/prepared";
import { useNotices } from "../../app/notices";
import { showProblem } from "../../app/showProblem";
import { formatPx } from "../../parts/figures";
import type { CutStore } from "../cut/cutStore";
import { addFolds } from "../cut/frameSteps";
import { sameArea } from "../page/geometry/boxes";
import { foldsOf } from "../page/geometry/folds";

/** From which height on an empty stretch is worth folding, and what is left of it above and below. */
export const LEAST_PX = 120;
export const LEFT_PX = 24;

/** Fold away what of the frame shows nothing, all at once. */
export async function foldBlank(store: CutStore, captureId: number): Promise<void> {
  const { show } = useNotices.getState();
  const { frame } = store.getState().document;
  const { x_px, y_px, width_px, height_px } = frame;
  const box = { x_px, y_px, width_px, height_px };
  try {
    const blank = await findBlank(captureId, box, LEAST_PX, preparationText(store.getState().document));
    // The frame may have been moved meanwhile: what was found is of where it was.
    if (!sameArea(store.getState().document.frame, box)) return;
    const folds = foldsOf(blank, frame.folds, LEFT_PX);
    if (folds.length === 0) {
      show({ tone: "info", text: `There is no empty stretch of ${LEAST_PX} px or more in the frame.` });
      return;
    }
    addFolds(store, folds);
    const rows_px = folds.reduce((sum, row) => sum + row.height_px, 0);
    show({ tone: "info", text: `${folds.length === 1 ? "One empty stretch" : `${folds.length} empty stretches`} folded away: ${formatPx(rows_px)} px.` });
  } catch (error) {
    showProblem(error);
  }
}
