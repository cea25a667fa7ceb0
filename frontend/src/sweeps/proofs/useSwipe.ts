import { type TouchEvent, useRef } from "react";

const FAR_PX = 60;

/** What a finger does that is drawn across: the next picture, or the one before. Along, it scrolls as ever. */
export function useSwipe(onStep: (key: "ArrowLeft" | "ArrowRight") => void) {
  const from = useRef<{ x: number; y: number } | null>(null);
  const end = (event: globalThis.TouchEvent) => {
    const touch = event.changedTouches[0];
    if (!from.current || !touch || event.touches.length > 0) return;
    const across = touch.clientX - from.current.x;
    const along = touch.clientY - from.current.y;
    from.current = null;
    if (Math.abs(across) > FAR_PX && Math.abs(across) > 2 * Math.abs(along)) onStep(across < 0 ? "ArrowRight" : "ArrowLeft");
  };
  return {
    onTouchStart: (event: TouchEvent) => {
      const touch = event.touches.length === 1 ? event.touches[0] : undefined;
      from.current = touch ? { x: touch.clientX, y: touch.clientY } : null; // two fingers look closer
      // A finger ends on what it began on, which has gone by then where the picture has come meanwhile.
      if (touch) event.target.addEventListener("touchend", (ended) => end(ended as globalThis.TouchEvent), { once: true });
    },
  };
}
