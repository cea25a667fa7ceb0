import { useCallback, useSyncExternalStore } from "react";

import type { Viewport } from "./useViewport";

/**
 * One thing about how an element is scrolled and how large it is inside. Who asks is drawn again only
 * when that one thing changes: scrolling moves what shows the scroll position, and nothing else.
 */
export function useView<T extends string | number>(element: HTMLElement | null, select: (view: Viewport) => T, otherwise: T): T {
  const subscribe = useCallback(
    (changed: () => void) => {
      if (!element) return () => undefined;
      const observer = new ResizeObserver(changed);
      observer.observe(element);
      element.addEventListener("scroll", changed, { passive: true });
      return () => {
        observer.disconnect();
        element.removeEventListener("scroll", changed);
      };
    },
    [element],
  );
  return useSyncExternalStore(subscribe, () =>
    element ? select({ left: element.scrollLeft, top: element.scrollTop, width: element.clientWidth, height: element.clientHeight }) : otherwise,
  );
}
