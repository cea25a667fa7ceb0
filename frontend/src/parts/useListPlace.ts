import { type RefObject, useLayoutEffect, useState } from "react";

interface ListPlace {
  scroller: HTMLElement | null;
  /** From the top of what is scrolled to the top of the list. */
  marginPx: number;
  widthPx: number;
}

/** Where a list lies in what scrolls it, kept true while things around it grow. */
export function useListPlace(list: RefObject<HTMLElement | null>): ListPlace {
  const [place, setPlace] = useState<ListPlace>({ scroller: null, marginPx: 0, widthPx: 0 });
  useLayoutEffect(() => {
    const element = list.current;
    const scroller = element && scrollerOf(element);
    if (!element || !scroller) return;
    const look = () => {
      const marginPx = Math.round(element.getBoundingClientRect().top - scroller.getBoundingClientRect().top + scroller.scrollTop);
      const widthPx = element.clientWidth;
      setPlace((last) => (last.scroller === scroller && last.marginPx === marginPx && last.widthPx === widthPx ? last : { scroller, marginPx, widthPx }));
    };
    look();
    const watching = new ResizeObserver(look);
    watching.observe(element);
    for (const part of scroller.children) watching.observe(part);
    return () => watching.disconnect();
  }, [list]);
  return place;
}

function scrollerOf(element: HTMLElement): HTMLElement | null {
  for (let at = element.parentElement; at; at = at.parentElement) if (/auto|scroll/.test(getComputedStyle(at).overflowY)) return at;
  return null;
}
