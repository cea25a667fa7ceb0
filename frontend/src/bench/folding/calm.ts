import { findBlank, preparationText } from "../../api/prepared";
import type { Area, Fold } from "../../api/types";
import type { HeldKeys } from "../../parts/dragging";
import type { CutState } from "../cut/cutStore";
import { SNAP } from "../marks/snapping";
import { useSnapSwitch } from "../marks/snapSwitch";
import type { FoldAxis } from "../page/geometry/folds";
import { nearestCalm } from "./nearestCalm";

/** Draws a row or column of the page to the nearest one in which nothing stands. */
export type ToCalm = (at_px: number, keys: HeldKeys) => number;

/** How many rows or columns without anything are a place for a line. */
const LEAST_PX = 3;
const MOST_KEPT = 8;

/** What was found, by the part of the page and its preparation; null while it is being looked for. */
const known = new Map<string, readonly Fold[] | null>();

/** What draws to the calm rows or columns of a frame, once they are known. Asking begins with the first press. */
export function toCalm(captureId: number, { document }: CutState, axis: FoldAxis, zoom: number): ToCalm {
  const { x_px, y_px, width_px, height_px } = document.frame;
  const preparation = preparationText(document);
  const key = [captureId, axis, x_px, y_px, width_px, height_px, preparation].join();
  if (!known.has(key) && useSnapSwitch.getState().on) ask(key, captureId, { x_px, y_px, width_px, height_px }, axis, preparation);
  return (at_px, { alt }) => (alt || !useSnapSwitch.getState().on ? at_px : nearestCalm(at_px, known.get(key) ?? [], SNAP.reach / zoom));
}

function ask(key: string, captureId: number, box: Area, axis: FoldAxis, preparation: string): void {
  known.set(key, null);
  const oldest = [...known.keys()].slice(0, -MOST_KEPT);
  for (const old of oldest) known.delete(old);
  findBlank(captureId, box, LEAST_PX, preparation, axis).then(
    (found) => known.set(key, found),
    // Lines can be drawn without it; the next press asks again.
    () => known.delete(key),
  );
}
