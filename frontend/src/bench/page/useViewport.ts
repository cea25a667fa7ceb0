import { useEffect, useState } from "react";

export interface Viewport {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** Scroll position and inner size of an element once it is there, in CSS px. */
export function useViewport(element: HTMLElement | null): Viewport {
  const [viewport, setViewport] = useState<Viewport>({ left: 0, top: 0, width: 0, height: 0 });
  useEffect(() => {
    if (!element) return;
    const read = () =>
      setViewport({ left: element.scrollLeft, top: element.scrollTop, width: element.clientWidth, height: element.clientHeight });
    const observer = new ResizeObserver(read);
    observer.observe(element);
    element.addEventListener("scroll", read, { passive: true });
    read();
    return () => {
      observer.disconnect();
      element.removeEventListener("scroll", read);
    };
  }, [element]);
  return viewport;
}
