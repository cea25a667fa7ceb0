import type { ClipDocument } from "../../api/types";
import { INK, PLUM } from "../../bench/marks/numbers";
import { drawnFrame, type PageSize, type Point } from "../../bench/page/geometry/boxes";

export type HiddenOnFrames = ClipDocument["hidden"][number];
export type MarkOnFrames = ClipDocument["marks"][number];

/** What is held over the frames: what a drag makes. */
export type Pen = "part" | "hide" | "box" | "arrow" | "text";

/** From which frame to which, both counted from 0; `last` null is to the end. */
export interface Span {
  first: number;
  last: number | null;
}

export const ALL_FRAMES: Span = { first: 0, last: null };

/** Less than this, in px of the frames, was a press and not a drag. */
const LEAST_DRAWN_PX = 6;
/** Letters and lines are as large as on the Bench, on a screen of this width. */
const USUAL_WIDTH_PX = 1_280;

/** The document after something was drawn from one point to another; null where the drag made nothing. */
export function drawnOn(document: ClipDocument, pen: Pen, from: Point, to: Point, frames: PageSize, span: Span): Partial<ClipDocument> | null {
  const isPress = Math.hypot(to.x_px - from.x_px, to.y_px - from.y_px) < LEAST_DRAWN_PX;
  if (isPress && pen !== "text") return null;
  const area = drawnFrame(from, to, frames);
  const scale = Math.max(0.5, frames.width_px / USUAL_WIDTH_PX);
  switch (pen) {
    case "part":
      return { box: area };
    case "hide":
      return { hidden: [...document.hidden, { ...span, area: { ...area, id: "", how: "solid", colour: INK, strength_px: null, found_by: "" } }] };
    case "box":
      return withMark(document, { kind: "box", ...area, outline_colour: PLUM, outline_px: 4 * scale }, span);
    case "arrow":
      return withMark(document, { kind: "arrow", from_x_px: from.x_px, from_y_px: from.y_px, to_x_px: to.x_px, to_y_px: to.y_px, filling: PLUM, thickness_px: 8 * scale, outline_px: 2 * scale }, span);
    case "text":
      return withMark(document, { kind: "text", x_px: area.x_px, y_px: area.y_px, text: "Words", colour: INK, size_px: 24 * scale }, span);
  }
}

/** The drag that puts something in the middle of the frames, for those who do not drag. */
export function inTheMiddle({ width_px, height_px }: PageSize): [Point, Point] {
  return [
    { x_px: Math.round(width_px / 3), y_px: Math.round(height_px / 3) },
    { x_px: Math.round((2 * width_px) / 3), y_px: Math.round((2 * height_px) / 3) },
  ];
}

// Fields that are not said keep their usual value: the server fills them in.
function withMark(document: ClipDocument, mark: Record<string, unknown>, span: Span): Partial<ClipDocument> {
  return { marks: [...document.marks, { ...span, mark: mark as MarkOnFrames["mark"] }] };
}

/** A range in words, counted from 1. */
export function spanWords({ first, last }: { first: number; last?: number | null }): string {
  if (last === undefined || last === null) return first === 0 ? "all frames" : `from frame ${first + 1}`;
  return first === last ? `frame ${first + 1}` : `frames ${first + 1} to ${last + 1}`;
}
