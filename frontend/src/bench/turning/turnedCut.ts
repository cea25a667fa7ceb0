import type { Area, Clearing, CutDocument, Mark, Orientation } from "../../api/types";
import { hasEnds, isBoxed, isDrawnByHand, movedMark, pointsOf, tidy } from "../marks/handling/geometry";
import { cornersIn } from "../outline/outlines";
import { sameArea, wholeFrame, type PageSize, type Point } from "../page/geometry/boxes";
import { bandsOf, type FoldAxis, withFolds } from "../page/geometry/folds";
import { boxAround, cornersOf, turnedPage } from "./turned";

/**
 * A cut of a page that is turned otherwise: all that lies on the page goes along with it. What can be read
 * stays upright.
 */
export function turnedCut(cut: CutDocument, page: PageSize, orientation: Orientation): CutDocument {
  const [before, after] = [turnedPage(page, cut.orientation), turnedPage(page, orientation)];
  const there = (point: Point) => after.there(before.back(point));
  const boxThere = (area: Area) => boxAround(cornersOf(area).map(there), after);
  const whole = sameArea(cut.frame, wholeFrame(before));
  const area = whole ? wholeFrame(after) : (boxThere(cut.frame) ?? wholeFrame(after));
  const spot: Spot = (row) => {
    const { x_px, y_px } = there({ x_px: row.x_px + 0.5, y_px: row.y_px + 0.5 });
    return { ...row, x_px: within(Math.floor(x_px), after.width_px), y_px: within(Math.floor(y_px), after.height_px) };
  };
  return {
    ...cut,
    orientation,
    frame: withFolds(area, foldsThere(cut, "across", orientation, there), foldsThere(cut, "down", orientation, there)),
    hidden: cut.hidden.flatMap((row) => {
      const box = boxThere(row);
      return box ? [{ ...row, ...box }] : [];
    }),
    marks: cut.marks.map((mark) => markThere(mark, there)),
    ...(cut.outline && { outline: { ...cut.outline, points: cornersIn(cut.outline).map(([x_px, y_px]) => there({ x_px, y_px })).map(({ x_px, y_px }) => [tidy(x_px), tidy(y_px)]) } }),
    ...(cut.cleared && { cleared: clearedThere(cut.cleared, spot, boxThere) }),
  };
}

type Spot = <Row extends Point>(row: Row) => Row;

function clearedThere(cleared: Clearing, spot: Spot, boxThere: (area: Area) => Area | null): Clearing {
  const { colours = [], put_back = [] } = cleared;
  return {
    ...cleared,
    colours: colours.map((row) => (row.x_px != null && row.y_px != null ? spot({ ...row, x_px: row.x_px, y_px: row.y_px }) : row)),
    put_back: put_back.flatMap((row) => {
      if (row.width_px == null || row.height_px == null) return [spot(row)];
      const box = boxThere({ x_px: row.x_px, y_px: row.y_px, width_px: row.width_px, height_px: row.height_px });
      return box ? [box] : [];
    }),
  };
}

const within = (place: number, length: number) => Math.min(Math.max(place, 0), length - 1);

/** The folds that lie along an axis once the page is turned; a quarter turn exchanges the two. */
function foldsThere({ frame, orientation: now }: CutDocument, axis: FoldAxis, next: Orientation, there: (point: Point) => Point) {
  const turn = ((next.turn_deg ?? 0) - (now?.turn_deg ?? 0) + 360) % 360;
  const before: FoldAxis = turn % 180 === 0 ? axis : axis === "across" ? "down" : "across";
  const middle = { x_px: frame.x_px + frame.width_px / 2, y_px: frame.y_px + frame.height_px / 2 };
  return bandsOf(frame, before).map((fold) => {
    const edges = [fold.top_px, fold.top_px + fold.height_px].map((at) => {
      const place = there(before === "across" ? { ...middle, y_px: at } : { ...middle, x_px: at });
      return Math.round(axis === "across" ? place.y_px : place.x_px);
    });
    const top_px = Math.min(...edges);
    return { top_px, height_px: Math.max(...edges) - top_px };
  });
}

function markThere(mark: Mark, there: (point: Point) => Point): Mark {
  const [first, second] = pointsOf(mark).map(there);
  if (!first) return mark;
  if (hasEnds(mark)) return !second ? mark : { ...mark, from_x_px: tidy(first.x_px), from_y_px: tidy(first.y_px), to_x_px: tidy(second.x_px), to_y_px: tidy(second.y_px) };
  if (isDrawnByHand(mark)) return { ...mark, points: pointsOf(mark).map(there).map(({ x_px, y_px }) => [tidy(x_px), tidy(y_px)]) };
  if (isBoxed(mark)) {
    const middle = there({ x_px: mark.x_px + mark.width_px / 2, y_px: mark.y_px + mark.height_px / 2 });
    const across = second ? Math.abs(second.x_px - first.x_px) : mark.width_px;
    const lies = mark.kind !== "sticker" && Math.abs(across - mark.width_px) > Math.abs(across - mark.height_px);
    const [width_px, height_px] = lies ? [mark.height_px, mark.width_px] : [mark.width_px, mark.height_px];
    return { ...mark, width_px, height_px, x_px: tidy(middle.x_px - width_px / 2), y_px: tidy(middle.y_px - height_px / 2) };
  }
  const moved = movedMark(mark, tidy(first.x_px - mark.x_px), tidy(first.y_px - mark.y_px));
  return moved.kind === "text" && second ? { ...moved, spot_x_px: tidy(second.x_px), spot_y_px: tidy(second.y_px) } : moved;
}
