import type { Area, Fold, Frame } from "../../../api/types";

/** Bands that are folded away, in page pixels. Pure; the server keeps to the same rules. */

export const bottomOf = (fold: Fold) => fold.top_px + fold.height_px;

/** A box with folds: in order, joined where they touch, cut off at its edges. None when nothing would be left. */
export function withFolds(area: Area, folds: readonly Fold[]): Frame {
  const { x_px, y_px, width_px, height_px } = area;
  const inside: Fold[] = [];
  for (const fold of [...folds].sort((first, second) => first.top_px - second.top_px)) {
    let top = Math.max(fold.top_px, y_px);
    let bottom = Math.min(bottomOf(fold), y_px + height_px);
    if (bottom <= top) continue;
    const last = inside.at(-1);
    if (last && top <= bottomOf(last)) {
      inside.pop();
      top = last.top_px;
      bottom = Math.max(bottom, bottomOf(last));
    }
    inside.push({ top_px: top, height_px: bottom - top });
  }
  const hidden = inside.reduce((sum, fold) => sum + fold.height_px, 0);
  return { x_px, y_px, width_px, height_px, folds: hidden < height_px ? inside : [] };
}

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
