import type { Area, Extent, HiddenArea, Mark, MarkKind } from "../../../api/types";
import type { HeldKeys } from "../../../parts/dragging";
import type { CutStore } from "../../cut/cutStore";
import { drawnFrame, type Handle, type PageSize, type Point, resizedFrame } from "../../page/geometry/boxes";
import type { Gesture } from "../../page/pointer/gestures";
import { hideArea } from "../hiding/hideSteps";
import { addMark, drawnMark, free, keepPreview, newId, placedMark, previewMarks } from "../markSteps";
import { boxBetween, movedMark } from "./geometry";
import { type HandleName, inSteps, reshaped, squarely } from "./handles";
import { extentOf, heldOf, marksWithin, movedExtent, type ShownMark } from "./hitMarks";
import { type Axes, spot } from "./snapping";

/** What presses on marks and on the page do while the page is pointed at, or something is hidden. */

/** What draws a gesture to edges around it. */
export interface Snapping {
  /** How far to move a box, so that it meets what stands around it; guides are shown meanwhile. */
  by: (moving: Extent, keys: HeldKeys, axes?: Axes) => Point;
  /** The gesture is over. */
  end: () => void;
}

/** Draw a mark of a kind. What is shown on the way is not yet part of the history. */
export function drawGesture(store: CutStore, kind: MarkKind, pressed: Point, zoom: number, keys: HeldKeys, snapping: Snapping): Gesture {
  const id = newId();
  const scale = store.getState().page.scale ?? 1;
  const byHand = kind === "pen" || kind === "highlighter";
  const meeting = (at: Point, held: HeldKeys): Point => (byHand ? at : sum(at, snapping.by(spot(at), held)));
  const from = meeting(pressed, keys);
  const points = [from];
  const at = (to: Point, held: HeldKeys): Mark | null => {
    const even = kind === "arrow" || kind === "line" ? inSteps : squarely;
    const end = held.shift && !byHand ? even(from, to) : meeting(to, held);
    points.push(end);
    return drawnMark(kind, scale, id, from, end, points);
  };
  return {
    move: (to, held) => {
      const mark = at(to, held);
      if (mark) store.preview((cut) => void cut.marks.push(mark));
    },
    drop: (to, held) => {
      const mark = at(to, held) ?? placedMark(kind, scale, id, to, zoom);
      snapping.end();
      store.cancel();
      if (mark) addMark(store, mark);
    },
    click: (to) => {
      snapping.end();
      const mark = placedMark(kind, scale, id, to, zoom);
      if (mark) addMark(store, mark);
    },
    cancel: () => {
      snapping.end();
      store.cancel();
    },
  };
}

/** Take a mark: it is selected, and dragged along with whatever is selected. */
export function takeGesture(store: CutStore, id: string, from: Point, joining: boolean, shown: readonly ShownMark[], snapping: (ids: readonly string[]) => Snapping): Gesture {
  const { selected } = store.getState();
  const taken = selected.includes(id) ? selected : joining ? [...selected, id] : [id];
  if (!selected.includes(id)) store.select(taken);
  const moving = around(shown.filter((row) => taken.includes(row.mark.id) && !row.mark.locked).flatMap((row) => extentOf(row) ?? []));
  const edges = snapping(taken);
  const by = (to: Point, keys: HeldKeys): Point => {
    const dragged = { x_px: Math.round(to.x_px - from.x_px), y_px: Math.round(to.y_px - from.y_px) };
    return moving ? sum(dragged, edges.by(movedExtent(moving, dragged), keys)) : dragged;
  };
  return {
    move: (to, keys) => {
      const { x_px, y_px } = by(to, keys);
      previewMarks(store, free(store), (mark) => movedMark(mark, x_px, y_px));
    },
    drop: () => {
      edges.end();
      keepPreview(store, taken.length > 1 ? "marks moved" : "mark moved");
    },
    click: () => {
      if (selected.includes(id)) store.select(joining ? selected.filter((row) => row !== id) : [id]);
    },
    cancel: () => {
      edges.end();
      store.cancel();
    },
  };
}

/** Handles whose points meet edges; the others turn, bend and size. */
const MEETS_EDGES: ReadonlySet<HandleName> = new Set(["from", "to", "nw", "ne", "sw", "se", "spot"]);

export function reshapeGesture(store: CutStore, handle: HandleName, taken: ShownMark, snapping: Snapping): Gesture {
  const held = heldOf(taken);
  const { id } = taken.mark;
  return {
    move: (to, keys) => {
      const at = MEETS_EDGES.has(handle) && !keys.shift ? sum(to, snapping.by(spot(to), keys)) : to;
      previewMarks(store, [id], (mark) => reshaped(mark, handle, at, held, keys.shift));
    },
    drop: () => {
      snapping.end();
      keepPreview(store, handle === "turn" ? "mark turned" : "mark reshaped");
    },
    cancel: () => {
      snapping.end();
      store.cancel();
    },
  };
}

const sum = (one: Point, other: Point): Point => ({ x_px: one.x_px + other.x_px, y_px: one.y_px + other.y_px });

function around(boxes: readonly Extent[]): Extent | null {
  if (boxes.length === 0) return null;
  return {
    left_px: Math.min(...boxes.map((box) => box.left_px)),
    top_px: Math.min(...boxes.map((box) => box.top_px)),
    right_px: Math.max(...boxes.map((box) => box.right_px)),
    bottom_px: Math.max(...boxes.map((box) => box.bottom_px)),
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

/** Take a hidden area by a corner. */
export function resizeHiddenGesture(store: CutStore, id: string, corner: Handle, from: Point, page: PageSize): Gesture {
  return {
    move: (to) =>
      store.preview((cut) => {
        cut.hidden = cut.hidden.map((area) => (area.id === id ? { ...area, ...resizedFrame(area, corner, to.x_px - from.x_px, to.y_px - from.y_px, page) } : area));
      }),
    drop: () => keepPreview(store, "hidden area resized"),
    cancel: store.cancel,
  };
}

const within = (value: number, greatest: number) => Math.min(Math.max(0, value), Math.max(0, greatest));
