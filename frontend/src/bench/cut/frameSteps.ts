import type { Area, Fold, Frame, Seam } from "../../api/types";
import { bandsOf, type FoldAxis, withBands, withFolds, withRawBands } from "../page/geometry/folds";
import {
  fieldRange,
  type FrameField,
  type Handle,
  movedFrame,
  type PageSize,
  resizedFrame,
  wholeFrame,
} from "../page/geometry/boxes";
import { heldShape } from "../shape/shape";
import { type CutState, type CutStore, shownCut } from "./cutStore";

const AXES: readonly FoldAxis[] = ["across", "down"];

/** What a person does to the frame of a cut: each a step of its history. */

const FIELD_WORDS: Record<FrameField, string> = {
  x_px: "left edge typed",
  y_px: "upper edge typed",
  width_px: "width typed",
  height_px: "height typed",
};

/** The frame to show: as it is being dragged, else as it stands. */
export function shownFrame(state: CutState): Frame {
  return shownCut(state).frame;
}

/** A gesture shows another box; folds stay where they are. */
export function dragFrame(store: CutStore, area: Area): void {
  store.preview((cut) => {
    cut.frame = withFolds(area, cut.frame.folds, bandsOf(cut.frame, "down"));
  });
}

/** A fold on its way: it joins its neighbours, and is saved, only when it is let go. */
export function dragFold(store: CutStore, axis: FoldAxis, index: number, fold: Fold): void {
  store.preview((cut) => {
    cut.frame = withRawBands(cut.frame, axis, bandsOf(cut.frame, axis).with(index, fold));
  });
}

/** A band on its way to be folded away. */
export function dragBand(store: CutStore, axis: FoldAxis, band: Fold): void {
  store.preview((cut) => {
    cut.frame = withRawBands(cut.frame, axis, [...bandsOf(cut.frame, axis), band]);
  });
}

/** What was dragged stays as it is shown. */
export function dropFrame(store: CutStore, words: string): void {
  const { preview } = store.getState();
  if (!preview) return;
  const dropped = withFolds(preview.frame, preview.frame.folds, bandsOf(preview.frame, "down"));
  // Folds that would hide everything change nothing.
  if (AXES.some((axis) => bandsOf(dropped, axis).length === 0 && bandsOf(preview.frame, axis).length > 0)) store.cancel();
  else setWhole(store, words, dropped);
}

/** Set one of the four numbers; whether it is possible. */
export function setField(store: CutStore, field: FrameField, value: number): boolean {
  const { document, page } = store.getState();
  const { least, greatest } = fieldRange(document.frame, field, page);
  if (!Number.isInteger(value) || value < least || value > greatest) return false;
  const typed = { ...document.frame, [field]: value };
  const side = field === "height_px" ? { x: 0, y: 1 } as const : { x: 1, y: 0 } as const;
  const isSize = field === "width_px" || field === "height_px";
  setFrame(store, FIELD_WORDS[field], isSize ? heldShape(typed, document.frame, side, page) : typed);
  return true;
}

export function nudge(store: CutStore, dx_px: number, dy_px: number): void {
  const { document, page } = store.getState();
  setFrame(store, "frame moved", movedFrame(document.frame, dx_px, dy_px, page), "nudge");
}

export function stretch(store: CutStore, handle: Handle, dx_px: number, dy_px: number): void {
  const { document, page } = store.getState();
  const resized = resizedFrame(document.frame, handle, dx_px, dy_px, page);
  setFrame(store, "edge moved", heldShape(resized, document.frame, handle, page), "stretch");
}

export function frameAll(store: CutStore): void {
  setFrame(store, "whole page framed", wholeFrame(store.getState().page));
}

export function setFrame(store: CutStore, words: string, area: Area, gesture?: string): void {
  const { frame } = store.getState().document;
  setWhole(store, words, withFolds(area, frame.folds, bandsOf(frame, "down")), gesture);
}

export function addFolds(store: CutStore, folds: readonly Fold[], axis: FoldAxis = "across"): void {
  const { frame } = store.getState().document;
  const changed = withBands(frame, axis, [...bandsOf(frame, axis), ...folds]);
  // What would fold everything away changes nothing.
  if (bandsOf(changed, axis).length > 0) setWhole(store, folds.length > 1 ? "bands folded away" : "band folded away", changed);
  store.setTool({ kind: "frame" });
}

export function setFold(store: CutStore, axis: FoldAxis, index: number, fold: Fold): void {
  const { frame } = store.getState().document;
  const changed = withBands(frame, axis, bandsOf(frame, axis).with(index, fold));
  if (bandsOf(changed, axis).length > 0) setWhole(store, "fold changed", changed, "fold");
}

export function removeFold(store: CutStore, axis: FoldAxis, index: number): void {
  const { frame } = store.getState().document;
  setWhole(store, "band unfolded", withBands(frame, axis, bandsOf(frame, axis).toSpliced(index, 1)));
}

/** How the folds are seen in files; null where the two sides just meet. */
export function setSeam(store: CutStore, seam: Seam | null): void {
  store.commit("seam chosen", (cut) => {
    if (seam) cut.seam = seam;
    else delete cut.seam;
  });
}

/** A page that is shown whole has nothing that could be moved. */
export function isWhole(frame: Area, page: PageSize): boolean {
  const whole = wholeFrame(page);
  return frame.width_px === whole.width_px && frame.height_px === whole.height_px;
}

function setWhole(store: CutStore, words: string, frame: Frame, gesture?: string): void {
  store.commit(
    words,
    (cut) => {
      cut.frame = frame;
    },
    gesture,
  );
}
