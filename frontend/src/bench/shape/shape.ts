import { create } from "zustand";

import type { Area, Frame } from "../../api/types";
import type { Handle, PageSize } from "../page/geometry/boxes";
import { type Corner, type Ratio, withRatio } from "../page/geometry/shapes";
import { shownSize } from "../page/geometry/folds";

/** How a frame that is drawn or typed is held to a shape. Not a part of the cut. */

export interface NamedShape {
  name: string;
  width: number;
  height: number;
  /** Whether the two are px of the file, not only how they are to each other. */
  exact: boolean;
}

interface Shape {
  /** The shape to which frames are held; null where they are free. */
  held: NamedShape | null;
  own: readonly NamedShape[];
  /** From where the frame's numbers count. */
  corner: Corner;
}

const KEPT = "tallpage-shapes";
const MOST_OWN = 20;
export const MOST_SIDE = 20_000;

export const SHAPES: readonly NamedShape[] = [
  { name: "square", width: 1, height: 1, exact: false },
  { name: "4 : 3", width: 4, height: 3, exact: false },
  { name: "3 : 2", width: 3, height: 2, exact: false },
  { name: "16 : 9", width: 16, height: 9, exact: false },
  { name: "2 : 1", width: 2, height: 1, exact: false },
];

function keptShapes(): NamedShape[] {
  try {
    const rows = JSON.parse(localStorage.getItem(KEPT) ?? "[]") as unknown;
    return Array.isArray(rows) ? rows.filter(isShape) : [];
  } catch {
    return [];
  }
}

function isShape(row: unknown): row is NamedShape {
  const { name, width, height } = (row ?? {}) as Partial<NamedShape>;
  return typeof name === "string" && typeof width === "number" && width > 0 && typeof height === "number" && height > 0;
}

export const useShape = create<Shape>(() => ({ held: null, own: keptShapes(), corner: "top-left" }));

/** Keep a shape of one's own in this browser; the oldest goes when there are many. */
export function keepShape(shape: NamedShape): void {
  const own = [shape, ...useShape.getState().own.filter((row) => row.name !== shape.name)].slice(0, MOST_OWN);
  localStorage.setItem(KEPT, JSON.stringify(own));
  useShape.setState({ own });
}

export function forgetShape(name: string): void {
  const own = useShape.getState().own.filter((row) => row.name !== name);
  localStorage.setItem(KEPT, JSON.stringify(own));
  useShape.setState({ own });
}

/** A box that a handle makes of a frame, held to the shape in hand. */
export function heldShape(area: Area, frame: Frame, handle: Handle, page: PageSize): Area {
  const { held } = useShape.getState();
  if (!held) return area;
  const ratio: Ratio = held;
  const shown = shownSize(frame);
  const folded = { width_px: frame.width_px - shown.width_px, height_px: frame.height_px - shown.height_px };
  return withRatio(area, ratio, handle, page, folded);
}
