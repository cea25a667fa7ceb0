import type { CutStore } from "../cut/cutStore";
import type { Point } from "../page/geometry/boxes";
import type { Gesture } from "../page/pointer/gestures";
import { levelBy } from "./turnSteps";

/** Draw a line along what should be level; the tool is laid aside then. */
export function levelGesture(store: CutStore, from: Point, show: (line: readonly [Point, Point] | null) => void): Gesture {
  return {
    move: (to) => show([from, to]),
    drop: (to) => {
      show(null);
      levelBy(store, from, to);
      store.setTool({ kind: "frame" });
    },
    cancel: () => show(null),
  };
}
