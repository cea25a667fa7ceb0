import type { Mark, MarkKind } from "../../api/types";
import { type CutStore, shownCut } from "../cut/cutStore";
import type { Point } from "../page/geometry/boxes";
import { newLook, usualStyle } from "./drawing/markStyles";
import { boxBetween, KIND_WORDS, movedMark, tidy } from "./handling/geometry";

/** What a person does to the marks of a cut: each a step of its history. */

const DUPLICATE_OFF_PX = 16;
/** A name of its own for a mark or a hidden area. */
export function newId(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(6)), (byte) => byte.toString(16).padStart(2, "0")).join("");
}

/** A mark drawn from one point to another; null for kinds that are put down with a click. */
export function drawnMark(kind: MarkKind, scale: number, id: string, from: Point, to: Point, points: Point[]): Mark | null {
  const look = { ...newLook(kind, scale), id };
  switch (kind) {
    case "arrow":
    case "line":
      return { ...look, kind, from_x_px: tidy(from.x_px), from_y_px: tidy(from.y_px), to_x_px: tidy(to.x_px), to_y_px: tidy(to.y_px) };
    case "box":
    case "ellipse":
    case "dim":
      return { ...look, kind, ...boxBetween(from, to) };
    case "sticker":
      return { ...look, kind, ...squareBetween(from, to), sign: "star" };
    case "pen":
    case "highlighter":
      return { ...look, kind, points: points.map((point) => [tidy(point.x_px), tidy(point.y_px)]) };
    case "text":
      return { ...look, kind, x_px: tidy(from.x_px), y_px: tidy(from.y_px), text: "Text", spot_x_px: tidy(to.x_px), spot_y_px: tidy(to.y_px) };
    case "badge":
      return null;
  }
}

/** A mark put down with a click. */
export function placedMark(kind: MarkKind, scale: number, id: string, at: Point, zoom: number): Mark | null {
  const look = { ...newLook(kind, scale), id };
  const half = 24 / zoom;
  if (kind === "badge") return { ...look, kind, x_px: tidy(at.x_px), y_px: tidy(at.y_px) };
  if (kind === "text") return { ...look, kind, x_px: tidy(at.x_px), y_px: tidy(at.y_px), text: "Text" };
  if (kind === "sticker") {
    const corner = { x_px: at.x_px - half, y_px: at.y_px - half };
    return { ...look, kind, ...squareBetween(corner, { x_px: at.x_px + half, y_px: at.y_px + half }), sign: "star" };
  }
  return null;
}

function squareBetween(from: Point, to: Point) {
  const side = Math.max(8, Math.abs(to.x_px - from.x_px), Math.abs(to.y_px - from.y_px));
  const [x, y] = [to.x_px < from.x_px ? from.x_px - side : from.x_px, to.y_px < from.y_px ? from.y_px - side : from.y_px];
  return { x_px: tidy(x), y_px: tidy(y), width_px: tidy(side), height_px: tidy(side) };
}

export function addMark(store: CutStore, mark: Mark): void {
  store.commit(`${KIND_WORDS[mark.kind].toLowerCase()} drawn`, (cut) => {
    const style = usualStyle(mark.kind);
    if (style && mark.style === style.name) cut.styles[style.name] = style.look;
    cut.marks.push(mark);
  });
  store.select([mark.id]);
  if (mark.kind === "text") store.edit(mark.id);
}

/** Marks that are selected, as they stand. */
export function selectedMarks(store: CutStore): Mark[] {
  const { document, selected } = store.getState();
  return document.marks.filter((mark) => selected.includes(mark.id));
}

/** Change marks, each by itself; steps of one gesture are one. */
export function changeMarks(store: CutStore, words: string, ids: readonly string[], change: (mark: Mark) => Mark, gesture?: string): void {
  store.commit(
    words,
    (cut) => {
      cut.marks = cut.marks.map((mark) => (ids.includes(mark.id) ? change(mark) : mark));
    },
    gesture,
  );
}

