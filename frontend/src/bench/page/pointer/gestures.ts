import type { Area, Block, Frame } from "../../../api/types";
import type { CutStore, Tool } from "../../cut/cutStore";
import { addFolds, dragBand, dragFold, dragFrame, dropFrame } from "../../cut/frameSteps";
import type { HeldKeys } from "../../../parts/dragging";
import { pick } from "../../blocks/picking";
import { blockAt } from "../geometry/blocks";
import { foldBetween, movedEdge } from "../geometry/folds";
import { drawnFrame, movedFrame, type PageSize, type Point, resizedFrame } from "../geometry/boxes";
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
}

/** What a press begins that means nothing where it is. */
export const NOTHING: Gesture = { move: () => undefined, drop: () => undefined, cancel: () => undefined };

/** The gesture that begins with a press at a point, by what lies there and which tool is in hand. */
export function gestureAt(from: Point, hit: Hit, tool: Tool, hands: Hands): Gesture {
  const { store, page } = hands;
  const start = store.getState().document.frame;
  if (hit.kind === "break") return breakGesture(hit.index, start, hands.breaks);
  if (hit.kind === "fold-edge") return foldEdgeGesture(hit.index, hit.edge, start, store);
  if (tool.kind === "fold") return bandGesture(from, store);
  const by = (to: Point) => [to.x_px - from.x_px, to.y_px - from.y_px] as const;
  switch (hit.kind) {
    case "handle":
      return frameGesture(store, "edge moved", (to) => resizedFrame(start, hit.handle, ...by(to), page));
    case "frame":
      return framingBlocks(hands, frameGesture(store, "frame moved", (to) => movedFrame(start, ...by(to), page)));
    case "page":
      return framingBlocks(hands, frameGesture(store, "frame drawn", (to) => drawnFrame(from, to, page)));
    default:
      return NOTHING;
  }
}

export function breakGesture(index: number, frame: Area, breaks: BreakMoves): Gesture {
  const at = (to: Point) => movedBreak([...breaks.rows], index, to.y_px, frame);
  return { move: (to) => breaks.show(at(to)), drop: (to) => breaks.send(at(to)), click: breaks.forget, cancel: breaks.forget };
}

function foldEdgeGesture(index: number, edge: "top" | "bottom", start: Frame, store: CutStore): Gesture {
  const fold = start.folds[index];
  return {
    move: (to) => fold && dragFold(store, index, movedEdge(fold, edge, to.y_px)),
    drop: () => dropFrame(store, "fold moved"),
    cancel: store.cancel,
  };
}

function bandGesture(from: Point, store: CutStore): Gesture {
  const band = (to: Point) => foldBetween(from.y_px, to.y_px);
  return {
    move: (to) => dragBand(store, band(to)),
    drop: (at) => {
      store.cancel();
      addFolds(store, [band(at)]);
    },
    cancel: store.cancel,
  };
}

function frameGesture(store: CutStore, words: string, areaFor: (to: Point) => Area): Gesture {
  return {
    move: (to) => dragFrame(store, areaFor(to)),
    drop: () => dropFrame(store, words),
    cancel: store.cancel,
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
