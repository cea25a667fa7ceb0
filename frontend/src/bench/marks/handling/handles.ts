import type { Extent, Mark } from "../../../api/types";
import type { Point } from "../../page/geometry/boxes";
import { boxBetween, hasEnds, isBoxed, isDrawnByHand, pointsOf, ROOM, tidy } from "./geometry";

/** By what a mark is reshaped, and what that does to it. Pure; in px of the page. */

/** A point by which a mark is taken: an end, a corner, the middle of a bend, the spot of a pointer. */
export interface MarkHandle {
  name: HandleName;
  at: Point;
}

export type HandleName = "from" | "to" | "bend" | "spot" | "nw" | "ne" | "sw" | "se" | "size" | "wrap" | "turn";

/** How far from the mark the handle stands that turns it, in CSS px. */
const TURN_OFF = 24;
/** Turned as near as this to upright or lying, a mark is so; with Shift, it turns in steps. */
const UPRIGHT_WITHIN_DEG = 2;
const TURN_STEP_DEG = 15;
const SIZES = { least: 4, greatest: 1_000 };

const point = (x_px: number, y_px: number): Point => ({ x_px, y_px });
const middleOf = (box: Extent): Point => point((box.left_px + box.right_px) / 2, (box.top_px + box.bottom_px) / 2);

/** The rectangle of a mark, before it is turned; of text it is known once it has been drawn. */
export function boxOf(mark: Mark, held: Extent | null): Extent | null {
  if (isBoxed(mark)) return { left_px: mark.x_px, top_px: mark.y_px, right_px: mark.x_px + mark.width_px, bottom_px: mark.y_px + mark.height_px };
  if (!isDrawnByHand(mark)) return held;
  const [across, down] = [pointsOf(mark).map(({ x_px }) => x_px), pointsOf(mark).map(({ y_px }) => y_px)];
  return { left_px: Math.min(...across), top_px: Math.min(...down), right_px: Math.max(...across), bottom_px: Math.max(...down) };
}

/** By how much a mark is turned. What is drawn by hand has no angle of its own. */
export function angleOf(mark: Mark): number {
  return isBoxed(mark) || mark.kind === "text" ? (mark.angle_deg ?? 0) : 0;
}

/** Where a mark that is shown at a zoom can be taken. */
export function handlesOf(mark: Mark, held: Extent | null, zoom: number): MarkHandle[] {
  if (hasEnds(mark)) {
    const [from, to] = [point(mark.from_x_px, mark.from_y_px), point(mark.to_x_px, mark.to_y_px)];
    return [{ name: "from", at: from }, { name: "to", at: to }, { name: "bend", at: bendOf(from, to, mark.bend_px ?? 0) }];
  }
  if (mark.kind === "badge") return [{ name: "size", at: point(mark.x_px + (mark.size_px ?? 40) / 2, mark.y_px) }];
  const box = boxOf(mark, held);
  const spot: MarkHandle[] = mark.kind === "text" && mark.spot_x_px != null && mark.spot_y_px != null ? [{ name: "spot", at: point(mark.spot_x_px, mark.spot_y_px) }] : [];
  if (!box) return spot;
  const turned = (name: HandleName, x: number, y: number): MarkHandle => ({ name, at: turnedAbout(point(x, y), middleOf(box), angleOf(mark)) });
  const turn = turned("turn", middleOf(box).x_px, box.top_px - TURN_OFF / zoom);
  if (mark.kind === "text") {
    return [...spot, turned("size", box.right_px, box.bottom_px), turned("wrap", box.right_px, middleOf(box).y_px), turn];
  }
  return [
    turned("nw", box.left_px, box.top_px),
    turned("ne", box.right_px, box.top_px),
    turned("sw", box.left_px, box.bottom_px),
    turned("se", box.right_px, box.bottom_px),
    turn,
  ];
}

