import { useEffect, useLayoutEffect, useRef } from "react";

import { type ZoomMode, zoomByWheel, zoomStep } from "./geometry/zoom";

/** A place of the page, as shares of its sides, and where it stands on the screen. */
interface Anchor {
  across: number;
  down: number;
  x: number;
  y: number;
}

export interface Zooming {
  /** Another zoom; what is in the middle of the view stays there. */
  to: (mode: ZoomMode) => void;
  step: (towards: 1 | -1) => void;
}

const PAGE = "[data-page]";
/** Distance that a wheel reports for one of its notches; a finer one reports less, more often. */
const NOTCH_PX = 100;

/** Zooming keeps a place of the page where it is: the one under the pointer, or in the middle of the view. */
export function useZooming(scroller: HTMLElement | null, zoom: number, onMode: (mode: ZoomMode) => void): Zooming {
  const held = useRef<Anchor | null>(null);
  const latest = useRef({ zoom, onMode });
  useLayoutEffect(() => {
    latest.current = { zoom, onMode };
    const page = scroller?.querySelector(PAGE)?.getBoundingClientRect();
    if (page && scroller && held.current) {
      const { across, down, x, y } = held.current;
      scroller.scrollBy(page.left + across * page.width - x, page.top + down * page.height - y);
    }
    held.current = null;
  }, [scroller, zoom, onMode]);

  useEffect(() => {
    if (!scroller) return;
    const turn = (event: WheelEvent) => {
      if (!event.ctrlKey && !event.metaKey) return;
      // The browser would zoom its own window.
      event.preventDefault();
      held.current = anchorAt(scroller, event.clientX, event.clientY);
      latest.current.onMode(zoomByWheel(latest.current.zoom, window.devicePixelRatio, -event.deltaY / NOTCH_PX));
    };
    scroller.addEventListener("wheel", turn, { passive: false });
    return () => scroller.removeEventListener("wheel", turn);
  }, [scroller]);

  const to = (mode: ZoomMode) => {
    if (scroller) {
      const view = scroller.getBoundingClientRect();
      // From the top of a page one begins at its top.
      held.current = anchorAt(scroller, view.left + view.width / 2, scroller.scrollTop === 0 ? view.top : view.top + view.height / 2);
    }
    onMode(mode);
  };
  return { to, step: (towards) => to(zoomStep(zoom, window.devicePixelRatio, towards)) };
}

function anchorAt(scroller: HTMLElement, x: number, y: number): Anchor | null {
  const page = scroller.querySelector(PAGE)?.getBoundingClientRect();
  return page ? { across: (x - page.left) / page.width, down: (y - page.top) / page.height, x, y } : null;
}
