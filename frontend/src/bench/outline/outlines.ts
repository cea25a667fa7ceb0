import type { Area, FreeOutline } from "../../api/types";
import type { PageSize, Point } from "../page/geometry/boxes";

/** Free outlines: closed shapes of straight or smooth lines, in px of the page. Pure. */

/** A corner: x and y in px of the page, as the document has it. */
export type Corner = [x_px: number, y_px: number];

export const LEAST_POINTS = 3;
export const MOST_POINTS = 400;
/** Corners nearer to each other than this are one. */
const SAME_PX = 0.05;

/** The corners of an outline as the document has it. */
export function cornersIn(outline: FreeOutline): Corner[] {
  return outline.points.map(([x = 0, y = 0]) => [x, y]);
}

/** The points that matter of a line drawn by hand: none of the others is further from it (Douglas and Peucker, 1973). */
export function simplified(points: readonly Point[], far_px: number): Point[] {
  const kept = new Set([0, points.length - 1]);
  const open: [number, number][] = [[0, points.length - 1]];
  for (let stretch = open.pop(); stretch; stretch = open.pop()) {
    const [first, last] = stretch;
    let furthest = { at: -1, far: far_px };
    for (let at = first + 1; at < last; at += 1) {
      const far = distance(points[at] as Point, points[first] as Point, points[last] as Point);
      if (far > furthest.far) furthest = { at, far };
    }
    if (furthest.at < 0) continue;
    kept.add(furthest.at);
    open.push([first, furthest.at], [furthest.at, last]);
  }
  return points.filter((_, at) => kept.has(at));
}

/** Whether two sides that are no neighbours meet: then nobody can tell what is inside. The server looks again. */
export function crossesItself(corners: readonly Corner[]): boolean {
  const sides = corners.map((corner, at) => [corner, corners[(at + 1) % corners.length] as Corner] as const);
  return sides.some(([a, b], first) =>
    sides.some(([c, d], second) => {
      const apart = Math.abs(first - second);
      if (apart <= 1 || apart === sides.length - 1) return false;
      return side(a, b, c) * side(a, b, d) <= 0 && side(c, d, a) * side(c, d, b) <= 0;
    }),
  );
}

/**
 * The loop of a line drawn by hand, without the tails by which it was drawn beyond its beginning. A line
 * that does not meet itself stays as it is: its ends are joined.
 */
export function loopOf(points: readonly Point[]): Point[] {
  const corners = points.map(({ x_px, y_px }): Corner => [x_px, y_px]);
  for (let far = corners.length - 2; far >= LEAST_POINTS - 1; far -= 1)
    for (let first = 0; first + far < corners.length - 1; first += 1) {
      const [a, b, c, d] = [corners[first], corners[first + 1], corners[first + far], corners[first + far + 1]] as [Corner, Corner, Corner, Corner];
      const [fromC, fromD] = [side(a, b, c), side(a, b, d)];
      if (fromC * fromD > 0 || side(c, d, a) * side(c, d, b) > 0 || fromC === fromD) continue;
      const share = fromC / (fromC - fromD);
      return [{ x_px: c[0] + share * (d[0] - c[0]), y_px: c[1] + share * (d[1] - c[1]) }, ...points.slice(first + 1, first + far + 1)];
    }
  return [...points];
}

/** Corners without those that are the same as the one before. */
export function apart(corners: readonly Corner[]): Corner[] {
  return corners.filter(([x, y], at) => {
    const [beforeX, beforeY] = corners[(at + corners.length - 1) % corners.length] as Corner;
    return Math.hypot(x - beforeX, y - beforeY) > SAME_PX;
  });
}

/** Whether an outline can be kept. */
export function isPossible(corners: readonly Corner[]): boolean {
  return corners.length >= LEAST_POINTS && corners.length <= MOST_POINTS && !crossesItself(corners) && areaOf(corners) >= 1;
}

/** The px that an outline surrounds, on the page; null where none do. */
export function boundsOf(corners: readonly Corner[], page: PageSize): Area | null {
  const [xs, ys] = [corners.map(([x]) => x), corners.map(([, y]) => y)];
  const left = Math.max(0, Math.floor(Math.min(...xs)));
  const top = Math.max(0, Math.floor(Math.min(...ys)));
  const right = Math.min(page.width_px, Math.ceil(Math.max(...xs)));
  const bottom = Math.min(page.height_px, Math.ceil(Math.max(...ys)));
  return right > left && bottom > top ? { x_px: left, y_px: top, width_px: right - left, height_px: bottom - top } : null;
}

/** It as SVG's path data, at a zoom; as the server draws it. */
export function pathOf(corners: readonly Corner[], smooth: boolean, zoom: number): string {
  const points = corners.map(([x, y]) => [x * zoom, y * zoom] as Corner);
  const [start] = points;
  if (!start) return "";
  const at = (index: number) => points[(index + points.length) % points.length] as Corner;
  const steps = points.map((from, index) => {
    const [before, to, after] = [at(index - 1), at(index + 1), at(index + 2)];
    if (!smooth || points.length < LEAST_POINTS) return `L${to[0]} ${to[1]}`;
    // A curve through the points (Catmull and Rom, 1974).
    const first = [from[0] + (to[0] - before[0]) / 6, from[1] + (to[1] - before[1]) / 6];
    const second = [to[0] - (after[0] - from[0]) / 6, to[1] - (after[1] - from[1]) / 6];
    return `C${first.join(" ")} ${second.join(" ")} ${to[0]} ${to[1]}`;
  });
  return `M${start[0]} ${start[1]}${steps.join("")}Z`;
}

/** Index of the corner at a point; null where none is within reach. */
export function cornerAt(point: Point, corners: readonly Corner[], reach_px: number): number | null {
  return nearest(corners.map(([x, y]) => Math.hypot(x - point.x_px, y - point.y_px)), reach_px);
}

/** Index of the corner after which a side runs by a point; null where none is within reach. */
export function sideAt(point: Point, corners: readonly Corner[], reach_px: number): number | null {
  const far = corners.map(([x, y], at) => {
    const [nextX, nextY] = corners[(at + 1) % corners.length] as Corner;
    return distance(point, { x_px: x, y_px: y }, { x_px: nextX, y_px: nextY });
  });
  return nearest(far, reach_px);
}

function nearest(far: readonly number[], reach_px: number): number | null {
  const least = Math.min(...far);
  return least <= reach_px ? far.indexOf(least) : null;
}

/** From a point to a stretch between two others. */
function distance(point: Point, from: Point, to: Point): number {
  const [dx, dy] = [to.x_px - from.x_px, to.y_px - from.y_px];
  const length = dx * dx + dy * dy;
  const share = length === 0 ? 0 : ((point.x_px - from.x_px) * dx + (point.y_px - from.y_px) * dy) / length;
  const held = Math.min(Math.max(share, 0), 1);
  return Math.hypot(point.x_px - from.x_px - held * dx, point.y_px - from.y_px - held * dy);
}

/** On which side of a line a point lies: its sign. */
const side = (from: Corner, to: Corner, point: Corner) => (to[0] - from[0]) * (point[1] - from[1]) - (to[1] - from[1]) * (point[0] - from[0]);

/** Area of a polygon (C. F. Gauss). */
function areaOf(corners: readonly Corner[]): number {
  return Math.abs(corners.reduce((sum, [x, y], at) => {
    const [nextX, nextY] = corners[(at + 1) % corners.length] as Corner;
    return sum + x * nextY - nextX * y;
  }, 0)) / 2;
}
