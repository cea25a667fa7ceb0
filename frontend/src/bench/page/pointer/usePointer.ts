import type { PointerEvent } from "react";

import { type At, LEAST_DRAG, useDragging } from "../../../parts/dragging";
import type { Point } from "../geometry/boxes";
import type { PageTransform } from "../geometry/pageTransform";
import type { Gesture } from "./gestures";
import type { Hit } from "./hitTest";

interface Surface {
  /** Where the page stands on the screen now. */
  transform: () => PageTransform | null;
  hit: (point: Point, event: PointerEvent) => Hit;
  begin: (point: Point, hit: Hit, event: PointerEvent) => Gesture;
  /** What lies under the pointer while nothing is dragged; null when that is nothing of the page. */
  onHover?: (under: Under | null) => void;
  /** Where something is dragged to; null once that is over. */
  onDrag?: (to: Dragged | null) => void;
  /** A press has begun: what is to have the focus takes it. */
  onPress?: (hit: Hit) => void;
  /** What is scrolled while something is dragged near its edge. */
  scroller?: HTMLElement | null;
}

export interface Dragged {
  hit: Hit;
  point: Point;
  /** In CSS px of the window. */
  place: At;
}

export interface Under {
  hit: Hit;
  point: Point;
}

/** What takes presses of its own where it lies over the page: buttons, fields. */
const OWN_PRESSES = "[data-own-presses]";

/**
 * The one way in which a press on the page becomes a gesture: what lies under it is found, the pointer is
 * captured, the page scrolls along near its edges, Escape breaks it off. Layers only paint.
 */
export function usePointer({ transform, hit, begin, onHover, onDrag, onPress, scroller = null }: Surface) {
  const dragging = useDragging();
  const at = (place: At): Point | null => transform()?.toPage(place) ?? null;
  const isOwn = (event: PointerEvent) => event.target instanceof Element && event.target.closest(OWN_PRESSES) !== null;

  const onPointerDown = (event: PointerEvent) => {
    const point = at({ x: event.clientX, y: event.clientY });
    if (!point || isOwn(event) || event.button !== 0 || dragging.isOn) return;
    const pressed = hit(point, event);
    const gesture = begin(point, pressed, event);
    let went = false;
    dragging.begin(event, {
      onMove: (place, from, keys) => {
        went ||= Math.max(Math.abs(place.x - from.x), Math.abs(place.y - from.y)) >= LEAST_DRAG;
        const to = at(place);
        if (!went || !to) return;
        gesture.move(to, keys);
        onDrag?.({ hit: pressed, point: to, place });
      },
      onDrop: (place, _moved, keys) => {
        const to = at(place);
        onDrag?.(null);
        if (went && to) gesture.drop(to, keys);
        else {
          gesture.cancel();
          if (to) gesture.click?.(to);
        }
      },
      onCancel: () => {
        onDrag?.(null);
        gesture.cancel();
      },
      scroller,
    });
    onHover?.(null);
    onPress?.(pressed);
  };
  const onPointerMove = (event: PointerEvent) => {
    if (dragging.isOn) return;
    const point = isOwn(event) ? null : at({ x: event.clientX, y: event.clientY });
    onHover?.(point && { point, hit: hit(point, event) });
  };
  return { onPointerDown, onPointerMove, onPointerLeave: () => onHover?.(null) };
}
