import type { Area, Block, Frame } from "../../../api/types";
import type { HeldKeys } from "../../../parts/dragging";
import { pick } from "../../blocks/picking";
import type { CutStore, Tool } from "../../cut/cutStore";
import { addFolds, dragBand, dragFold, dragFrame, dropFrame } from "../../cut/frameSteps";
import type { ToCalm } from "../../folding/calm";
import type { Snapping } from "../../marks/handling/markGestures";
import { type Axes, spot } from "../../marks/handling/snapping";
import { heldShape } from "../../shape/shape";
import { blockAt } from "../geometry/blocks";
import { drawnFrame, type Handle, movedFrame, type PageSize, type Point, resizedFrame } from "../geometry/boxes";
import { along, bandsOf, type FoldAxis, foldBetween, movedEdge } from "../geometry/folds";
import { movedBreak } from "../geometry/leafBreaks";
import type { Hit } from "./hitTest";

/** What a press that is dragged does, in px of the page. */
export interface Gesture {
  move: (to: Point, keys: HeldKeys) => void;
  drop: (at: Point, keys: HeldKeys) => void;
  /** Let go before it went anywhere. */
  click?: (at: Point) => void;
  cancel: () => void;
}

/** Breaks of the file in hand while they are moved. */
export interface BreakMoves {
  rows: readonly number[];
  show: (rows: number[]) => void;
  send: (rows: number[]) => void;
  forget: () => void;
}

export interface Hands {
  store: CutStore;
  page: PageSize;
  blocks: readonly Block[];
  breaks: BreakMoves;
  /** Whether a block that is pressed joins what is framed. */
  joining: boolean;
  /** What draws the frame's edges to those of blocks. */
  snapping: Snapping;
  /** What draws lines to rows or columns in which nothing stands. */
  calm: (axis: FoldAxis) => ToCalm;
}

/** What a press begins that means nothing where it is. */
export const NOTHING: Gesture = { move: () => undefined, drop: () => undefined, cancel: () => undefined };

/** The gesture that begins with a press at a point, by what lies there and which tool is in hand. */
export function gestureAt(from: Point, hit: Hit, tool: Tool, hands: Hands): Gesture {
  const { store, page } = hands;
  const start = store.getState().document.frame;
  if (hit.kind === "break") return breakGesture(hit.index, start, hands.breaks);
  if (hit.kind === "fold-edge") return foldEdgeGesture(hit, start, store, hands.calm(hit.axis));
  if (tool.kind === "fold") return bandGesture(from, tool.axis, store, hands.calm(tool.axis));
  /** Where to drag a handle of the frame so that the sides it moves meet an edge near them. */
  const drawnTo = (to: Point, handle: Handle, keys: HeldKeys): Point => {
    const [dx_px, dy_px] = by(to);
    const corner = {
      x_px: dx_px + start.x_px + (handle.x < 0 ? 0 : start.width_px),
      y_px: dy_px + start.y_px + (handle.y < 0 ? 0 : start.height_px),
    };
    const axes = handle.x === 0 ? "y" : handle.y === 0 ? "x" : "xy";
    const edge = hands.snapping.by(spot(corner), keys, axes);
    // Where no edge of a block is near, the sides come to rows and columns in which nothing stands.
    const onto = (axis: FoldAxis, at: number) => hands.calm(axis)(at, keys) - at;
    return moved(to, {
      x_px: edge.x_px || (handle.x === 0 ? 0 : onto("down", corner.x_px)),
      y_px: edge.y_px || (handle.y === 0 ? 0 : onto("across", corner.y_px)),
    });
  };
  // What is near is asked for with the press, so that it is known once it is needed.
  if (hit.kind === "handle") for (const axis of AXES_OF[hit.handle.x === 0 ? "y" : hit.handle.y === 0 ? "x" : "xy"]) hands.calm(axis);
  const by = (to: Point) => [to.x_px - from.x_px, to.y_px - from.y_px] as const;
  switch (hit.kind) {
    case "handle":
      return frameGesture(store, "edge moved", hands.snapping, (to, keys) =>
        heldShape(resizedFrame(start, hit.handle, ...by(drawnTo(to, hit.handle, keys)), page), start, hit.handle, page),
      );
    case "frame":
      return framingBlocks(hands, frameGesture(store, "frame moved", hands.snapping, (to) => movedFrame(start, ...by(to), page)));
    case "page":
      return framingBlocks(
        hands,
        frameGesture(store, "frame drawn", hands.snapping, (to, keys) => {
          const end = moved(to, hands.snapping.by(spot(to), keys));
          const towards = { x: end.x_px < from.x_px ? -1 : 1, y: end.y_px < from.y_px ? -1 : 1 } as const;
          return heldShape(drawnFrame(from, end, page), { ...start, folds: [] }, towards, page);
        }),
      );
    default:
      return NOTHING;
  }
}

const AXES_OF: Record<Axes, readonly FoldAxis[]> = { x: ["down"], y: ["across"], xy: ["across", "down"] };

const moved = (point: Point, shift: Point): Point => ({ x_px: point.x_px + shift.x_px, y_px: point.y_px + shift.y_px });

export function breakGesture(index: number, frame: Area, breaks: BreakMoves): Gesture {
  const at = (to: Point) => movedBreak([...breaks.rows], index, to.y_px, frame);
  return { move: (to) => breaks.show(at(to)), drop: (to) => breaks.send(at(to)), click: breaks.forget, cancel: breaks.forget };
}

function foldEdgeGesture({ axis, index, edge }: Hit & { kind: "fold-edge" }, start: Frame, store: CutStore, calm: ToCalm): Gesture {
  const fold = bandsOf(start, axis)[index];
  return {
    move: (to, keys) => fold && dragFold(store, axis, index, movedEdge(fold, edge, calm(along(to, axis), keys))),
    drop: () => dropFrame(store, "fold moved"),
    cancel: store.cancel,
  };
}

function bandGesture(from: Point, axis: FoldAxis, store: CutStore, calm: ToCalm): Gesture {
  const band = (to: Point, keys: HeldKeys) => foldBetween(calm(along(from, axis), keys), calm(along(to, axis), keys));
  return {
    move: (to, keys) => dragBand(store, axis, band(to, keys)),
    drop: (at, keys) => {
      store.cancel();
      addFolds(store, [band(at, keys)], axis);
    },
    cancel: store.cancel,
  };
}

function frameGesture(store: CutStore, words: string, snapping: Snapping, areaFor: (to: Point, keys: HeldKeys) => Area): Gesture {
  return {
    move: (to, keys) => dragFrame(store, areaFor(to, keys)),
    drop: () => {
      snapping.end();
      dropFrame(store, words);
    },
    cancel: () => {
      snapping.end();
      store.cancel();
    },
  };
}

/** With a click that frames the block under it. */
function framingBlocks({ store, blocks, joining }: Hands, gesture: Gesture): Gesture {
  const click = (at: Point) => {
    const block = blockAt(blocks, at, store.getState().document.frame);
    if (block) pick(store, block, joining);
  };
  return { ...gesture, click };
}
