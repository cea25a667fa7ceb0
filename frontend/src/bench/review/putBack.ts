import type { HiddenArea, Mark } from "../../api/types";
import type { CutStore } from "../cut/cutStore";
import { KIND_WORDS, movedMark, pointsOf } from "../marks/handling/geometry";
import type { Point } from "../page/geometry/boxes";

/** Put a part that was kept aside on the page, with its middle at a point: one step of the history. */
export function putBack(store: CutStore, part: { mark: Mark } | { hidden: HiddenArea }, middle: Point): void {
  const { page } = store.getState();
  if ("mark" in part) {
    const points = pointsOf(part.mark);
    const halfway = (places: number[]) => (Math.min(...places) + Math.max(...places)) / 2;
    const dx_px = Math.round(middle.x_px - halfway(points.map((point) => point.x_px)));
    const dy_px = Math.round(middle.y_px - halfway(points.map((point) => point.y_px)));
    const mark = movedMark(part.mark, dx_px, dy_px);
    store.commit(`${KIND_WORDS[mark.kind].toLowerCase()} put back`, (cut) => {
      cut.marks.push(mark);
    });
  } else {
    const { hidden } = part;
    const place = (at: number, length: number, end: number) => Math.round(Math.min(Math.max(0, at - length / 2), Math.max(0, end - length)));
    const area = { ...hidden, x_px: place(middle.x_px, hidden.width_px, page.width_px), y_px: place(middle.y_px, hidden.height_px, page.height_px) };
    store.commit("area hidden", (cut) => {
      cut.hidden.push(area);
    });
  }
}
