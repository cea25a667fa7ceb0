import type { Area } from "../../api/types";
import type { CutStore } from "../cut/cutStore";
import { drawnFrame, type PageSize, type Point } from "../page/geometry/boxes";
import type { Gesture } from "../page/pointer/gestures";
import { putBack } from "./clearSteps";

/** A press puts back what is connected with it, a drag what is in its box. */
export function putBackGesture(store: CutStore, from: Point, page: PageSize, show: (box: Area | null) => void): Gesture {
  return {
    move: (to) => show(drawnFrame(from, to, page)),
    drop: (to) => {
      show(null);
      putBack(store, drawnFrame(from, to, page));
    },
    click: (at) => putBack(store, { x_px: Math.floor(at.x_px), y_px: Math.floor(at.y_px) }),
    cancel: () => show(null),
  };
}
