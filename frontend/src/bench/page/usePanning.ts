import { useEffect } from "react";

const WRITING = "input, textarea, select, [contenteditable=true]";
const ACTING = "button, a, summary, [role=slider]";

/** While the space bar is held, or with the middle button, a drag moves the page under the view. */
export function usePanning(scroller: HTMLElement | null): void {
  useEffect(() => {
    if (!scroller) return;
    let holding = false;
    let from: { x: number; y: number; left: number; top: number } | null = null;
    const show = () => scroller.setAttribute("data-panning", from ? "on" : holding ? "ready" : "");
    const onKey = (event: KeyboardEvent) => {
      if (event.code !== "Space" || (event.target instanceof Element && event.target.closest(`${WRITING}, ${ACTING}`))) return;
      // It would scroll by a screen.
      event.preventDefault();
      holding = event.type === "keydown";
      show();
    };
    const forget = () => {
      holding = false;
      from = null;
      show();
    };
    const onDown = (event: PointerEvent) => {
      if (!(holding && event.button === 0) && event.button !== 1) return;
      event.preventDefault();
      event.stopPropagation();
      from = { x: event.clientX, y: event.clientY, left: scroller.scrollLeft, top: scroller.scrollTop };
      scroller.setPointerCapture(event.pointerId);
      show();
    };
    const onMove = (event: PointerEvent) => {
      if (!from) return;
      event.stopPropagation();
      scroller.scrollTo({ left: from.left + from.x - event.clientX, top: from.top + from.y - event.clientY });
    };
    const onUp = () => {
      if (!from) return;
      from = null;
      show();
    };
    // Before the page's own gestures hear of it.
    const ending = new AbortController();
    const { signal } = ending;
    scroller.addEventListener("pointerdown", onDown, { capture: true, signal });
    scroller.addEventListener("pointermove", onMove, { capture: true, signal });
    scroller.addEventListener("pointerup", onUp, { capture: true, signal });
    scroller.addEventListener("pointercancel", onUp, { capture: true, signal });
    window.addEventListener("keydown", onKey, { signal });
    window.addEventListener("keyup", onKey, { signal });
    window.addEventListener("blur", forget, { signal });
    return () => ending.abort();
  }, [scroller]);
}
