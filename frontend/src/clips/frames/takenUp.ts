import type { ClipDocument, Extent, Mark } from "../../api/types";
import { LINE_HEIGHT, movedMark, ROOM, tidy } from "../../bench/marks/handling/geometry";
import { type HandleName, handlesOf, reshaped } from "../../bench/marks/handling/handles";
import { heldOf, markAt, type ShownMark } from "../../bench/marks/handling/hitMarks";
import { type Handle, movedFrame, type PageSize, type Point, resizedFrame } from "../../bench/page/geometry/boxes";
import { hiddenAt } from "../../bench/page/pointer/hitTest";

/** Taking up what lies on frames: what is under the pointer, and what moving it does. Pure; in px of the frames. */

/** One of the document's hidden areas or marks, by its place there. */
export interface Thing {
  of: "hidden" | "marks";
  at: number;
}

/** By what it was taken: a corner of a hidden area, a handle of a mark; null is the whole of it. */
export type Grip = { corner: Handle } | { handle: HandleName } | null;

/** How wide a line of letters is. */
export type Measure = (text: string, size_px: number) => number;

export interface Place {
  name: string;
  at: Point;
}


/** The corners of a box: a name, and how much of its width and height lies before each. */
const CORNERS = [
  ["nw", 0, 0],
  ["ne", 1, 0],
  ["sw", 0, 1],
  ["se", 1, 1],
] as const;

export const sameThing = (one: Thing | null, other: Thing | null) => one?.of === other?.of && one?.at === other?.at;

/** Whether something is on a frame. */
export function isOn({ first, last }: { first: number; last?: number | null }, frame: number): boolean {
  return first <= frame && (last == null || frame <= last);
}

/** A mark as what is known of marks on the Bench wants it: by its place for a name, with the box that the server draws. */
export function shownMark(document: ClipDocument, at: number, measure: Measure): ShownMark | null {
  const mark = document.marks[at]?.mark as Mark | undefined;
  if (!mark) return null;
  const box = drawnBox(mark, measure);
  return { mark: { ...mark, id: `${at}` }, drawn: box ? { parts: [], opacity: 1, blend: "over", blur_px: 0, extent: box, held: box, missing: [] } : undefined, by: { x_px: 0, y_px: 0 } };
}

function drawnBox(mark: Mark, measure: Measure): Extent | null {
  if (mark.kind === "badge") {
    const half = (mark.size_px ?? 40) / 2;
    return { left_px: mark.x_px - half, top_px: mark.y_px - half, right_px: mark.x_px + half, bottom_px: mark.y_px + half };
  }
  if (mark.kind !== "text") return null;
  const size_px = mark.size_px ?? 24;
  const lines = mark.text.split("\n");
  const wide_px = mark.width_px ?? Math.max(...lines.map((line) => measure(line, size_px)));
  return { left_px: mark.x_px, top_px: mark.y_px, right_px: mark.x_px + wide_px + 2 * ROOM.across * size_px, bottom_px: mark.y_px + lines.length * LINE_HEIGHT * size_px + 2 * ROOM.down * size_px };
}

/** Where something in hand can be taken. */
export function placesOf(document: ClipDocument, thing: Thing, zoom: number, measure: Measure): Place[] {
  if (thing.of === "marks") {
    const shown = shownMark(document, thing.at, measure);
    return shown ? handlesOf(shown.mark, heldOf(shown), zoom) : [];
  }
  const area = document.hidden[thing.at]?.area;
  if (!area) return [];
  return CORNERS.map(([name, right, down]) => ({ name, at: { x_px: area.x_px + right * area.width_px, y_px: area.y_px + down * area.height_px } }));
}

/** What of a frame is under a point: a handle of what is in hand first, then a mark, then a hidden area. */
export function takenAt(document: ClipDocument, frame: number, point: Point, inHand: Thing | null, zoom: number, measure: Measure): { thing: Thing; grip: Grip } | null {
  const areas = document.hidden.flatMap((row, at) => (isOn(row, frame) ? { ...row.area, id: `${at}` } : []));
  const named = (of: Thing["of"]) => (inHand?.of === of ? [`${inHand.at}`] : []);
  const hidden = hiddenAt(point, areas, named("hidden"), zoom);
  if (hidden?.kind === "hidden-corner") return { thing: { of: "hidden", at: Number(hidden.id) }, grip: { corner: hidden.corner } };
  const shown = document.marks.flatMap((row, at) => (isOn(row, frame) ? (shownMark(document, at, measure) ?? []) : []));
  const mark = markAt(point, shown, named("marks"), zoom);
  if (mark) return { thing: { of: "marks", at: Number(mark.id) }, grip: mark.kind === "mark-handle" ? { handle: mark.handle } : null };
  return hidden?.kind === "hidden" ? { thing: { of: "hidden", at: Number(hidden.id) }, grip: null } : null;
}

/** The document with something moved, or reshaped by its grip, from one point to another. */
export function taken(document: ClipDocument, thing: Thing, grip: Grip, from: Point, to: Point, frames: PageSize, measure: Measure, even = false): Partial<ClipDocument> {
  const [dx_px, dy_px] = [tidy(to.x_px - from.x_px), tidy(to.y_px - from.y_px)];
  if (thing.of === "hidden") {
    return {
      hidden: document.hidden.map((row, at) => {
        if (at !== thing.at) return row;
        const area = grip && "corner" in grip ? resizedFrame(row.area, grip.corner, dx_px, dy_px, frames) : movedFrame(row.area, dx_px, dy_px, frames);
        return { ...row, area: { ...row.area, ...area } };
      }),
    };
  }
  return {
    marks: document.marks.map((row, at) => {
      const shown = at === thing.at && shownMark(document, at, measure);
      if (!shown) return row;
      const mark = row.mark as Mark;
      return { ...row, mark: (grip && "handle" in grip ? reshaped(mark, grip.handle, to, heldOf(shown), even) : movedMark(mark, dx_px, dy_px)) as typeof row.mark };
    }),
  };
}

/** The document without something. */
export function withoutThing(document: ClipDocument, { of, at }: Thing): Partial<ClipDocument> {
  return of === "hidden" ? { hidden: document.hidden.filter((_, index) => index !== at) } : { marks: document.marks.filter((_, index) => index !== at) };
}
