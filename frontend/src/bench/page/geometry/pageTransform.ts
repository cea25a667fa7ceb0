import type { Point } from "./boxes";

/** Between CSS px of the window and px of the page, there and back. */
export interface PageTransform {
  toPage: (at: { x: number; y: number }) => Point;
  toScreen: (point: Point) => { x: number; y: number };
}

/** The transform of a page whose upper left corner stands at `corner`, at `zoom` CSS px for each of its px. */
export function pageTransform(corner: { left: number; top: number }, zoom: number): PageTransform {
  return {
    toPage: ({ x, y }) => ({ x_px: (x - corner.left) / zoom, y_px: (y - corner.top) / zoom }),
    toScreen: ({ x_px, y_px }) => ({ x: corner.left + x_px * zoom, y: corner.top + y_px * zoom }),
  };
}
