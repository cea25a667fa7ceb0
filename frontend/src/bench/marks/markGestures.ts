import type { Area, HiddenArea, Mark, MarkKind } from "../../api/types";
import type { CutStore } from "../cut/cutStore";
import { drawnFrame, type PageSize, type Point } from "../page/geometry/boxes";
import type { Gesture } from "../page/pointer/gestures";
import { boxBetween, type HandleName, movedMark, reshaped } from "./geometry";
import { marksWithin, type ShownMark } from "./hitMarks";
import { addMark, drawnMark, free, hideArea, keepPreview, newId, placedMark, previewMarks } from "./markSteps";

/** What presses on marks and on the page do while the page is pointed at, or something is hidden. */

/** Draw a mark of a kind. What is shown on the way is not yet part of the history. */
export function drawGesture(store: CutStore, kind: MarkKind, from: Point, zoom: number): Gesture {
  const id = newId();
  const points = [from];
  const at = (to: Point): Mark | null => {
    points.push(to);
    return drawnMark(kind, id, from, to, points);
  };
  return {
    move: (to) => {
      const mark = at(to);
      if (mark) store.preview((cut) => void cut.marks.push(mark));
    },
    drop: (to) => {
      const mark = at(to) ?? placedMark(kind, id, to, zoom);
      store.cancel();
      if (mark) addMark(store, mark);
    },
    click: (to) => {
      const mark = placedMark(kind, id, to, zoom);
      if (mark) addMark(store, mark);
    },
    cancel: store.cancel,
  };
}

/** Take a mark: it is selected, and dragged along with whatever is selected. */
export function takeGesture(store: CutStore, id: string, from: Point, joining: boolean): Gesture {
  const { selected } = store.getState();
  const taken = selected.includes(id) ? selected : joining ? [...selected, id] : [id];
  if (!selected.includes(id)) store.select(taken);
  const change = (to: Point) => (mark: Mark) => movedMark(mark, Math.round(to.x_px - from.x_px), Math.round(to.y_px - from.y_px));
  return {
    move: (to) => previewMarks(store, free(store), change(to)),
    drop: () => keepPreview(store, taken.length > 1 ? "marks moved" : "mark moved"),
    click: () => {
      if (selected.includes(id)) store.select(joining ? selected.filter((row) => row !== id) : [id]);
    },
    cancel: store.cancel,
  };
}

export function reshapeGesture(store: CutStore, id: string, handle: HandleName): Gesture {
  return {
    move: (to) => previewMarks(store, [id], (mark) => reshaped(mark, handle, to)),
    drop: () => keepPreview(store, "mark reshaped"),
    cancel: store.cancel,
  };
}

/** Select all marks that a box touches. */
export function lassoGesture(store: CutStore, from: Point, shown: readonly ShownMark[], show: (box: Area | null) => void, joining: boolean): Gesture {
  const before = joining ? store.getState().selected : [];
  return {
    move: (to) => show(boxBetween(from, to)),
    drop: (to) => {
      show(null);
      store.select([...new Set([...before, ...marksWithin(boxBetween(from, to), shown)])]);
    },
    click: () => store.select(before),
    cancel: () => show(null),
  };
}

/** Hide an area. */
export function hideGesture(store: CutStore, how: HiddenArea["how"], from: Point, page: PageSize): Gesture {
  const area = (to: Point): Area => drawnFrame(from, to, page);
  return {
    move: (to) => store.preview((cut) => void cut.hidden.push({ id: "new", how: "solid", ...area(to) })),
    drop: (to) => {
      store.cancel();
      hideArea(store, area(to), how);
    },
    click: () => store.select([]),
    cancel: store.cancel,
  };
}

/** Take a hidden area: it is selected, and can be dragged elsewhere. */
export function takeHiddenGesture(store: CutStore, id: string, from: Point, page: PageSize): Gesture {
  store.select([id]);
  const moved = (area: HiddenArea, to: Point): HiddenArea => ({
    ...area,
    x_px: within(area.x_px + Math.round(to.x_px - from.x_px), page.width_px - area.width_px),
    y_px: within(area.y_px + Math.round(to.y_px - from.y_px), page.height_px - area.height_px),
  });
  return {
    move: (to) =>
      store.preview((cut) => {
        cut.hidden = cut.hidden.map((area) => (area.id === id ? moved(area, to) : area));
      }),
    drop: () => keepPreview(store, "hidden area moved"),
    cancel: store.cancel,
  };
}

const within = (value: number, greatest: number) => Math.min(Math.max(0, value), Math.max(0, greatest));
