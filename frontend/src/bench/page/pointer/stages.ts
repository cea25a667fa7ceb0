import type { Area, Block } from "../../../api/types";
import type { HeldKeys } from "../../../parts/dragging";
import { putBackGesture } from "../../clearing/putBackGesture";
import { type CutStore, type CutState } from "../../cut/cutStore";
import { isWhole } from "../../cut/frameSteps";
import type { ToCalm } from "../../folding/calm";
import { markAt, type ShownMark } from "../../marks/handling/hitMarks";
import { drawGesture, hideGesture, lassoGesture, reshapeGesture, resizeHiddenGesture, type Snapping, takeGesture, takeHiddenGesture } from "../../marks/handling/markGestures";
import { rulerGesture } from "../../measuring/rulerGesture";
import { cornerGesture, handGesture, pointsGesture } from "../../outline/outlineGestures";
import { levelGesture } from "../../turning/levelGesture";
import type { PageSize, Point } from "../geometry/boxes";
import type { FoldAxis } from "../geometry/folds";
import { type BreakMoves, type Gesture, gestureAt, NOTHING } from "./gestures";
import { type Hit, hiddenAt, hitAt } from "./hitTest";

/** What a press on the page means in each stage of the work. */

export interface Bench {
  store: CutStore;
  page: PageSize;
  blocks: readonly Block[];
  breaks: BreakMoves;
  zoom: number;
  marks: () => readonly ShownMark[];
  /** Show the box around what is to be selected. */
  onLasso: (box: Area | null) => void;
  /** Show the line along which the page is to be level. */
  onLine: (line: readonly [Point, Point] | null) => void;
  /** Make the colour of a px transparent. */
  clearAt: (at: Point) => void;
  /** What draws marks to edges, but not to their own. */
  snapping: (ids: readonly string[]) => Snapping;
  /** What draws lines to rows or columns in which nothing stands. */
  calm: (axis: FoldAxis) => ToCalm;
}

/** What lies under a point, of what can be taken in the stage at hand. */
export function hitInStage(point: Point, joining: boolean, { store, page, breaks, zoom, marks }: Bench): Hit {
  const state = store.getState();
  switch (state.stage) {
    case "part": {
      // These take the page as it is, wherever the frame lies.
      if (["level", "clear", "put_back", "ruler", "mend", "outline"].includes(state.tool.kind)) return { kind: "page" };
      const hit = hitAt(point, { frame: state.document.frame, breaks: breaks.rows }, zoom);
      // Over the whole page there is nothing to move: a drag draws. Shift draws inside a frame.
      return hit.kind === "frame" && (joining || isWhole(state.document.frame, page)) ? { kind: "page" } : hit;
    }
    case "point":
      return markHit(point, state, marks(), zoom);
    case "hide":
      return hiddenAt(point, state.document.hidden, state.selected, zoom) ?? { kind: "page" };
    case "dress":
      return { kind: "page" };
  }
}

/** With a kind of mark in hand, only what was drawn last is taken; a press anywhere else draws. */
function markHit(point: Point, { tool, selected }: CutState, marks: readonly ShownMark[], zoom: number): Hit {
  const within = tool.kind === "mark" ? marks.filter(({ mark }) => selected.includes(mark.id)) : marks;
  return markAt(point, within, selected, zoom) ?? { kind: "page" };
}

/** The gesture that begins with a press at a point. */
export function gestureInStage(from: Point, hit: Hit, keys: HeldKeys, bench: Bench): Gesture {
  const { store, page, blocks, breaks, zoom, snapping } = bench;
  const { stage, tool } = store.getState();
  if (hit.kind === "mark") return takeGesture(store, hit.id, from, keys.shift, bench.marks(), snapping);
  if (hit.kind === "mark-handle") {
    const taken = bench.marks().find(({ mark }) => mark.id === hit.id);
    return taken ? reshapeGesture(store, hit.handle, taken, snapping([hit.id])) : NOTHING;
  }
  if (hit.kind === "hidden") return takeHiddenGesture(store, hit.id, from, page);
  if (hit.kind === "hidden-corner") return resizeHiddenGesture(store, hit.id, hit.corner, from, page);
  switch (stage) {
    case "part":
      if (tool.kind === "ruler") return rulerGesture(from, snapping([]));
      if (tool.kind === "level") return levelGesture(store, from, bench.onLine);
      if (tool.kind === "clear") return { ...NOTHING, click: bench.clearAt };
      if (tool.kind === "put_back") return putBackGesture(store, from, page, bench.onLasso);
      if (tool.kind === "mend") return hideGesture(store, "patch", from, page);
      if (tool.kind === "outline") return outlineGesture(store, tool.how, from, zoom);
      return gestureAt(from, hit, tool, { store, page, blocks, breaks, joining: keys.shift, snapping: snapping([]), calm: bench.calm });
    case "point":
      return tool.kind === "mark" ? drawGesture(store, tool.mark, from, zoom, keys, snapping([])) : lassoGesture(store, from, bench.marks(), bench.onLasso, keys.shift);
    case "hide":
      return tool.kind === "hide" ? hideGesture(store, tool.how, from, page) : NOTHING;
    case "dress":
      return NOTHING;
  }
}

function outlineGesture(store: CutStore, how: "hand" | "points" | "corners", from: Point, zoom: number): Gesture {
  if (how === "hand") return handGesture(store, from, zoom);
  return how === "points" ? pointsGesture(store, zoom) : cornerGesture(store, from, zoom);
}
