import { type MouseEvent, type ReactNode, useEffect, useRef, useState } from "react";

import { usePageMap } from "../../api/cuts";
import { findColour, orientationText } from "../../api/prepared";
import type { Area, Block } from "../../api/types";
import { useAction } from "../../app/actions/useAction";
import { showProblem } from "../../app/showProblem";
import { useBench, useCut, useOrientation, usePage } from "../benchContext";
import { pick, pickAround, pickInside } from "../blocks/picking";
import { useBlockWheel } from "../blocks/useBlockWheel";
import { clearColour } from "../clearing/clearSteps";
import { type CutState, shownCut, type Tool } from "../cut/cutStore";
import { shownFrame } from "../cut/frameSteps";
import { toCalm } from "../folding/calm";
import { GuideLayer } from "../marks/handling/GuideLayer";
import type { Guide } from "../marks/handling/snapping";
import { snappingFor } from "../marks/handling/snapSwitch";
import { Magnifier } from "../measuring/Magnifier";
import { usePointed } from "../measuring/pointed";
import { RulerLayer } from "../measuring/RulerLayer";
import { BlockLight } from "./BlockLight";
import { blockAt } from "./geometry/blocks";
import type { Point } from "./geometry/boxes";
import type { FoldAxis } from "./geometry/folds";
import { pageTransform } from "./geometry/pageTransform";
import type { Hit } from "./pointer/hitTest";
import { type Bench, gestureInStage, hitInStage } from "./pointer/stages";
import { type Dragged, usePointer } from "./pointer/usePointer";

interface Props {
  page: HTMLDivElement;
  scroller: HTMLDivElement | null;
  zoom: number;
  /** What is painted over the page. */
  children: ReactNode;
}

const NO_BLOCKS: readonly Block[] = [];
const CORNER_CURSORS = { "-1,-1": "nwse-resize", "1,1": "nwse-resize", "1,-1": "nesw-resize", "-1,1": "nesw-resize" };

function cursorFor(hit: Hit, tool: Tool): string {
  switch (hit.kind) {
    case "break":
      return "ns-resize";
    case "fold-edge":
      return hit.axis === "across" ? "ns-resize" : "ew-resize";
    case "mark":
    case "hidden":
      return "move";
    case "mark-handle":
      return hit.handle === "turn" ? "grab" : "crosshair";
    case "frame":
      return tool.kind === "fold" ? foldCursor(tool.axis) : "move";
    case "page":
      if (tool.kind === "fold") return foldCursor(tool.axis);
      return tool.kind === "select" ? "default" : "crosshair";
    case "hidden-corner":
      return CORNER_CURSORS[`${hit.corner.x},${hit.corner.y}` as keyof typeof CORNER_CURSORS];
    case "handle": {
      if (tool.kind === "fold") return foldCursor(tool.axis);
      const { x, y } = hit.handle;
      if (x === 0) return "ns-resize";
      return y === 0 ? "ew-resize" : CORNER_CURSORS[`${x},${y}`];
    }
  }
}

const foldCursor = (axis: FoldAxis) => (axis === "across" ? "row-resize" : "col-resize");

function hintFor(hit: Hit): string | undefined {
  if (hit.kind === "break") return "Drag to divide elsewhere";
  if (hit.kind === "fold-edge") return "Drag to fold more or less away";
  return hit.kind === "handle" ? "Drag to move this edge or corner" : undefined;
}

