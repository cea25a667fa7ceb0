import { type PointerEvent as ReactPointerEvent, useEffect, useState } from "react";

/** Where the pointer is, in CSS px of the window. */
export interface At {
  x: number;
  y: number;
}

/** Keys that are held while something is dragged. */
export interface HeldKeys {
  shift: boolean;
  alt: boolean;
}

/** What is done while something is dragged. */
export interface Drag {
  onMove: (at: At, from: At, keys: HeldKeys) => void;
  /** Let go; `moved` says whether it was more than a click. */
  onDrop?: (at: At, moved: boolean, keys: HeldKeys) => void;
  /** Broken off: Escape, or the browser took the pointer away. */
  onCancel?: () => void;
  /** What is scrolled while the pointer is near its upper or lower edge. */
  scroller?: HTMLElement | null;
}

/** Less than this is a click. */
export const LEAST_DRAG = 4;
/** Near the upper or lower edge of the view, dragging scrolls: tall frames need no second try. */
const SCROLL_ZONE = 36;
const SCROLL_STEP = 18;

/** How far to scroll while something is dragged at a height in a view. */
export function scrollStep(y: number, fromY: number, view: { top: number; bottom: number }): number {
  // Only once the pointer has left where it began: a handle may lie in the zone to start with.
  if (Math.abs(y - fromY) <= LEAST_DRAG) return 0;
  if (y < view.top + SCROLL_ZONE) return -SCROLL_STEP;
  return y > view.bottom - SCROLL_ZONE ? SCROLL_STEP : 0;
}

const keysOf = (event: { shiftKey: boolean; altKey: boolean }): HeldKeys => ({ shift: event.shiftKey, alt: event.altKey });

interface Held {
  drag: Drag;
  pointerId: number;
  from: At;
  at: At;
  keys: HeldKeys;
  frame: number;
}

/** Every drag of the interface: one pointer at a time, captured, scrolled along, let go or broken off. */
export class Dragging {
  private held: Held | null = null;

  /** Whether something is being dragged. */
  get isOn(): boolean {
    return this.held !== null;
  }

  /** Begin with the main button pressed; other buttons, and a second finger, change nothing. */
  begin(event: ReactPointerEvent, drag: Drag): void {
    if (event.button !== 0 || this.held) return;
    event.preventDefault();
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    const at = { x: event.clientX, y: event.clientY };
    this.held = { drag, pointerId: event.pointerId, from: at, at, keys: keysOf(event), frame: 0 };
    window.addEventListener("pointermove", this.onMove);
    window.addEventListener("pointerup", this.onUp);
    window.addEventListener("pointercancel", this.onCancel);
    window.addEventListener("keydown", this.onKey, true);
    if (drag.scroller) this.held.frame = requestAnimationFrame(this.scrollAlong);
  }

  /** End what is being dragged, if anything is. */
  end(keep: boolean): void {
    const { held } = this;
    if (!held) return;
    this.held = null;
    cancelAnimationFrame(held.frame);
    window.removeEventListener("pointermove", this.onMove);
    window.removeEventListener("pointerup", this.onUp);
    window.removeEventListener("pointercancel", this.onCancel);
    window.removeEventListener("keydown", this.onKey, true);
    const far = Math.max(Math.abs(held.at.x - held.from.x), Math.abs(held.at.y - held.from.y));
    if (keep) held.drag.onDrop?.(held.at, far >= LEAST_DRAG, held.keys);
    else held.drag.onCancel?.();
  }

  private readonly scrollAlong = () => {
    const { held } = this;
    if (!held?.drag.scroller) return;
    const step = scrollStep(held.at.y, held.from.y, held.drag.scroller.getBoundingClientRect());
    if (step !== 0) {
      held.drag.scroller.scrollBy({ top: step });
      held.drag.onMove(held.at, held.from, held.keys);
    }
    held.frame = requestAnimationFrame(this.scrollAlong);
  };

  private readonly onMove = (event: PointerEvent) => {
    const { held } = this;
    if (event.pointerId !== held?.pointerId) return;
    held.at = { x: event.clientX, y: event.clientY };
    held.keys = keysOf(event);
    held.drag.onMove(held.at, held.from, held.keys);
  };

  private readonly onUp = (event: PointerEvent) => {
    if (event.pointerId === this.held?.pointerId) this.end(true);
  };

  private readonly onCancel = (event: PointerEvent) => {
    if (event.pointerId === this.held?.pointerId) this.end(false);
  };

  private readonly onKey = (event: KeyboardEvent) => {
    if (event.key !== "Escape") return;
    event.preventDefault();
    event.stopPropagation();
    this.end(false);
  };
}

/** One pointer's drags, for the elements of a component; broken off when the component goes. */
export function useDragging(): Dragging {
  const [dragging] = useState(() => new Dragging());
  useEffect(() => () => dragging.end(false), [dragging]);
  return dragging;
}
