import type { Area, Orientation } from "../../api/types";
import type { PageSize, Point } from "../page/geometry/boxes";

/** Where the places of a page lie once it is turned: the core has the same arithmetic. Pure; in px. */

/** What arithmetic on floats leaves over of a whole number, at most. */
const NEAR = 1e-6;

/** A page that is turned: its size, and the way there and back. */
export interface TurnedPage extends PageSize {
  there: (point: Point) => Point;
  back: (point: Point) => Point;
}

export function isUpright(orientation: Orientation | null | undefined): boolean {
  return !orientation || (!orientation.mirror && !orientation.turn_deg && !orientation.angle_deg);
}

export function turnedPage(page: PageSize, orientation: Orientation | null | undefined): TurnedPage {
  const { mirror = false, turn_deg = 0, angle_deg = 0, corners = "filled" } = orientation ?? {};
  const { width_px: width, height_px: height } = page;
  const lies = turn_deg === 90 || turn_deg === 270;
  const before = lies ? { width_px: height, height_px: width } : page;
  const angle = (angle_deg * Math.PI) / 180;
  const after = angle === 0 ? before : corners === "cropped" ? inner(before, angle) : around(before, angle);
  const quarter = ({ x_px, y_px }: Point): Point => {
    const x = mirror ? width - x_px : x_px;
    if (turn_deg === 90) return { x_px: height - y_px, y_px: x };
    if (turn_deg === 180) return { x_px: width - x, y_px: height - y_px };
    return turn_deg === 270 ? { x_px: y_px, y_px: width - x } : { x_px: x, y_px };
  };
  const quarterBack = ({ x_px, y_px }: Point): Point => {
    const [x, y] = turn_deg === 90 ? [y_px, height - x_px] : turn_deg === 180 ? [width - x_px, height - y_px] : turn_deg === 270 ? [width - y_px, x_px] : [x_px, y_px];
    return { x_px: mirror ? width - x : x, y_px: y };
  };
  return {
    ...after,
    there: (point) => spun(quarter(point), before, after, angle),
    back: (point) => quarterBack(spun(point, after, before, -angle)),
  };
}

/** A point turned about the middle of one page, and put on another with the same middle. */
function spun({ x_px, y_px }: Point, from: PageSize, to: PageSize, angle: number): Point {
  if (angle === 0) return { x_px, y_px };
  const [x, y] = [x_px - from.width_px / 2, y_px - from.height_px / 2];
  const [sine, cosine] = [Math.sin(angle), Math.cos(angle)];
  return { x_px: cosine * x - sine * y + to.width_px / 2, y_px: sine * x + cosine * y + to.height_px / 2 };
}

function around({ width_px, height_px }: PageSize, angle: number): PageSize {
  const [sine, cosine] = [Math.abs(Math.sin(angle)), Math.abs(Math.cos(angle))];
  return {
    width_px: Math.ceil(width_px * cosine + height_px * sine - NEAR),
    height_px: Math.ceil(width_px * sine + height_px * cosine - NEAR),
  };
}

/** The largest upright rectangle in a turned one. */
function inner({ width_px, height_px }: PageSize, angle: number): PageSize {
  const [sine, cosine] = [Math.abs(Math.sin(angle)), Math.abs(Math.cos(angle))];
  const [long, short] = [Math.max(width_px, height_px), Math.min(width_px, height_px)];
  const whole = (across: number, down: number) => ({ width_px: Math.max(1, Math.floor(across + NEAR)), height_px: Math.max(1, Math.floor(down + NEAR)) });
  if (short <= 2 * sine * cosine * long || Math.abs(sine - cosine) < NEAR) {
    const [flat, steep] = [short / 2 / sine, short / 2 / cosine];
    return width_px >= height_px ? whole(flat, steep) : whole(steep, flat);
  }
  const double = cosine * cosine - sine * sine;
  return whole((width_px * cosine - height_px * sine) / double, (height_px * cosine - width_px * sine) / double);
}

/** The box around points, in whole px, as far as it lies on a page; null where none of it does. */
export function boxAround(points: readonly Point[], page: PageSize): Area | null {
  const [across, down] = [points.map(({ x_px }) => x_px), points.map(({ y_px }) => y_px)];
  const left = Math.max(0, Math.floor(Math.min(...across) + NEAR));
  const top = Math.max(0, Math.floor(Math.min(...down) + NEAR));
  const right = Math.min(page.width_px, Math.ceil(Math.max(...across) - NEAR));
  const bottom = Math.min(page.height_px, Math.ceil(Math.max(...down) - NEAR));
  return right > left && bottom > top ? { x_px: left, y_px: top, width_px: right - left, height_px: bottom - top } : null;
}

export function cornersOf({ x_px, y_px, width_px, height_px }: Area): Point[] {
  return [
    { x_px, y_px },
    { x_px: x_px + width_px, y_px },
    { x_px, y_px: y_px + height_px },
    { x_px: x_px + width_px, y_px: y_px + height_px },
  ];
}
