import type { Mark, MarkKind } from "../../../api/types";
import type { Point } from "../../page/geometry/boxes";

/** Where marks lie on the page, and what moving one of their points does. Pure; in px of the page. */

/** Room between letters and the edge of their plate, in sizes of the letters: as the server draws it. */
export const ROOM = { across: 0.45, down: 0.15 };
/** From one line of letters to the next, in sizes of the letters. */
export const LINE_HEIGHT = 1.3;
const LEAST_PX = 1;
const point = (x_px: number, y_px: number): Point => ({ x_px, y_px });

export function isBoxed(mark: Mark): mark is Extract<Mark, { width_px: number; height_px: number }> {
  return mark.kind === "box" || mark.kind === "ellipse" || mark.kind === "dim" || mark.kind === "sticker";
}

export function hasEnds(mark: Mark): mark is Extract<Mark, { from_x_px: number }> {
  return mark.kind === "arrow" || mark.kind === "line";
}

export function isDrawnByHand(mark: Mark): mark is Extract<Mark, { points: number[][] }> {
  return mark.kind === "pen" || mark.kind === "highlighter";
}

/** The points by which a mark is held to the page; the first is its place. */
export function pointsOf(mark: Mark): Point[] {
  if (hasEnds(mark)) return [point(mark.from_x_px, mark.from_y_px), point(mark.to_x_px, mark.to_y_px)];
  if (isDrawnByHand(mark)) return mark.points.map(([x = 0, y = 0]) => point(x, y));
  if (isBoxed(mark)) return [point(mark.x_px, mark.y_px), point(mark.x_px + mark.width_px, mark.y_px + mark.height_px)];
  const spot = mark.kind === "text" && mark.spot_x_px != null && mark.spot_y_px != null ? [point(mark.spot_x_px, mark.spot_y_px)] : [];
  return [point(mark.x_px, mark.y_px), ...spot];
}

/** The mark moved, with all of its points. */
export function movedMark<M extends Mark>(mark: M, dx_px: number, dy_px: number): M {
  if (dx_px === 0 && dy_px === 0) return mark;
  if (hasEnds(mark)) {
    const { from_x_px, from_y_px, to_x_px, to_y_px } = mark;
    return { ...mark, from_x_px: from_x_px + dx_px, from_y_px: from_y_px + dy_px, to_x_px: to_x_px + dx_px, to_y_px: to_y_px + dy_px };
  }
  if (isDrawnByHand(mark)) return { ...mark, points: mark.points.map(([x = 0, y = 0]) => [x + dx_px, y + dy_px]) };
  const moved = { ...mark, x_px: mark.x_px + dx_px, y_px: mark.y_px + dy_px };
  if (moved.kind === "text" && moved.spot_x_px != null && moved.spot_y_px != null) {
    return { ...moved, spot_x_px: moved.spot_x_px + dx_px, spot_y_px: moved.spot_y_px + dy_px };
  }
  return moved;
}

/** The box between two points, in whichever direction they were drawn. */
export function boxBetween(from: Point, to: Point) {
  const [left, top] = [tidy(Math.min(from.x_px, to.x_px)), tidy(Math.min(from.y_px, to.y_px))];
  return {
    x_px: left,
    y_px: top,
    width_px: Math.max(LEAST_PX, tidy(Math.max(from.x_px, to.x_px)) - left),
    height_px: Math.max(LEAST_PX, tidy(Math.max(from.y_px, to.y_px)) - top),
  };
}

/** Two marks that differ in nothing but their place: how far the second was moved; null when more differs. */
export function movedBy(first: Mark, second: Mark): Point | null {
  if (first.kind !== second.kind) return null;
  const [a, b] = [pointsOf(first)[0], pointsOf(second)[0]];
  if (!a || !b) return null;
  const by = point(b.x_px - a.x_px, b.y_px - a.y_px);
  return sameMark(movedMark(first, by.x_px, by.y_px), second) ? by : null;
}

function sameMark(first: Mark, second: Mark): boolean {
  const other = new Map<string, unknown>(Object.entries(second));
  const one = Object.entries(first);
  return one.length === other.size && one.every(([name, value]) => sameValue(value, other.get(name)));
}

function sameValue(first: unknown, second: unknown): boolean {
  if (typeof first === "number" && typeof second === "number") return Math.abs(first - second) < 1e-6;
  return first === second || JSON.stringify(first) === JSON.stringify(second);
}

/** The number or letters in each badge, by its place among the marks: the server counts in the same way. */
export function badgeLabels(marks: readonly Mark[]): Map<number, string> {
  const counted = new Map<number, number>();
  const labels = new Map<number, string>();
  marks.forEach((mark, position) => {
    if (mark.kind !== "badge") return;
    const sequence = mark.sequence ?? 1;
    const number = (counted.get(sequence) ?? 0) + 1;
    counted.set(sequence, number);
    labels.set(position, mark.letters ? lettersOf(number) : `${number}`);
  });
  return labels;
}

/** The captions of badges as lines, in the order of the marks: the server writes the same. */
export function captionLines(marks: readonly Mark[]): string[] {
  const labels = badgeLabels(marks);
  return marks.flatMap((mark, position) => (mark.kind === "badge" && mark.caption ? [`${labels.get(position)}. ${mark.caption}`] : []));
}

function lettersOf(number: number): string {
  let text = "";
  for (let left = number; left > 0; left = Math.floor((left - 1) / 26)) text = String.fromCharCode(65 + ((left - 1) % 26)) + text;
  return text;
}

/** To a tenth of a px: what a pointer gives has no more. */
export const tidy = (value: number) => Math.round(value * 10) / 10;

/** How a mark is called on screen. */
export const KIND_WORDS: Record<MarkKind, string> = {
  arrow: "Arrow",
  line: "Line",
  box: "Box",
  ellipse: "Ellipse",
  pen: "Pen",
  highlighter: "Highlighter",
  text: "Text",
  badge: "Number",
  sticker: "Sticker",
  dim: "Dim the rest",
};
