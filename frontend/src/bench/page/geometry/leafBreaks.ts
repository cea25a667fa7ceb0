import type { Output } from "../../../api/types";

/** Breaks of an output as rows of the page; none where it is one file. */
export function breaksOf(output: Output): number[] {
  return output.leaves.slice(1).map((leaf) => leaf.top_px);
}

/** Breaks (page px) with one of them moved; it stays between its neighbours, and so do the others. */
export function movedBreak(
  breaks: number[],
  index: number,
  y_px: number,
  frame: { y_px: number; height_px: number },
  least_px = LEAST_LEAF_PX,
): number[] {
  const lowest = (breaks[index - 1] ?? frame.y_px) + least_px;
  const highest = (breaks[index + 1] ?? frame.y_px + frame.height_px) - least_px;
  return breaks.map((old, at) => (at === index ? Math.round(Math.min(highest, Math.max(lowest, y_px))) : old));
}

/** The server's LEAST_LEAF_PX. */
export const LEAST_LEAF_PX = 16;
