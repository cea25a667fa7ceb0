import { create } from "zustand";

import type { Point } from "../page/geometry/boxes";

/** Two points of the page and how far they are apart. */
export interface Ruler {
  from: Point;
  to: Point;
}

interface Rulers {
  /** Those that were left standing. */
  standing: readonly Ruler[];
  /** The one that is being drawn. */
  drawn: Ruler | null;
}

/** Rulers are no part of a cut: they are there to look at, until they are taken away. */
export const useRulers = create<Rulers>(() => ({ standing: [], drawn: null }));

const tenth = (px: number) => Math.round(px * 10) / 10;

/** What a ruler says: across, down and straight, in px of the page; straight also in those of a file. */
export function rulerWords({ from, to }: Ruler, scale: number | null): string {
  const [across, down] = [Math.abs(to.x_px - from.x_px), Math.abs(to.y_px - from.y_px)];
  const straight = Math.hypot(across, down);
  const sides = across > 0 && down > 0 ? `${tenth(across)} × ${tenth(down)}, ` : "";
  const inFile = scale === null ? "" : ` = ${tenth(straight * scale)} px in the file`;
  return `${sides}${tenth(straight)} px${inFile}`;
}
