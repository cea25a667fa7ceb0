import type { Area, Frame, HiddenArea } from "../../../api/types";
import type { MarkHit } from "../../marks/handling/hitMarks";
import type { Handle, Point } from "../geometry/boxes";
import { along, bandsOf, bottomOf, type FoldAxis } from "../geometry/folds";

/** What of the Bench's page lies under the pointer. */
export type Hit =
  | { kind: "break"; index: number }
  | { kind: "fold-edge"; axis: FoldAxis; index: number; edge: "top" | "bottom" }
  | { kind: "handle"; handle: Handle }
  | { kind: "frame" }
  | { kind: "page" }
  | MarkHit
  | { kind: "hidden"; id: string }
  | { kind: "hidden-corner"; id: string; corner: Handle };

export interface Targets {
  frame: Frame;
  /** Rows of the page at which the file in hand is divided. */
  breaks: readonly number[];
}

/** How far from a line or corner, in CSS px, the pointer still takes it. */
export const REACH = { break: 6, foldEdge: 6, edge: 8, corner: 10 } as const;

/**
 * What lies under a point of the page that is shown at `zoom` CSS px for each of its px. Where several
 * do, it is the one drawn above the others.
 */
export function hitAt(point: Point, { frame, breaks }: Targets, zoom: number): Hit {
  const index = nearestWithin(breaks, point.y_px, REACH.break / zoom);
  if (index !== null) return { kind: "break", index };
  return foldEdgeAt(point, frame, zoom) ?? handleAt(point, frame, zoom) ?? { kind: isInside(point, frame) ? "frame" : "page" };
}

/** A corner of the hidden area in hand, or the uppermost one under a point. */
export function hiddenAt(point: Point, areas: readonly HiddenArea[], selected: readonly string[], zoom: number): Hit | null {
  const reach = REACH.corner / zoom;
  for (const { id, x_px, y_px, width_px, height_px } of areas) {
    if (!selected.includes(id)) continue;
    const corner = { x: sideAt(point.x_px, x_px, x_px + width_px, reach), y: sideAt(point.y_px, y_px, y_px + height_px, reach) };
    if (corner.x !== 0 && corner.y !== 0) return { kind: "hidden-corner", id, corner };
  }
  const found = [...areas].reverse().find((area) => isInside(point, area));
  return found ? { kind: "hidden", id: found.id } : null;
}

/** Index of the row nearest to another, when it is within reach. */
export function nearestWithin(rows: readonly number[], y_px: number, reach_px: number): number | null {
  let found: number | null = null;
  for (const [index, row] of rows.entries()) {
    const far = Math.abs(row - y_px);
    if (far <= reach_px && (found === null || far < Math.abs((rows[found] ?? 0) - y_px))) found = index;
  }
  return found;
}

function foldEdgeAt(point: Point, frame: Frame, zoom: number): Hit | null {
  if (!isInside(point, { ...frame, width_px: frame.width_px + 1, height_px: frame.height_px + 1 })) return null;
  for (const axis of ["across", "down"] as const) {
    const edges = bandsOf(frame, axis).flatMap((fold) => [fold.top_px, bottomOf(fold)]);
    const nearest = nearestWithin(edges, along(point, axis), REACH.foldEdge / zoom);
    if (nearest !== null) return { kind: "fold-edge", axis, index: Math.floor(nearest / 2), edge: nearest % 2 === 0 ? "top" : "bottom" };
  }
  return null;
}

function handleAt({ x_px, y_px }: Point, { x_px: left, y_px: top, width_px, height_px }: Frame, zoom: number): Hit | null {
  const x = sideAt(x_px, left, left + width_px, REACH.corner / zoom);
  const y = sideAt(y_px, top, top + height_px, REACH.corner / zoom);
  if (x !== 0 && y !== 0) return { kind: "handle", handle: { x, y } };
  const reach = REACH.edge / zoom;
  const besideX = x_px >= left && x_px <= left + width_px;
  const besideY = y_px >= top && y_px <= top + height_px;
  const edgeY = besideX ? sideAt(y_px, top, top + height_px, reach) : 0;
  if (edgeY !== 0) return { kind: "handle", handle: { x: 0, y: edgeY } };
  const edgeX = besideY ? sideAt(x_px, left, left + width_px, reach) : 0;
  return edgeX === 0 ? null : { kind: "handle", handle: { x: edgeX, y: 0 } };
}

/** Which end of a stretch is within reach: -1 its beginning, 1 its end, 0 neither. Of both it is the nearer. */
function sideAt(at: number, from: number, to: number, reach: number): -1 | 0 | 1 {
  const [toStart, toEnd] = [Math.abs(at - from), Math.abs(at - to)];
  if (Math.min(toStart, toEnd) > reach) return 0;
  return toStart < toEnd ? -1 : 1;
}

function isInside({ x_px, y_px }: Point, frame: Area): boolean {
  return x_px >= frame.x_px && x_px < frame.x_px + frame.width_px && y_px >= frame.y_px && y_px < frame.y_px + frame.height_px;
}
