import { complete, sameDocument } from "./cutStore";
import type { CutDocument, Fold } from "../../api/types";
import { canonical } from "./canonical";
import { bandsOf, bottomOf, type FoldAxis, sameFolds, withFolds } from "../page/geometry/folds";
import { sameArea } from "../page/geometry/boxes";

/**
 * What two windows made of one cut, put together; null where both changed the same thing differently.
 *
 * The box is one thing. Folds are one thing each: those that only one window drew, moved or took away go
 * its way, unless what one drew touches what the other did.
 */
export function merged(base: CutDocument, mine: CutDocument, theirs: CutDocument): CutDocument | null {
  // All places count on the page as it is turned.
  if (!sameValue(mine.orientation, theirs.orientation)) return mergedOf(base, mine, theirs, sameDocument);
  const box = mergedOf(base.frame, mine.frame, theirs.frame, sameArea);
  const [folds, down] = AXES.map((axis) => mergedFolds(bandsOf(base.frame, axis), bandsOf(mine.frame, axis), bandsOf(theirs.frame, axis)));
  if (!box || !folds || !down) return null;
  const frame = withFolds(box, folds, down);
  if ((frame.folds.length === 0 && folds.length > 0) || (!frame.folds_down && down.length > 0)) return null;
  const marks = mergedRows(base.marks, mine.marks, theirs.marks);
  const hidden = mergedRows(base.hidden, mine.hidden, theirs.hidden);
  const sought = mergedRows(base.sought, mine.sought, theirs.sought);
  const around = mergedParts(aroundOf(base), aroundOf(mine), aroundOf(theirs));
  if (!marks || !hidden || !sought || !around) return null;
  return complete({ ...theirs, frame, marks, hidden, sought, ...around });
}

/** What is one thing each. */
const aroundOf = ({ orientation = null, cleared = null, seam = null, outline = null, tone = null, dressing = null, styles }: CutDocument) => ({
  orientation,
  cleared,
  seam,
  outline,
  tone,
  dressing,
  styles,
});

const AXES: readonly FoldAxis[] = ["across", "down"];

/** Rows with ids, each one thing: in the order of the other window, with what only this one added at the end. */
function mergedRows<T extends { id: string }>(base: T[], mine: T[], theirs: T[]): T[] | null {
  const whole = mergedOf(base, mine, theirs, sameValue);
  if (whole) return whole;
  const byId = (rows: T[]) => new Map(rows.map((row) => [row.id, row]));
  const [was, here, there] = [byId(base), byId(mine), byId(theirs)];
  const found: T[] = [];
  for (const id of new Set([...there.keys(), ...here.keys()])) {
    const [before, own, other] = [was.get(id), here.get(id), there.get(id)];
    const kept = sameValue(own, before) ? other : own;
    if (!sameValue(own, before) && !sameValue(other, before) && !sameValue(own, other)) return null;
    if (kept) found.push(kept);
  }
  return found;
}

const sameValue = (first: unknown, second: unknown) => canonical(first ?? null) === canonical(second ?? null);

/** Parts that are one thing each. */
function mergedParts<T extends object>(base: T, mine: T, theirs: T): T | null {
  const found = { ...theirs };
  for (const name of Object.keys(theirs) as (keyof T)[]) {
    // In a row of one: a part that is not there is a value as well.
    const part = mergedOf([base[name]], [mine[name]], [theirs[name]], sameValue);
    if (!part) return null;
    found[name] = part[0] as T[typeof name];
  }
  return found;
}

function mergedOf<T>(base: T, mine: T, theirs: T, same: (first: T, second: T) => boolean): T | null {
  if (same(mine, base) || same(mine, theirs)) return theirs;
  return same(theirs, base) ? mine : null;
}

function mergedFolds(base: Fold[], mine: Fold[], theirs: Fold[]): Fold[] | null {
  const whole = mergedOf(base, mine, theirs, sameFolds);
  if (whole) return whole;
  const [mineNew, theirsNew] = [without(mine, base), without(theirs, base)];
  const gone = [...without(base, mine), ...without(base, theirs)];
  const onlyMine = mineNew.filter((fold) => !has(theirsNew, fold));
  if (onlyMine.some((fold) => without(theirsNew, mineNew).some((other) => touch(fold, other)))) return null;
  // A fold that both took from its place may have been moved by one, or by both to different places.
  const bothTook = without(base, mine).some((fold) => has(without(base, theirs), fold));
  if (bothTook && (onlyMine.length > 0 || theirsNew.length > 0)) return null;
  return [...without(base, gone), ...theirsNew, ...onlyMine];
}

const has = (folds: Fold[], fold: Fold) => folds.some((row) => row.top_px === fold.top_px && row.height_px === fold.height_px);
const without = (folds: Fold[], others: Fold[]) => folds.filter((fold) => !has(others, fold));
const touch = (first: Fold, second: Fold) => first.top_px <= bottomOf(second) && second.top_px <= bottomOf(first);