/** Takes every press on the page and lights the block under the pointer; what lies over the page only paints. */
export function PointerLayer({ page, scroller, zoom, children }: Props) {
  const { store, capture, breaks, drawer } = useBench();
  const turned = usePage();
  const { data: blocks = NO_BLOCKS, isPending } = usePageMap(capture.id, useOrientation());
  const pressed = useRef<{ at: Point; joining: boolean } | null>(null);
  useEffect(() => {
    // A block that was pressed before anybody knew where the blocks are.
    const { at, joining } = pressed.current ?? {};
    pressed.current = null;
    const block = at && blockAt(blocks, at, store.getState().document.frame);
    if (block) pick(store, block, joining ?? false);
  }, [blocks, store]);
  const tool = useCut((state) => state.tool);
  const [lit, setLit] = useState<Block | null>(null);
  const [cursor, setCursor] = useState("crosshair");
  const [hint, setHint] = useState<string>();
  const [lasso, setLasso] = useState<Area | null>(null);
  const [line, setLine] = useState<readonly [Point, Point] | null>(null);
  const [guides, setGuides] = useState<readonly Guide[]>([]);
  const marks = () => {
    const { marks: standing, styles } = shownCut(store.getState());
    return drawer.show(standing, styles);
  };
  const showGuides = (now: readonly Guide[]) => setGuides((before) => (before.length === 0 && now.length === 0 ? before : now));
  const snapping = (ids: readonly string[]) => snappingFor(blocks, marks(), zoom, ids, showGuides);
  const clearAt = (at: Point) => {
    const place = { x_px: Math.floor(at.x_px), y_px: Math.floor(at.y_px) };
    findColour(capture.id, place, orientationText(store.getState().document)).then((colour) => clearColour(store, { colour, ...place }), showProblem);
  };
  const bench: Bench = { store, page: turned, blocks, breaks, zoom, marks, onLasso: setLasso, onLine: setLine, clearAt, snapping, calm: (axis) => toCalm(capture.id, store.getState(), axis, zoom) };
  const pointer = usePointer({
    transform: () => pageTransform(page.getBoundingClientRect(), zoom),
    hit: (point, { shiftKey }) => hitInStage(point, shiftKey, bench),
    begin: (point, hit, { shiftKey, altKey }) => {
      const gesture = gestureInStage(point, hit, { shift: shiftKey, alt: altKey }, bench);
      const onBlock = isPending && tool.kind === "frame" && (hit.kind === "frame" || hit.kind === "page");
      return onBlock ? { ...gesture, click: (at) => (pressed.current = { at, joining: shiftKey }) } : gesture;
    },
    onHover: (under) => {
      const overPlain = under && (under.hit.kind === "frame" || under.hit.kind === "page") && tool.kind === "frame";
      setLit(overPlain ? blockAt(blocks, under.point, store.getState().document.frame) : null);
      if (under) setCursor(cursorFor(under.hit, tool));
      setHint(under ? hintFor(under.hit) : undefined);
    },
    // A frame that is moved is looked at as a whole.
    onDrag: (to) => usePointed.setState({ pointed: to && to.hit.kind !== "frame" && aims(store.getState()) ? { at: aimedAt(to, store.getState()), ...to.place } : null }),
    onPress: (hit) => focusFor(hit, page, scroller),
    scroller,
  });
  const showsPart = useCut((state) => state.stage === "part");
  useAction("blockAround", () => showsPart && pickAround(store, blocks), undefined, [blocks, showsPart]);
  useAction("blockInside", () => showsPart && pickInside(store, blocks), undefined, [blocks, showsPart]);
  useBlockWheel(scroller, (towards) => showsPart && (towards > 0 ? pickAround(store, blocks) : pickInside(store, blocks)));
  const editText = (event: MouseEvent) => {
    if (store.getState().stage !== "point") return;
    const { toPage } = pageTransform(page.getBoundingClientRect(), zoom);
    const hit = hitInStage(toPage({ x: event.clientX, y: event.clientY }), false, bench);
    if (hit.kind === "mark" && store.getState().document.marks.some((mark) => mark.id === hit.id && mark.kind === "text")) store.edit(hit.id);
  };
  return (
    <div className="absolute inset-0 touch-none" style={{ cursor }} title={hint} data-pointer-layer {...pointer} onDoubleClick={editText}>
      {lit && <BlockLight block={lit} zoom={zoom} />}
      {children}
      <RulerLayer zoom={zoom} />
      <Magnifier zoom={zoom} />
      <GuideLayer guides={guides} zoom={zoom} />
      {line && <LevelLine line={line} zoom={zoom} />}
      {lasso && (
        <div
          className="pointer-events-none absolute border border-dashed border-accent bg-accent/10"
          style={{ left: lasso.x_px * zoom, top: lasso.y_px * zoom, width: lasso.width_px * zoom, height: lasso.height_px * zoom }}
        />
      )}
    </div>
  );
}

/** Whether a drag is one to the px: of a frame, a fold, a ruler, a hidden area. */
function aims({ stage }: CutState): boolean {
  return stage === "part" || stage === "hide";
}

/** What is aimed at: the sides of the frame that are dragged, which may have met an edge; else the pointer. */
function aimedAt({ hit, point }: Dragged, state: CutState): Point {
  if (hit.kind !== "handle") return point;
  const { x_px, y_px, width_px, height_px } = shownFrame(state);
  const { x, y } = hit.handle;
  return { x_px: x === 0 ? point.x_px : x_px + (x > 0 ? width_px : 0), y_px: y === 0 ? point.y_px : y_px + (y > 0 ? height_px : 0) };
}

/** The line along which the page is to be level, while it is drawn. */
function LevelLine({ line: [from, to], zoom }: { line: readonly [Point, Point]; zoom: number }) {
  return (
    <svg className="pointer-events-none absolute inset-0 size-full overflow-visible" data-level-line aria-hidden>
      <line x1={from.x_px * zoom} y1={from.y_px * zoom} x2={to.x_px * zoom} y2={to.y_px * zoom} className="stroke-accent" strokeWidth={2} />
    </svg>
  );
}

/** Lines that have keys of their own get the focus; else the page has it, for the keys that scroll and nudge. */
function focusFor(hit: Hit, page: HTMLElement, scroller: HTMLElement | null): void {
  const lines = { break: "data-break", "fold-edge": "data-fold-edge" };
  const name = hit.kind === "break" ? `${hit.index}` : hit.kind === "fold-edge" ? `${hit.axis} ${hit.index} ${hit.edge}` : "";
  const line = hit.kind in lines ? page.querySelector<HTMLElement>(`[${lines[hit.kind as keyof typeof lines]}='${name}']`) : null;
  const quietly: FocusOptions & { focusVisible: boolean } = { preventScroll: true, focusVisible: line !== null };
  (line ?? scroller)?.focus(quietly);
}
