import type { Frame, Output } from "../../../api/types";
import { shownSize, shownRows } from "../../page/geometry/folds";
import { outputSize } from "../outputSize";

/** How many bytes a frame would need if its file were encoded as the one that is there. Pure; an estimate. */

/** A file, and the frame that it was made from. */
export interface MadeFile {
  frame: Frame;
  output: Output;
}

/**
 * Rows that the file has already cost what they cost there; others what its rows cost on average. Bytes go
 * with the px of the file: its width, and how much it is scaled.
 */
export function expectedBytes(frame: Frame, { frame: before, output }: MadeFile): number | null {
  const known = output.weights.reduce((sum, band) => sum + band.height_px, 0);
  const bytes = output.weights.reduce((sum, band) => sum + band.bytes, 0);
  const [now, then] = [shownSize(frame), shownSize(before)];
  if (known < 1 || now.width_px < 1 || now.height_px < 1) return null;
  const mean = bytes / known;
  const cost = shownRows(frame).reduce((sum, rows) => {
    let [held, weighed] = [0, 0];
    for (const band of output.weights) {
      const shared = Math.min(rows.top_px + rows.height_px, band.top_px + band.height_px) - Math.max(rows.top_px, band.top_px);
      if (shared <= 0) continue;
      held += shared;
      weighed += (band.bytes / band.height_px) * shared;
    }
    return sum + weighed + mean * (rows.height_px - held);
  }, 0);
  const scale = outputSize(now, output).scale / outputSize(then, output).scale;
  return Math.round(cost * (now.width_px / then.width_px) * scale * scale);
}
