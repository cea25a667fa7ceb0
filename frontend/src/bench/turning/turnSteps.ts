import type { Orientation } from "../../api/types";
import type { CutStore } from "../cut/cutStore";
import type { Point } from "../page/geometry/boxes";
import { turnedCut } from "./turnedCut";

/** What a person does to how a page lies: each a step of the history of its cut. */

type Quarter = NonNullable<Orientation["turn_deg"]>;
const DEGREES = 180;
/** Angles are kept to a hundredth of a degree: 1 px over 5,700. */
const hundredth = (degrees: number) => Math.round(degrees * 100) / 100;

/** Turn the page otherwise; what is as usual is not kept. */
export function turn(store: CutStore, change: Orientation, words: string, gesture?: string): void {
  const { taken, document } = store.getState();
  const said = Object.entries({ ...document.orientation, ...change }).filter(([name, value]) => value !== USUAL[name as keyof Orientation]);
  const next = turnedCut(document, taken, Object.fromEntries(said));
  store.commit(
    words,
    (cut) => {
      Object.assign(cut, next);
      if (said.length === 0) delete cut.orientation;
    },
    gesture,
  );
}

const USUAL: Required<Orientation> = { mirror: false, turn_deg: 0, angle_deg: 0, corners: "filled", colour: "#ffffff" };

export function orientationOf(given: Orientation | null | undefined): Required<Orientation> {
  return { ...USUAL, ...given };
}

/** A quarter turn of what is seen: of a mirrored page too, 90 is clockwise. */
export function quarterTurn(store: CutStore, by: 90 | 270): void {
  const { turn_deg } = orientationOf(store.getState().document.orientation);
  turn(store, { turn_deg: ((turn_deg + by) % 360) as Quarter }, by === 90 ? "turned to the right" : "turned to the left");
}

/** Left and right of what is seen exchanged: an angle and a quarter go the other way then. */
export function mirror(store: CutStore): void {
  const now = orientationOf(store.getState().document.orientation);
  const turn_deg = ((360 - now.turn_deg) % 360) as Quarter;
  turn(store, { mirror: !now.mirror, turn_deg, angle_deg: hundredth(-now.angle_deg) || 0 }, "mirrored");
}

export function setAngle(store: CutStore, angle_deg: number, more: Orientation = {}, gesture?: string): void {
  turn(store, { ...more, angle_deg: hundredth(angle_deg) || 0 }, "turned by an angle", gesture);
}

/** The angle by which a line between two points becomes level or plumb, whichever is nearer; in degrees. */
export function angleToLevel(from: Point, to: Point): number {
  const angle = (Math.atan2(to.y_px - from.y_px, to.x_px - from.x_px) * DEGREES) / Math.PI;
  const quarter = Math.round(angle / 90) * 90;
  return hundredth(quarter - angle) || 0;
}

/** Turn the page so that a line drawn on it as it is seen is level. */
export function levelBy(store: CutStore, from: Point, to: Point, colour?: string): void {
  const now = orientationOf(store.getState().document.orientation);
  const angle = ((now.angle_deg + angleToLevel(from, to) + 540) % 360) - 180;
  setAngle(store, angle, colour ? { colour } : {});
}
