import type { Extent } from "../../../api/types";
import type { Point } from "../../page/geometry/boxes";

/** Several marks brought into line. Pure; in px of the page. */

export type Alignment = "left" | "centre" | "right" | "top" | "middle" | "bottom";

/** How far each of some boxes moves so that all have an edge, or their middles, in line. */
export function aligned(boxes: readonly Extent[], how: Alignment): Point[] {
  const [left, right] = [Math.min(...boxes.map((box) => box.left_px)), Math.max(...boxes.map((box) => box.right_px))];
  const [top, bottom] = [Math.min(...boxes.map((box) => box.top_px)), Math.max(...boxes.map((box) => box.bottom_px))];
  return boxes.map((box) => {
    switch (how) {
      case "left":
        return { x_px: left - box.left_px, y_px: 0 };
      case "centre":
        return { x_px: (left + right - box.left_px - box.right_px) / 2, y_px: 0 };
      case "right":
        return { x_px: right - box.right_px, y_px: 0 };
      case "top":
        return { x_px: 0, y_px: top - box.top_px };
      case "middle":
        return { x_px: 0, y_px: (top + bottom - box.top_px - box.bottom_px) / 2 };
      case "bottom":
        return { x_px: 0, y_px: bottom - box.bottom_px };
    }
  });
}

/** How far each moves so that the gaps between neighbours are equal; the outermost two stay. */
export function spread(boxes: readonly Extent[], axis: "x" | "y"): Point[] {
  const start = (box: Extent) => (axis === "x" ? box.left_px : box.top_px);
  const length = (box: Extent) => (axis === "x" ? box.right_px - box.left_px : box.bottom_px - box.top_px);
  const order = boxes.map((_, index) => index).sort((first, second) => at(first) - at(second));
  function at(index: number) {
    const box = boxes[index];
    return box ? start(box) + length(box) / 2 : 0;
  }
  const rows = order.flatMap((index) => boxes[index] ?? []);
  const [first, last] = [rows[0], rows.at(-1)];
  const moves = boxes.map(() => ({ x_px: 0, y_px: 0 }));
  if (!first || !last || rows.length < 3) return moves;
  const room = start(last) + length(last) - start(first) - rows.reduce((sum, box) => sum + length(box), 0);
  const gap = room / (rows.length - 1);
  let next = start(first);
  rows.forEach((box, position) => {
    const by = next - start(box);
    moves[order[position] ?? 0] = axis === "x" ? { x_px: by, y_px: 0 } : { x_px: 0, y_px: by };
    next += length(box) + gap;
  });
  return moves;
}