/** Move several marks, each by its own way; those that are locked stay. */
export function moveEach(store: CutStore, words: string, moves: ReadonlyMap<string, Point>): void {
  changeMarks(store, words, [...moves.keys()], (mark) => {
    const { x_px, y_px } = moves.get(mark.id) ?? { x_px: 0, y_px: 0 };
    return mark.locked ? mark : movedMark(mark, tidy(x_px), tidy(y_px));
  });
}

/** Show marks as a gesture would leave them. */
export function previewMarks(store: CutStore, ids: readonly string[], change: (mark: Mark) => Mark): void {
  store.preview((cut) => {
    cut.marks = cut.marks.map((mark) => (ids.includes(mark.id) ? change(mark) : mark));
  });
}

/** What a gesture shows stays. */
export function keepPreview(store: CutStore, words: string): void {
  const { preview } = store.getState();
  if (!preview) return;
  const { marks, hidden } = preview;
  store.commit(words, (cut) => {
    cut.marks = marks;
    cut.hidden = hidden;
  });
}

export function nudgeMarks(store: CutStore, dx_px: number, dy_px: number): void {
  const { selected } = store.getState();
  changeMarks(store, "mark moved", free(store), (mark) => movedMark(mark, dx_px, dy_px), `nudge ${selected.join()}`);
}

/** The marks that are selected and not locked. */
export function free(store: CutStore): string[] {
  return selectedMarks(store).flatMap((mark) => (mark.locked ? [] : [mark.id]));
}

export function removeSelected(store: CutStore): void {
  const ids = free(store);
  if (ids.length > 0) {
    store.commit(ids.length > 1 ? "marks removed" : "mark removed", (cut) => {
      cut.marks = cut.marks.filter((mark) => !ids.includes(mark.id));
    });
  }
  const hidden = store.getState().selected;
  if (shownCut(store.getState()).hidden.some((area) => hidden.includes(area.id))) {
    store.commit("shown again", (cut) => {
      cut.hidden = cut.hidden.filter((area) => !hidden.includes(area.id));
    });
  }
  store.select([]);
}

export function removeAllMarks(store: CutStore): void {
  store.commit("all marks removed", (cut) => {
    cut.marks = [];
  });
  store.select([]);
}

export function duplicateSelected(store: CutStore): void {
  const copies = selectedMarks(store).map((mark) => ({ ...movedMark(mark, DUPLICATE_OFF_PX, DUPLICATE_OFF_PX), id: newId() }));
  if (copies.length === 0) return;
  store.commit("marks duplicated", (cut) => {
    cut.marks.push(...copies);
  });
  store.select(copies.map((mark) => mark.id));
}

/** Bring what is selected above or below all other marks; badges count in that order. */
export function reorderSelected(store: CutStore, to: "front" | "back"): void {
  const { selected } = store.getState();
  store.commit(to === "front" ? "brought to the front" : "sent to the back", (cut) => {
    const [moved, rest] = [cut.marks.filter((mark) => selected.includes(mark.id)), cut.marks.filter((mark) => !selected.includes(mark.id))];
    cut.marks = to === "front" ? [...rest, ...moved] : [...moved, ...rest];
  });
}

const COPIED = "tallpage-copied-marks";

/** Copy the marks in hand, for this cut or another one. */
export function copyMarks(store: CutStore): void {
  const marks = selectedMarks(store);
  if (marks.length > 0) localStorage.setItem(COPIED, JSON.stringify(marks));
}

/** Put down what was copied: at the same place of the page, a little off where that is taken. */
export function pasteMarks(store: CutStore): void {
  const copied = JSON.parse(localStorage.getItem(COPIED) ?? "[]") as Mark[];
  if (copied.length === 0) return;
  const taken = new Set(store.getState().document.marks.map((mark) => JSON.stringify({ ...mark, id: "" })));
  const off = copied.some((mark) => taken.has(JSON.stringify({ ...mark, id: "" }))) ? DUPLICATE_OFF_PX : 0;
  const pasted = copied.map((mark) => ({ ...movedMark(mark, off, off), id: newId() }));
  store.commit(pasted.length > 1 ? "marks pasted" : "mark pasted", (cut) => {
    cut.marks.push(...pasted);
  });
  store.select(pasted.map((mark) => mark.id));
}