/** The mark with one of its handles at another point. `even` keeps its proportions, and turns it in steps. */
export function reshaped(mark: Mark, handle: HandleName, to: Point, held: Extent | null = null, even = false): Mark {
  if (hasEnds(mark)) return withEnd(mark, handle, to, even);
  const [x, y] = [tidy(to.x_px), tidy(to.y_px)];
  if (mark.kind === "badge") return { ...mark, size_px: tidy(within(2 * Math.hypot(to.x_px - mark.x_px, to.y_px - mark.y_px), 8, SIZES.greatest)) };
  if (mark.kind === "text" && handle === "spot") return { ...mark, spot_x_px: x, spot_y_px: y };
  const box = boxOf(mark, held);
  if (!box) return mark;
  if (handle === "turn") return turnedMark(mark, middleOf(box), angleTo(middleOf(box), to, even));
  if (mark.kind === "text") return resizedText(mark, handle, turnedAbout(to, middleOf(box), -angleOf(mark)), box);
  return resizedBox(mark, handle, to, box, even);
}

function withEnd(mark: Extract<Mark, { from_x_px: number }>, handle: HandleName, to: Point, even: boolean): Mark {
  if (handle === "bend") return { ...mark, bend_px: tidy(offLine(mark, to)) };
  const [from, end] = [point(mark.from_x_px, mark.from_y_px), point(mark.to_x_px, mark.to_y_px)];
  const at = even ? inSteps(handle === "from" ? end : from, to) : to;
  const [x, y] = [tidy(at.x_px), tidy(at.y_px)];
  return handle === "from" ? { ...mark, from_x_px: x, from_y_px: y } : { ...mark, to_x_px: x, to_y_px: y };
}

/** The point at the same distance from another whose direction is a whole number of steps. */
export function inSteps(from: Point, to: Point): Point {
  const [across, down] = [to.x_px - from.x_px, to.y_px - from.y_px];
  const step = (TURN_STEP_DEG * Math.PI) / 180;
  const angle = Math.round(Math.atan2(down, across) / step) * step;
  const far = Math.hypot(across, down);
  return point(from.x_px + far * Math.cos(angle), from.y_px + far * Math.sin(angle));
}

/** The corner of the square that a drag draws. */
export function squarely(from: Point, to: Point): Point {
  const [across, down] = [to.x_px - from.x_px, to.y_px - from.y_px];
  const side = Math.max(Math.abs(across), Math.abs(down));
  return point(from.x_px + Math.sign(across || 1) * side, from.y_px + Math.sign(down || 1) * side);
}

function resizedText(mark: Extract<Mark, { kind: "text" }>, handle: HandleName, to: Point, box: Extent): Mark {
  const size_px = mark.size_px ?? 24;
  if (handle === "wrap") return { ...mark, width_px: tidy(Math.max(size_px, to.x_px - box.left_px - 2 * ROOM.across * size_px)) };
  const grown = Math.max((to.x_px - box.left_px) / (box.right_px - box.left_px), (to.y_px - box.top_px) / (box.bottom_px - box.top_px));
  const times = within(grown * size_px, SIZES.least, SIZES.greatest) / size_px;
  return { ...mark, size_px: tidy(size_px * times), ...(mark.width_px ? { width_px: tidy(mark.width_px * times) } : {}) };
}

