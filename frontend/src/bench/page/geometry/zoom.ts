import type { PageSize } from "./boxes";

/** How large the page is shown in the middle column: fitted to its width, or to all of it, or px of the display for each of its px. */
export type ZoomMode = "fit" | "whole" | number;

/** Px of the display for each px of the page. */
const LEAST = 0.02;
const GREATEST = 16;
/** From here on the px of the page are told apart by lines. */
export const GRID_FROM = 8;
const STEPS = [0.02, 0.05, 0.1, 0.17, 0.25, 0.33, 0.5, 0.67, 1, 1.5, 2, 3, 4, 6, 8, 12, 16];
/** By how much a notch of the wheel changes it. */
const NOTCH = 1.25;

/** Room around the page, so that its edges can be grabbed. */
export const MARGIN = 18;

/** CSS px per page pixel. Actual pixels are the display's own, whatever its density. */
export function zoomOf(mode: ZoomMode, page: PageSize, view: { width: number; height: number }, density: number): number {
  const actual = 1 / density;
  if (typeof mode === "number") return mode * actual;
  const [across, down] = [view.width - 2 * MARGIN, view.height - 2 * MARGIN];
  const byWidth = across > 0 ? Math.min(actual, across / page.width_px) : actual;
  return mode === "whole" && down > 0 ? Math.min(byWidth, down / page.height_px) : byWidth;
}

/** The next larger or smaller of the usual steps, in px of the display for each px of the page. */
export function zoomStep(zoom: number, density: number, towards: 1 | -1): number {
  const now = zoom * density;
  const near = 1.001;
  const next = towards > 0 ? STEPS.find((step) => step > now * near) : STEPS.findLast((step) => step < now / near);
  return next ?? within(now);
}

/** What a turn of the wheel makes of it. */
export function zoomByWheel(zoom: number, density: number, notches: number): number {
  return within(zoom * density * NOTCH ** notches);
}

const within = (zoom: number) => Math.min(GREATEST, Math.max(LEAST, zoom));

/** Room left of something centred in a view: whole CSS px, since half a px would blur every pixel. */
export function roomLeftOf(width: number, viewWidth: number): number {
  return Math.max(MARGIN, Math.floor((viewWidth - width) / 2));
}

/** How far a strip may be shrunk by the server and still be sharp at this zoom. */
export function shrinkFor(zoom: number, density: number): 1 | 2 | 4 {
  const device = zoom * density;
  if (device <= 0.25) return 4;
  return device <= 0.5 ? 2 : 1;
}
