import type { HeldKeys } from "../../parts/dragging";
import type { Snapping } from "../marks/handling/markGestures";
import { spot } from "../marks/handling/snapping";
import type { Point } from "../page/geometry/boxes";
import type { Gesture } from "../page/pointer/gestures";
import { type Ruler, useRulers } from "./rulers";

/** Measure between two points: edge to edge of what stands near, level or plumb with Shift. A press takes all rulers away. */
export function rulerGesture(pressed: Point, snapping: Snapping): Gesture {
  const drawn = (point: Point, keys: HeldKeys): Point => {
    const { x_px, y_px } = snapping.by(spot(point), keys);
    return { x_px: Math.round(point.x_px + x_px), y_px: Math.round(point.y_px + y_px) };
  };
  const from = drawn(pressed, { shift: false, alt: false });
  const ruler = (to: Point, keys: HeldKeys): Ruler => {
    const end = drawn(to, keys);
    if (!keys.shift) return { from, to: end };
    const level = Math.abs(end.x_px - from.x_px) >= Math.abs(end.y_px - from.y_px);
    return { from, to: level ? { ...end, y_px: from.y_px } : { ...end, x_px: from.x_px } };
  };
  const end = () => {
    snapping.end();
    useRulers.setState({ drawn: null });
  };
  return {
    move: (to, keys) => useRulers.setState({ drawn: ruler(to, keys) }),
    drop: (to, keys) => {
      const measured = ruler(to, keys);
      end();
      useRulers.setState(({ standing }) => ({ standing: [...standing, measured] }));
    },
    click: () => useRulers.setState({ standing: [] }),
    cancel: end,
  };
}