/** A corner moved; the opposite one stays where it is on the page, however the mark is turned. */
function resizedBox(mark: Mark, corner: HandleName, to: Point, box: Extent, even: boolean): Mark {
  const angle = angleOf(mark);
  const [left, top] = [corner === "nw" || corner === "sw", corner === "nw" || corner === "ne"];
  const opposite = point(left ? box.right_px : box.left_px, top ? box.bottom_px : box.top_px);
  const fixed = turnedAbout(opposite, middleOf(box), angle);
  // As if the page were turned back about the corner that stays.
  const level = turnedAbout(to, fixed, -angle);
  const [across, down] = [level.x_px - fixed.x_px, level.y_px - fixed.y_px];
  const ratio = (box.bottom_px - box.top_px) / Math.max(1, box.right_px - box.left_px);
  const wide = even ? Math.max(Math.abs(across), Math.abs(down) / (ratio || 1)) : Math.abs(across);
  const high = even ? wide * ratio : Math.abs(down);
  const far = point(fixed.x_px + Math.sign(across || 1) * wide, fixed.y_px + Math.sign(down || 1) * high);
  // The box between both, turned about its own middle, has the fixed corner where it was.
  const middle = turnedAbout(point((fixed.x_px + far.x_px) / 2, (fixed.y_px + far.y_px) / 2), fixed, angle);
  const drawn = boxBetween(point(middle.x_px - wide / 2, middle.y_px - high / 2), point(middle.x_px + wide / 2, middle.y_px + high / 2));
  if (isBoxed(mark)) return { ...mark, ...drawn };
  if (!isDrawnByHand(mark)) return mark;
  const along = (value: number, from: number, length: number, start: number, new_length: number) => tidy(start + (length > 0 ? ((value - from) / length) * new_length : new_length / 2));
  return {
    ...mark,
    points: mark.points.map(([x = 0, y = 0]) => [
      along(x, box.left_px, box.right_px - box.left_px, drawn.x_px, drawn.width_px),
      along(y, box.top_px, box.bottom_px - box.top_px, drawn.y_px, drawn.height_px),
    ]),
  };
}

function turnedMark(mark: Mark, middle: Point, angle_deg: number): Mark {
  if (isBoxed(mark) || mark.kind === "text") return { ...mark, angle_deg };
  if (!isDrawnByHand(mark)) return mark;
  return {
    ...mark,
    points: mark.points.map(([x = 0, y = 0]) => {
      const at = turnedAbout(point(x, y), middle, angle_deg);
      return [tidy(at.x_px), tidy(at.y_px)];
    }),
  };
}

/** The angle at which the handle above a mark's middle is at a point, from -180° to 180°. */
function angleTo(middle: Point, to: Point, even: boolean): number {
  const free = (Math.atan2(to.x_px - middle.x_px, middle.y_px - to.y_px) * 180) / Math.PI;
  if (even) return Math.round(free / TURN_STEP_DEG) * TURN_STEP_DEG;
  const upright = Math.round(free / 90) * 90;
  return Math.abs(free - upright) <= UPRIGHT_WITHIN_DEG ? upright : Math.round(free);
}

/** A point turned clockwise about another. */
export function turnedAbout({ x_px, y_px }: Point, about: Point, degrees: number): Point {
  const [sine, cosine] = [Math.sin((degrees * Math.PI) / 180), Math.cos((degrees * Math.PI) / 180)];
  const [across, down] = [x_px - about.x_px, y_px - about.y_px];
  return point(about.x_px + cosine * across - sine * down, about.y_px + sine * across + cosine * down);
}

/** The middle of a line that is bent so far off, to the right of its way. */
export function bendOf(from: Point, to: Point, bend_px: number): Point {
  const length = Math.hypot(to.x_px - from.x_px, to.y_px - from.y_px) || 1;
  const [across, down] = [-(to.y_px - from.y_px) / length, (to.x_px - from.x_px) / length];
  return point((from.x_px + to.x_px) / 2 + bend_px * across, (from.y_px + to.y_px) / 2 + bend_px * down);
}

/** How far a point lies off the straight line between a mark's ends, to the right of its way. */
function offLine(mark: Extract<Mark, { from_x_px: number }>, at: Point): number {
  const [across, down] = [mark.to_x_px - mark.from_x_px, mark.to_y_px - mark.from_y_px];
  const length = Math.hypot(across, down) || 1;
  const off = (across * (at.y_px - mark.from_y_px) - down * (at.x_px - mark.from_x_px)) / length;
  return Math.abs(off) < length * 0.03 ? 0 : off;
}

const within = (value: number, least: number, greatest: number) => Math.min(Math.max(value, least), greatest);
