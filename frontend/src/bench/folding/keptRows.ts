import type { Area, Block, Fold } from "../../api/types";

/** Long lists and tables, of which the first rows say enough. Pure. */

const LONG_ROLES = ["list", "table"];
/** A block that is nearly as high as the list holds its rows; it is none of them. */
const HOLDS = 0.9;
/** How much of a row the next one may cover. */
const SHARED = 0.1;

/** What to fold away so that of each long list and table in a frame the first rows are left. */
export function foldsAfterRows(blocks: readonly Block[], frame: Area, kept: number): Fold[] {
  const found: Fold[] = [];
  for (const list of blocks) {
    if (!LONG_ROLES.includes(list.role) || !touches(list, frame)) continue;
    const bottom_px = list.y_px + list.height_px;
    // A list in a list that is folded already, or in the menu of the page.
    if (found.some((fold) => fold.top_px <= list.y_px && bottom_px <= fold.top_px + fold.height_px)) continue;
    if (blocks.some((block) => block.role === "navigation" && holds(block, list))) continue;
    const rows = rowsOf(list, blocks);
    const next = rows[kept];
    // One row more is no less than a seam.
    if (!next || rows.length < kept + 2) continue;
    const last = rows.at(-1) ?? next;
    found.push({ top_px: next.top_px, height_px: last.top_px + last.height_px - next.top_px });
  }
  return found;
}

/** The rows of a list from top to bottom: what stands beside each other is one. */
export function rowsOf(list: Block, blocks: readonly Block[]): Fold[] {
  const inside = blocks.filter((block) => block !== list && holds(list, block) && block.height_px < list.height_px * HOLDS);
  const rows: Fold[] = [];
  for (const { y_px, height_px } of inside.sort((first, second) => first.y_px - second.y_px || second.height_px - first.height_px)) {
    const row = rows.at(-1);
    // Neighbours may share a border.
    if (!row || y_px >= row.top_px + row.height_px * (1 - SHARED)) rows.push({ top_px: y_px, height_px });
    else row.height_px = Math.max(row.height_px, y_px + height_px - row.top_px);
  }
  return rows;
}

const holds = (outer: Area, inner: Area) =>
  inner.x_px >= outer.x_px - 1 &&
  inner.y_px >= outer.y_px - 1 &&
  inner.x_px + inner.width_px <= outer.x_px + outer.width_px + 1 &&
  inner.y_px + inner.height_px <= outer.y_px + outer.height_px + 1;

const touches = (first: Area, second: Area) =>
  first.x_px < second.x_px + second.width_px &&
  second.x_px < first.x_px + first.width_px &&
  first.y_px < second.y_px + second.height_px &&
  second.y_px < first.y_px + first.height_px;
