import type { Area, Fold, Frame } from "../../../api/types";
import type { PageSize, Point } from "./boxes";

/** Bands that are folded away, in page pixels. Pure; the server keeps to the same rules. */

/** Whether a band lies across the page, as rows do, or down it, as columns do. */
export type FoldAxis = "across" | "down";

export const bottomOf = (fold: Fold) => fold.top_px + fold.height_px;

/** The folds of an axis. Those down the page count from the left as the others count from the top. */
export function bandsOf({ folds, folds_down = [] }: Pick<Frame, "folds" | "folds_down">, axis: FoldAxis): Fold[] {
  return axis === "across" ? folds : folds_down.map(({ left_px, width_px }) => ({ top_px: left_px, height_px: width_px }));
}

/** A frame with other folds on an axis, as they come. */
export function withRawBands(frame: Frame, axis: FoldAxis, bands: readonly Fold[]): Frame {
  if (axis === "across") return { ...frame, folds: [...bands] };
  return { ...frame, folds_down: bands.map(({ top_px, height_px }) => ({ left_px: top_px, width_px: height_px })) };
}

/** A frame with other folds on an axis: put in order; none where nothing would be left. */
export function withBands(frame: Frame, axis: FoldAxis, bands: readonly Fold[]): Frame {
  return withFolds(frame, axis === "across" ? bands : frame.folds, axis === "down" ? bands : bandsOf(frame, "down"));
}

/** A box with folds: in order, joined where they touch, cut off at its edges. None when nothing would be left. */
export function withFolds(area: Area, folds: readonly Fold[], down: readonly Fold[] = []): Frame {
  const { x_px, y_px, width_px, height_px } = area;
  const columns = inOrder(down, x_px, width_px);
  const box = { x_px, y_px, width_px, height_px, folds: inOrder(folds, y_px, height_px) };
  return columns.length > 0 ? withRawBands(box, "down", columns) : box;
}

function inOrder(folds: readonly Fold[], from_px: number, length_px: number): Fold[] {
  const inside: Fold[] = [];
  for (const fold of [...folds].sort((first, second) => first.top_px - second.top_px)) {
    let top = Math.max(fold.top_px, from_px);
    let bottom = Math.min(bottomOf(fold), from_px + length_px);
    if (bottom <= top) continue;
    const last = inside.at(-1);
    if (last && top <= bottomOf(last)) {
      inside.pop();
      top = last.top_px;
      bottom = Math.max(bottom, bottomOf(last));
    }
    inside.push({ top_px: top, height_px: bottom - top });
  }
  return folded(inside) < length_px ? inside : [];
}

const folded = (folds: readonly Fold[]) => folds.reduce((sum, fold) => sum + fold.height_px, 0);

/** Columns and rows of a frame that are shown. */
export function shownSize(frame: Frame): PageSize {
  return { width_px: frame.width_px - folded(bandsOf(frame, "down")), height_px: frame.height_px - folded(frame.folds) };
}

/** The rows of a frame that are shown, from top to bottom. */
export function shownRows({ y_px, height_px, folds }: Frame): Fold[] {
  const tops = [y_px, ...folds.map(bottomOf)];
  const bottoms = [...folds.map((fold) => fold.top_px), y_px + height_px];
  return tops.map((top_px, at) => ({ top_px, height_px: (bottoms[at] ?? top_px) - top_px })).filter((rows) => rows.height_px > 0);
}

export function foldCount({ folds, folds_down = [] }: Frame): number {
  return folds.length + folds_down.length;
}

/** Where a point lies along the axis on which folds follow each other. */
export const along = (point: Point, axis: FoldAxis) => (axis === "across" ? point.y_px : point.x_px);

export function sameFolds(first: readonly Fold[], second: readonly Fold[]): boolean {
  return (
    first.length === second.length &&
    first.every((fold, index) => fold.top_px === second[index]?.top_px && fold.height_px === second[index].height_px)
  );
}

/** The band between two rows, in whichever direction it was drawn; at least 1 px. */
export function foldBetween(from_px: number, to_px: number): Fold {
  const top_px = Math.round(Math.min(from_px, to_px));
  return { top_px, height_px: Math.max(1, Math.round(Math.max(from_px, to_px)) - top_px) };
}

/** A fold with one of its edges at another row; an edge stops 1 px before the opposite one. */
export function movedEdge(fold: Fold, edge: "top" | "bottom", to_px: number): Fold {
  const row = Math.max(0, Math.round(to_px));
  if (edge === "bottom") return { ...fold, height_px: Math.max(1, row - fold.top_px) };
  const top_px = Math.min(row, bottomOf(fold) - 1);
  return { top_px, height_px: bottomOf(fold) - top_px };
}

/** Folds of empty stretches, with some of each left on both sides; not where something is folded away already. */
export function foldsOf(stretches: readonly Fold[], standing: readonly Fold[], left_px: number): Fold[] {
  return stretches
    .map(({ top_px, height_px }) => ({ top_px: top_px + left_px, height_px: height_px - 2 * left_px }))
    .filter((row) => row.height_px > 0 && !standing.some((fold) => fold.top_px < bottomOf(row) && bottomOf(fold) > row.top_px));
}
