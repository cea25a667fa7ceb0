import { findBlank, preparationText } from "../../api/prepared";
import type { Area, Fold } from "../../api/types";
import type { HeldKeys } from "../../parts/dragging";
import type { CutState } from "../cut/cutStore";
import { SNAP } from "../marks/handling/snapping";
import { useSnapSwitch } from "../marks/handling/snapSwitch";
import type { PageSize } from "../page/geometry/boxes";
import type { FoldAxis } from "../page/geometry/folds";
import { nearestCalm } from "./nearestCalm";

/** Draws a row or column of the page to the nearest one in which nothing stands. */
export type ToCalm = (at_px: number, keys: HeldKeys) => number;

/** How many rows or columns without anything are a place for a line. */
const LEAST_PX = 3;
const MOST_KEPT = 8;
/** How far beyond the frame its edges find them. */
const AROUND_PX = 1_500;
/** Of more px nothing is asked: it would come too late for the drag. */
const MOST_PX = 40_000_000;

/** What was found, by the part of the page and its preparation; null while it is being looked for. */
const known = new Map<string, readonly Fold[] | null>();

/**
 * What draws to the calm rows or columns of a frame, and of the page before and behind it, once they are
 * known. Asking begins with the first press.
 */
export function toCalm(captureId: number, { document, page }: CutState, axis: FoldAxis, zoom: number): ToCalm {
  const box = lookedAt(document.frame, axis, page);
  if (box.width_px * box.height_px > MOST_PX) return (at_px) => at_px;
  const preparation = preparationText(document);
  const key = [captureId, axis, ...Object.values(box), preparation].join();
  if (!known.has(key) && useSnapSwitch.getState().on) ask(key, captureId, box, axis, preparation);
  return (at_px, { alt }) => (alt || !useSnapSwitch.getState().on ? at_px : nearestCalm(at_px, known.get(key) ?? [], SNAP.reach / zoom));
}

function lookedAt({ x_px, y_px, width_px, height_px }: Area, axis: FoldAxis, page: PageSize): Area {
  const around = (at: number, length: number, end: number) => {
    const first = Math.max(0, at - AROUND_PX);
    return [first, Math.min(end, at + length + AROUND_PX) - first] as const;
  };
  const [left, across] = axis === "down" ? around(x_px, width_px, page.width_px) : [x_px, width_px];
  const [top, down] = axis === "across" ? around(y_px, height_px, page.height_px) : [y_px, height_px];
  return { x_px: left, y_px: top, width_px: across, height_px: down };
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
