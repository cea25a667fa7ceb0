/** Rows of an output that the server hands out at once; the server's BAND_PX. */
export const BAND_PX = 1_024;

export interface Band {
  number: number;
  top_px: number;
  height_px: number;
}

/** The bands that a view from `top_px` on, `seen_px` high, touches, and one more on each side. */
export function bandsNear(height_px: number, top_px: number, seen_px: number): Band[] {
  const first = Math.max(0, Math.floor(top_px / BAND_PX) - 1);
  const last = Math.min(Math.ceil(height_px / BAND_PX) - 1, Math.floor((top_px + seen_px) / BAND_PX) + 1);
  const bands: Band[] = [];
  for (let number = first; number <= last; number += 1)
    bands.push({ number, top_px: number * BAND_PX, height_px: Math.min(BAND_PX, height_px - number * BAND_PX) });
  return bands;
}

/** The split moved by a key, in percent of the picture's width. */
export function movedSplit(split: number, by: number): number {
  return Math.min(100, Math.max(0, split + by));
}
