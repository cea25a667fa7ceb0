import type { CutStore } from "../cut/cutStore";
import { setFrame } from "../cut/frameSteps";
import { wholeFrame } from "../page/geometry/boxes";
import { heldShape, type NamedShape, useShape } from "./shape";

/** What a person does to the shape of frames. */

/** Hold frames to a shape from now on, this one too; null lets them be. */
export function holdTo(store: CutStore, shape: NamedShape | null): void {
  useShape.setState({ held: shape });
  if (!shape) return;
  const { frame } = store.getState().document;
  setFrame(store, "shape given", heldShape(frame, frame, { x: 1, y: 0 }, store.getState().page));
}

/** The frame over the page's whole width, of the shape in hand. */
export function frameFullWidth(store: CutStore): void {
  const { page, document } = store.getState();
  const { x_px, width_px } = wholeFrame(page);
  const wide = { ...document.frame, x_px, width_px };
  setFrame(store, "full width framed", heldShape(wide, document.frame, { x: 1, y: 0 }, page));
}
