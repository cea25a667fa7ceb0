import type { Area } from "../../../api/types";

/** Boxes on a page, in whole page pixels. Pure; every result lies on the page. */

export interface PageSize {
  width_px: number;
  height_px: number;
}

export interface Point {
  x_px: number;
  y_px: number;
}

/** Which edges a handle moves: -1 left or top, 1 right or bottom, 0 neither. */
export interface Handle {
  x: -1 | 0 | 1;
  y: -1 | 0 | 1;
}

export type FrameField = keyof Area;

export function wholeFrame(page: PageSize): Area {
  return { x_px: 0, y_px: 0, width_px: page.width_px, height_px: page.height_px };
}

export function sameArea(first: Area, second: Area): boolean {
  return (
    first.x_px === second.x_px &&
    first.y_px === second.y_px &&
    first.width_px === second.width_px &&
    first.height_px === second.height_px
  );
}

function clamp(value: number, least: number, greatest: number): number {
  return Math.min(Math.max(Math.round(value), least), greatest);
}

/** The frame between two points, in whichever direction they were drawn; at least 1 × 1 px. */
export function drawnFrame(from: Point, to: Point, page: PageSize): Area {
  const left = clamp(Math.min(from.x_px, to.x_px), 0, page.width_px - 1);
  const top = clamp(Math.min(from.y_px, to.y_px), 0, page.height_px - 1);
  const right = clamp(Math.max(from.x_px, to.x_px), left + 1, page.width_px);
  const bottom = clamp(Math.max(from.y_px, to.y_px), top + 1, page.height_px);
  return { x_px: left, y_px: top, width_px: right - left, height_px: bottom - top };
}

/** The frame moved, keeping its size; it stops at the page's edges. */
export function movedFrame(frame: Area, dx_px: number, dy_px: number, page: PageSize): Area {
  return {
    ...frame,
    x_px: clamp(frame.x_px + dx_px, 0, page.width_px - frame.width_px),
    y_px: clamp(frame.y_px + dy_px, 0, page.height_px - frame.height_px),
  };
}

/** The frame with the handle's edges moved; an edge stops 1 px before the opposite one. */
export function resizedFrame(frame: Area, handle: Handle, dx_px: number, dy_px: number, page: PageSize): Area {
  let left = frame.x_px;
  let top = frame.y_px;
  let right = left + frame.width_px;
  let bottom = top + frame.height_px;
  if (handle.x < 0) left = clamp(left + dx_px, 0, right - 1);
  if (handle.x > 0) right = clamp(right + dx_px, left + 1, page.width_px);
  if (handle.y < 0) top = clamp(top + dy_px, 0, bottom - 1);
  if (handle.y > 0) bottom = clamp(bottom + dy_px, top + 1, page.height_px);
  return { x_px: left, y_px: top, width_px: right - left, height_px: bottom - top };
}

/** The least and greatest value that a field may have while the others stay. */
export function fieldRange(frame: Area, field: FrameField, page: PageSize): { least: number; greatest: number } {
  switch (field) {
    case "x_px":
      return { least: 0, greatest: page.width_px - frame.width_px };
    case "y_px":
      return { least: 0, greatest: page.height_px - frame.height_px };
    case "width_px":
      return { least: 1, greatest: page.width_px - frame.x_px };
    case "height_px":
      return { least: 1, greatest: page.height_px - frame.y_px };
  }
}
