import type { Area } from "../../../api/types";
import type { Handle, PageSize } from "./boxes";

/** Boxes of a fixed shape, and numbers counted from another corner than the upper left one. Pure. */

const NOTHING: PageSize = { width_px: 0, height_px: 0 };

/** Width to height. */
export interface Ratio {
  width: number;
  height: number;
}

/**
 * A box brought to a ratio, as far as the page has room. What is opposite the handle that is dragged stays
 * where it is; `folded_px` of its rows are folded away and do not count.
 */
export function withRatio(area: Area, ratio: Ratio, handle: Handle, page: PageSize, folded: PageSize = NOTHING): Area {
  const share = ratio.width / ratio.height;
  const [right, bottom] = [area.x_px + area.width_px, area.y_px + area.height_px];
  const room = {
    across: (handle.x < 0 ? right : page.width_px - area.x_px) - folded.width_px,
    down: (handle.y < 0 ? bottom : page.height_px - area.y_px) - folded.height_px,
  };
  const across_px = Math.max(1, area.width_px - folded.width_px);
  const down_px = Math.max(1, area.height_px - folded.height_px);
  const asked = handle.x === 0 ? down_px * share : handle.y === 0 ? across_px : Math.max(across_px, down_px * share);
  const shown_px = Math.max(1, Math.round(Math.min(asked, room.across, room.down * share)));
  const width_px = shown_px + folded.width_px;
  const height_px = Math.max(1, Math.min(Math.round(shown_px / share), Math.max(1, room.down))) + folded.height_px;
  return {
    x_px: handle.x < 0 ? right - width_px : area.x_px,
    y_px: handle.y < 0 ? bottom - height_px : area.y_px,
    width_px,
    height_px,
  };
}

/** From where x and y are counted inwards. */
export type Corner = "top-left" | "top" | "top-right" | "left" | "centre" | "right" | "bottom-left" | "bottom" | "bottom-right";

export const CORNER_WORDS: Record<Corner, string> = {
  "top-left": "upper left",
  top: "upper edge",
  "top-right": "upper right",
  left: "left edge",
  centre: "middle",
  right: "right edge",
  "bottom-left": "lower left",
  bottom: "lower edge",
  "bottom-right": "lower right",
};

/** How far a box is from a corner, inwards; from a middle, to the right and down. As the command line counts. */
export function fromCorner(area: Area, corner: Corner, page: PageSize): { x_px: number; y_px: number } {
  const along = (start: boolean, end: boolean, at: number, length: number, whole: number) =>
    start ? at : end ? whole - at - length : at - Math.floor((whole - length) / 2);
  return {
    x_px: along(corner.includes("left"), corner.includes("right"), area.x_px, area.width_px, page.width_px),
    y_px: along(corner.includes("top"), corner.includes("bottom"), area.y_px, area.height_px, page.height_px),
  };
}

/** The place of a box, from the upper left corner, whose distance from another corner is a number. */
export function placeFrom(field: "x_px" | "y_px", value: number, area: Area, corner: Corner, page: PageSize): number {
  const [length, whole] = field === "x_px" ? [area.width_px, page.width_px] : [area.height_px, page.height_px];
  const [start, end] = field === "x_px" ? ["left", "right"] : ["top", "bottom"];
  if (corner.includes(start)) return value;
  return corner.includes(end) ? whole - value - length : Math.floor((whole - length) / 2) + value;
}
