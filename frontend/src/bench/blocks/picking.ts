import { create } from "zustand";

import type { Area, Block } from "../../api/types";
import type { CutStore } from "../cut/cutStore";
import { setFrame } from "../cut/frameSteps";
import { type PageSize, sameArea } from "../page/geometry/boxes";

/** Blocks become the frame: one, several, the one around it, with room on each side. */

interface Picking {
  /** Room around what is picked, in px of the page. */
  margin_px: number;
  /** The box around the blocks that were picked, without that room. */
  picked: Area | null;
}

export const usePicking = create<Picking>(() => ({ margin_px: 0, picked: null }));

export const MOST_MARGIN_PX = 2_000;

export function union(first: Area, second: Area): Area {
  const [left, top] = [Math.min(first.x_px, second.x_px), Math.min(first.y_px, second.y_px)];
  const right = Math.max(first.x_px + first.width_px, second.x_px + second.width_px);
  const bottom = Math.max(first.y_px + first.height_px, second.y_px + second.height_px);
  return { x_px: left, y_px: top, width_px: right - left, height_px: bottom - top };
}

/** A box with room on each side, as far as there is page. */
export function grown({ x_px, y_px, width_px, height_px }: Area, by_px: number, page: PageSize): Area {
  const [left, top] = [Math.max(0, x_px - by_px), Math.max(0, y_px - by_px)];
  const right = Math.min(page.width_px, x_px + width_px + by_px);
  const bottom = Math.min(page.height_px, y_px + height_px + by_px);
  return { x_px: left, y_px: top, width_px: right - left, height_px: bottom - top };
}

/** What was picked, while the frame is still around it; a frame that was drawn is what it shows. */
function standing(store: CutStore): Area {
  const { picked, margin_px } = usePicking.getState();
  const { document, page } = store.getState();
  return picked && sameArea(grown(picked, margin_px, page), document.frame) ? picked : boxOf(document.frame);
}

const boxOf = ({ x_px, y_px, width_px, height_px }: Area): Area => ({ x_px, y_px, width_px, height_px });

/** A block becomes the frame; joined, the frame goes around it as well. */
export function pick(store: CutStore, block: Area, joining: boolean): void {
  const { document, page } = store.getState();
  // A frame around everything has nothing to be joined with.
  const alone = !joining || (document.frame.width_px === page.width_px && document.frame.height_px === page.height_px);
  frame(store, alone ? "block framed" : "block joined", alone ? boxOf(block) : union(standing(store), boxOf(block)));
}

/** Room around what is framed: what was picked gets more or less of it. */
export function setMargin(store: CutStore, margin_px: number): void {
  const picked = standing(store);
  usePicking.setState({ margin_px });
  frame(store, "margin changed", picked, "margin");
}

/** The frame goes out to the block that holds what it shows; whether there is one. */
export function pickAround(store: CutStore, blocks: readonly Block[]): boolean {
  const now = standing(store);
  const around = blocks.filter((block) => holds(block, now)).sort((first, second) => area(first) - area(second))[0];
  if (around) frame(store, "the block around it framed", boxOf(around), "block");
  return around !== undefined;
}

/** The frame goes in to the largest block inside, of several the uppermost; whether there is one. */
export function pickInside(store: CutStore, blocks: readonly Block[]): boolean {
  const now = standing(store);
  const inside = blocks.filter((block) => holds(now, block)).sort((first, second) => area(second) - area(first) || first.y_px - second.y_px)[0];
  if (inside) frame(store, "a block inside it framed", boxOf(inside), "block");
  return inside !== undefined;
}

function frame(store: CutStore, words: string, picked: Area, gesture?: string): void {
  setFrame(store, words, grown(picked, usePicking.getState().margin_px, store.getState().page), gesture);
  usePicking.setState({ picked });
}

const area = ({ width_px, height_px }: Area) => width_px * height_px;

/** Whether a box lies within another, larger one. */
function holds(outer: Area, inner: Area): boolean {
  return (
    outer.x_px <= inner.x_px &&
    outer.y_px <= inner.y_px &&
    outer.x_px + outer.width_px >= inner.x_px + inner.width_px &&
    outer.y_px + outer.height_px >= inner.y_px + inner.height_px &&
    area(outer) > area(inner)
  );
}
