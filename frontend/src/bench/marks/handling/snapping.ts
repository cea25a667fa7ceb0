import type { Extent } from "../../../api/types";
import type { Point } from "../../page/geometry/boxes";
import { movedExtent } from "./hitMarks";

/** Marks meet the edges of what stands around them, and keep equal distances. Pure; in px of the page. */

/** A line that shows what something was drawn to: down the page at an x, or across it at a y. */
export interface Guide {
  axis: "x" | "y";
  at_px: number;
  from_px: number;
  to_px: number;
  /** Whether it measures a gap that is as large as another. */
  gap?: boolean;
}

export interface Snap {
  /** How far to move for it. */
  by: Point;
  guides: Guide[];
}

export interface Surroundings {
  /** What of the page has edges: its blocks. */
  blocks: readonly Extent[];
  /** Other marks: edges, middles, and equal gaps. */
  marks: readonly Extent[];
}

/** How near, in CSS px, an edge draws; and how far off on the screen something may stand and still do so. */
export const SNAP = { reach: 6, near: 1_200 };
/** Lines nearer to each other than this are one. */
const SAME_PX = 0.05;

/** What of a mark is held against edges: all of it when it is moved, a point of it when it is drawn or reshaped. */
type Moving = Extent;

/** Along which axes something may be moved to meet edges. */
export type Axes = "x" | "y" | "xy";

/** How far to move a box so that it meets what stands near it; nowhere where nothing does. */
export function snapOf(moving: Moving, around: Surroundings, zoom: number, axes: Axes = "xy"): Snap {
  const near = { blocks: nearby(moving, around.blocks, zoom), marks: nearby(moving, around.marks, zoom) };
  const [x, y] = [axes.includes("x") ? along("x", moving, near, zoom) : NOWHERE, axes.includes("y") ? along("y", moving, near, zoom) : NOWHERE];
  const by = { x_px: x.by, y_px: y.by };
  const there = movedExtent(moving, by);
  return { by, guides: [...x.lines(there), ...y.lines(there)] };
}

/** A point as something that can meet edges. */
export function spot({ x_px, y_px }: Point): Extent {
  return { left_px: x_px, top_px: y_px, right_px: x_px, bottom_px: y_px };
}

function nearby(moving: Extent, boxes: readonly Extent[], zoom: number): Extent[] {
  const far = SNAP.near / zoom;
  return boxes.filter((box) => box.bottom_px >= moving.top_px - far && box.top_px <= moving.bottom_px + far);
}

interface Stretch {
  from: number;
  to: number;
}

const ALONG = {
  x: (box: Extent): Stretch => ({ from: box.left_px, to: box.right_px }),
  y: (box: Extent): Stretch => ({ from: box.top_px, to: box.bottom_px }),
};
const OTHER = { x: "y", y: "x" } as const;

interface Found {
  by: number;
  lines: (there: Extent) => Guide[];
}

const NOWHERE: Found = { by: 0, lines: () => [] };

/** The nearest that there is along one axis: edges first, then middles, then equal gaps. */
function along(axis: "x" | "y", moving: Extent, around: Surroundings, zoom: number): Found {
  const reach = SNAP.reach / zoom;
  const mine = ALONG[axis](moving);
  const all = [...around.marks, ...around.blocks];
  const edges = all.flatMap((box) => [ALONG[axis](box).from, ALONG[axis](box).to]);
  // A point has no middle of its own.
  const middles = mine.to > mine.from ? around.marks.map((box) => middle(ALONG[axis](box))) : [];
  const ways = [
    ...edges.flatMap((edge) => [edge - mine.from, edge - mine.to]),
    ...middles.map((at) => at - middle(mine)),
    ...gaps(axis, moving, around.marks).map(({ by }) => by),
  ];
  const by = ways.reduce<number | null>((best, way) => (Math.abs(way) <= reach && (best === null || Math.abs(way) < Math.abs(best)) ? way : best), null);
  if (by === null) return NOWHERE;
  return { by, lines: (there) => linesAt(axis, there, all, around.marks) };
}

const middle = ({ from, to }: Stretch) => (from + to) / 2;

/** Lines along everything that a box meets where it is now. */
function linesAt(axis: "x" | "y", there: Extent, boxes: readonly Extent[], marks: readonly Extent[]): Guide[] {
  const mine = ALONG[axis](there);
  const found = new Map<string, Guide>();
  const add = (at_px: number, box: Extent) => {
    const [one, other] = [ALONG[OTHER[axis]](there), ALONG[OTHER[axis]](box)];
    const key = at_px.toFixed(1);
    const line = found.get(key);
    found.set(key, { axis, at_px, from_px: Math.min(one.from, other.from, line?.from_px ?? Infinity), to_px: Math.max(one.to, other.to, line?.to_px ?? -Infinity) });
  };
  for (const box of boxes) {
    const { from, to } = ALONG[axis](box);
    for (const edge of [from, to]) if (Math.min(Math.abs(edge - mine.from), Math.abs(edge - mine.to)) < SAME_PX) add(edge, box);
  }
  for (const box of marks) if (mine.to > mine.from && Math.abs(middle(ALONG[axis](box)) - middle(mine)) < SAME_PX) add(middle(mine), box);
  const even = gaps(axis, there, marks).filter(({ by }) => Math.abs(by) < SAME_PX);
  return [...found.values(), ...even.flatMap(({ lines }) => lines)];
}

/** Where a box would have the same distance on both sides, or that of two others beside it. */
function gaps(axis: "x" | "y", moving: Extent, marks: readonly Extent[]): { by: number; lines: Guide[] }[] {
  const across = ALONG[OTHER[axis]](moving);
  const mine = ALONG[axis](moving);
  if (mine.to <= mine.from) return [];
  const beside = marks
    .filter((box) => ALONG[OTHER[axis]](box).to > across.from && ALONG[OTHER[axis]](box).from < across.to)
    .map((box) => ALONG[axis](box));
  const before = beside.filter((row) => row.to <= middle(mine)).sort((first, second) => second.to - first.to);
  const after = beside.filter((row) => row.from >= middle(mine)).sort((first, second) => first.from - second.from);
  const length = mine.to - mine.from;
  const line = (from_px: number, to_px: number): Guide => ({ axis: OTHER[axis], at_px: middle(across), from_px, to_px, gap: true });
  const found: { by: number; lines: Guide[] }[] = [];
  const [left, further] = before;
  const [right, beyond] = after;
  if (left && right) {
    const gap = (right.from - left.to - length) / 2;
    if (gap > 0) found.push({ by: left.to + gap - mine.from, lines: [line(left.to, left.to + gap), line(right.from - gap, right.from)] });
  }
  if (left && further && left.from > further.to) {
    const gap = left.from - further.to;
    found.push({ by: left.to + gap - mine.from, lines: [line(further.to, left.from), line(left.to, left.to + gap)] });
  }
  if (right && beyond && beyond.from > right.to) {
    const gap = beyond.from - right.to;
    found.push({ by: right.from - gap - mine.to, lines: [line(right.from - gap, right.from), line(right.to, beyond.from)] });
  }
  return found;
}
