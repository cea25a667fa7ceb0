import type { DrawnMark, Extent, Mark } from "../../../api/types";
import type { Point } from "../../page/geometry/boxes";
import { hasEnds, isDrawnByHand, pointsOf } from "./geometry";
import { angleOf, bendOf, boxOf, type HandleName, handlesOf, turnedAbout } from "./handles";

/** A mark as it is shown: with what is drawn of it, once that is known. */
export interface ShownMark {
  mark: Mark;
  drawn: DrawnMark | undefined;
  /** How far it was moved since it was drawn. */
  by: Point;
}

export type MarkHit = { kind: "mark"; id: string } | { kind: "mark-handle"; id: string; handle: HandleName };

/** How far from a mark or a handle, in CSS px, the pointer still takes it. */
const REACH = { handle: 9, stroke: 6 };
/** Pieces of a bent line between its ends. */
const PIECES = 12;

/** The rectangle by which a mark is held, before it is turned; null until something is drawn of it. */
export function heldOf({ mark, drawn, by }: ShownMark): Extent | null {
  const held = drawn?.held ?? drawn?.extent;
  return boxOf(mark, held ? movedExtent(held, by) : null);
}

/** The rectangle in which a mark is seen. */
export function extentOf(shown: ShownMark): Extent | null {
  const { mark, drawn, by } = shown;
  return angleOf(mark) !== 0 && mark.kind !== "dim" && drawn?.extent ? movedExtent(drawn.extent, by) : heldOf(shown);
}

export function movedExtent({ left_px, top_px, right_px, bottom_px }: Extent, by: Point): Extent {
  return { left_px: left_px + by.x_px, top_px: top_px + by.y_px, right_px: right_px + by.x_px, bottom_px: bottom_px + by.y_px };
}

/** What of the marks lies under a point: a handle of those that are selected first, then the uppermost mark. */
export function markAt(at: Point, shown: readonly ShownMark[], selected: readonly string[], zoom: number): MarkHit | null {
  const mine = shown.filter(({ mark }) => selected.includes(mark.id));
  if (mine.length === 1) {
    for (const held of mine) {
      const { mark } = held;
      if (mark.locked) continue;
      const handle = handlesOf(mark, heldOf(held), zoom).find((row) => far(row.at, at) <= REACH.handle / zoom);
      if (handle) return { kind: "mark-handle", id: mark.id, handle: handle.name };
    }
  }
  const hit = [...shown].reverse().find((row) => isOn(at, row, zoom));
  return hit ? { kind: "mark", id: hit.mark.id } : null;
}

/** Marks of which a part lies in a box. */
export function marksWithin(box: { x_px: number; y_px: number; width_px: number; height_px: number }, shown: readonly ShownMark[]): string[] {
  return shown.flatMap((row) => {
    const extent = extentOf(row);
    if (!extent || row.mark.kind === "dim") return [];
    const apart =
      extent.right_px < box.x_px || extent.left_px > box.x_px + box.width_px || extent.bottom_px < box.y_px || extent.top_px > box.y_px + box.height_px;
    return apart ? [] : [row.mark.id];
  });
}

const far = (first: Point, second: Point) => Math.hypot(first.x_px - second.x_px, first.y_px - second.y_px);

function isOn(at: Point, shown: ShownMark, zoom: number): boolean {
  const { mark } = shown;
  const reach = REACH.stroke / zoom;
  if (hasEnds(mark)) return alongside(at, bentLine(mark), (mark.thickness_px ?? 8) + reach);
  if (isDrawnByHand(mark)) return alongside(at, pointsOf(mark), (mark.thickness_px ?? 4) / 2 + reach);
  const held = heldOf(shown);
  if (!held) return false;
  const middle = { x_px: (held.left_px + held.right_px) / 2, y_px: (held.top_px + held.bottom_px) / 2 };
  const level = turnedAbout(at, middle, -angleOf(mark));
  // What is dimmed is everything else: it is taken by the edge of what is kept.
  if (mark.kind === "dim" || ((mark.kind === "box" || mark.kind === "ellipse") && !mark.filling)) {
    return within(level, held, reach) && !within(level, held, -reach - (mark.kind === "dim" ? 0 : (mark.outline_px ?? 4)));
  }
  return within(level, held, reach / 2);
}

function within(at: Point, { left_px, top_px, right_px, bottom_px }: Extent, room: number): boolean {
  return at.x_px >= left_px - room && at.x_px <= right_px + room && at.y_px >= top_px - room && at.y_px <= bottom_px + room;
}

function bentLine(mark: Extract<Mark, { from_x_px: number }>): Point[] {
  const [from, to] = pointsOf(mark);
  if (!from || !to) return [];
  const bend = bendOf(from, to, mark.bend_px ?? 0);
  const control = { x_px: 2 * bend.x_px - (from.x_px + to.x_px) / 2, y_px: 2 * bend.y_px - (from.y_px + to.y_px) / 2 };
  return Array.from({ length: PIECES + 1 }, (_, step) => {
    const share = step / PIECES;
    const [a, b, c] = [(1 - share) ** 2, 2 * share * (1 - share), share ** 2];
    return { x_px: a * from.x_px + b * control.x_px + c * to.x_px, y_px: a * from.y_px + b * control.y_px + c * to.y_px };
  });
}

function alongside(at: Point, line: readonly Point[], reach: number): boolean {
  if (line.length === 1) return line.some((point) => far(at, point) <= reach);
  return line.some((point, index) => {
    const next = line[index + 1];
    return next !== undefined && offSegment(at, point, next) <= reach;
  });
}

function offSegment(at: Point, from: Point, to: Point): number {
  const [across, down] = [to.x_px - from.x_px, to.y_px - from.y_px];
  const length = across * across + down * down;
  const share = length === 0 ? 0 : Math.min(1, Math.max(0, ((at.x_px - from.x_px) * across + (at.y_px - from.y_px) * down) / length));
  return far(at, { x_px: from.x_px + share * across, y_px: from.y_px + share * down });
}
