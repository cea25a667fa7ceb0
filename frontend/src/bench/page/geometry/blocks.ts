import type { Area, Block } from "../../../api/types";
import { type Point, sameArea } from "./boxes";

/** Smaller than this is no block that somebody would want to frame. */
const LEAST_PX = 16;

/**
 * The innermost block under a point, in page pixels. Where that block is framed already it is the
 * next larger one: clicking again and again goes outwards.
 */
export function blockAt(blocks: readonly Block[], point: Point, framed: Area): Block | null {
  const least = blocks.some((block) => sameArea(block, framed)) ? framed.width_px * framed.height_px : 0;
  let found: Block | null = null;
  for (const block of blocks) {
    const inside = contains(block, point);
    if (!inside || (contains(framed, point) && block.width_px * block.height_px <= least)) continue;
    if (block.width_px < LEAST_PX || block.height_px < LEAST_PX) continue;
    // The later of two equal blocks is the inner one.
    if (!found || block.width_px * block.height_px <= found.width_px * found.height_px) found = block;
  }
  return found;
}

function contains(frame: Area, { x_px, y_px }: Point): boolean {
  return (
    x_px >= frame.x_px && x_px < frame.x_px + frame.width_px && y_px >= frame.y_px && y_px < frame.y_px + frame.height_px
  );
}

/** “heading: Winter timetable”: what a block is, and how it begins. */
export function blockWords(block: Block): string {
  const said = block.text || block.alt;
  return said ? `${block.role}: ${said.length > 48 ? `${said.slice(0, 47)}…` : said}` : block.role;
}
