import { complete } from "./cutStore";
import type { CutDocument, Fold } from "../../api/types";
import { canonical } from "./canonical";
import { bottomOf, sameFolds, withFolds } from "../page/geometry/folds";
import { sameArea } from "../page/geometry/boxes";

/**
 * What two windows made of one cut, put together; null where both changed the same thing differently.
 *
 * The box is one thing. Folds are one thing each: those that only one window drew, moved or took away go
 * its way, unless what one drew touches what the other did.
 */
export function merged(base: CutDocument, mine: CutDocument, theirs: CutDocument): CutDocument | null {
  const box = mergedOf(base.frame, mine.frame, theirs.frame, sameArea);
  const folds = mergedFolds(base.frame.folds, mine.frame.folds, theirs.frame.folds);
  if (!box || !folds) return null;
  const frame = withFolds(box, folds);
  if (frame.folds.length === 0 && folds.length > 0) return null;
  const marks = mergedRows(base.marks, mine.marks, theirs.marks);
  const hidden = mergedRows(base.hidden, mine.hidden, theirs.hidden);
  const sought = mergedRows(base.sought, mine.sought, theirs.sought);
  const around = mergedOf(aroundOf(base), aroundOf(mine), aroundOf(theirs), sameValue);
  if (!marks || !hidden || !sought || !around) return null;
  return complete({ ...theirs, frame, marks, hidden, sought, ...around });
}

/** What is one thing each: the tone, what is put around the picture, and the named styles. */
const aroundOf = ({ tone = null, dressing = null, styles }: CutDocument) => ({ tone, dressing, styles });

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
