/** How large the page is shown in the middle column. */
export type ZoomMode = "fit" | "1" | "2";

/** Room around the page, so that its edges can be grabbed. */
export const MARGIN = 18;

/** CSS px per page pixel. Actual pixels are the display's own, whatever its density. */
export function zoomOf(mode: ZoomMode, pageWidth_px: number, viewWidth: number, density: number): number {
  const actual = 1 / density;
  if (mode === "1") return actual;
  if (mode === "2") return 2 * actual;
  const room = viewWidth - 2 * MARGIN;
  return room > 0 ? Math.min(actual, room / pageWidth_px) : actual;
}

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
