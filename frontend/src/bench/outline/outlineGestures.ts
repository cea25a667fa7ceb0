import type { CutStore } from "../cut/cutStore";
import type { Point } from "../page/geometry/boxes";
import { type Gesture, NOTHING } from "../page/pointer/gestures";
import { forgetDraft, useOutlineDraft } from "./draft";
import { apart, type Corner, cornerAt, cornersIn, LEAST_POINTS, loopOf, MOST_POINTS, sideAt, simplified } from "./outlines";
import { dragCorners, drawOutline, setCorners } from "./outlineSteps";

/** What a press on the page does while an outline is drawn or changed. Lengths in CSS px are divided by the zoom. */

const REACH = 8;
/** How far, in CSS px, an outline drawn by hand may be from what was drawn. */
const FAR = 1.5;

/** An outline drawn in one go; its ends are joined. */
export function handGesture(store: CutStore, from: Point, zoom: number): Gesture {
  const points = [from];
  const show = () => useOutlineDraft.setState({ points: [...points] });
  return {
    move: (to) => {
      points.push(to);
      show();
    },
    drop: (to) => {
      points.push(to);
      closeOutline(store, loopOf(fewEnough(points, FAR / zoom)));
    },
    cancel: forgetDraft,
  };
}

/** The next corner of an outline that is pressed point by point; its first corner closes it. */
export function pointsGesture(store: CutStore, zoom: number): Gesture {
  const add = (at: Point) => {
    const { points } = useOutlineDraft.getState();
    const closes = points.length >= LEAST_POINTS && cornerAt(at, points.slice(0, 1).map(cornerOf), REACH / zoom) !== null;
    if (closes) closeOutline(store, points);
    else if (points.length < MOST_POINTS) useOutlineDraft.setState({ points: [...points, at] });
  };
  return { ...NOTHING, drop: add, click: add };
}

/** A corner of the outline is moved; one between two others begins where its side is pressed. */
export function cornerGesture(store: CutStore, from: Point, zoom: number): Gesture {
  const { outline } = store.getState().document;
  const standing = outline ? cornersIn(outline) : [];
  const pressed = cornerAt(from, standing, REACH / zoom);
  const side = pressed === null ? sideAt(from, standing, REACH / zoom) : null;
  const index = pressed ?? (side === null ? null : side + 1);
  if (index === null || (side !== null && standing.length >= MOST_POINTS)) return { ...NOTHING, click: () => useOutlineDraft.setState({ inHand: null }) };
  const moved = (to: Point): Corner[] => (pressed === null ? standing.toSpliced(index, 0, cornerOf(to)) : standing.with(index, cornerOf(to)));
  useOutlineDraft.setState({ inHand: pressed });
  return {
    move: (to) => dragCorners(store, moved(to)),
    drop: (to) => {
      if (setCorners(store, moved(to), "outline changed")) useOutlineDraft.setState({ inHand: index });
    },
    click: () => undefined,
    cancel: store.cancel,
  };
}

/** What was drawn becomes the outline, or is refused with a word. */
export function closeOutline(store: CutStore, points: readonly Point[]): void {
  if (drawOutline(store, apart(points.map(cornerOf)))) store.setTool({ kind: "outline", how: "corners" });
  forgetDraft();
}

/** As few points as an outline may have, even of a long line. */
function fewEnough(points: readonly Point[], far_px: number): Point[] {
  const kept = simplified(points, far_px);
  return kept.length <= MOST_POINTS ? kept : fewEnough(kept, far_px * 2);
}

const cornerOf = ({ x_px, y_px }: Point): Corner => [x_px, y_px];
