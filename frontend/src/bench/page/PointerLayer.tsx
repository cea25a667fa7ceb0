import { type ReactNode, useState } from "react";

import { usePageMap } from "../../api/captures";
import type { Block } from "../../api/types";
import { useBench, useCut } from "../benchContext";
import type { Tool } from "../cut/cutStore";
import { isWhole } from "../cut/frameSteps";
import { BlockLight } from "./BlockLight";
import { blockAt } from "./geometry/blocks";
import { pageTransform } from "./geometry/pageTransform";
import { gestureAt } from "./pointer/gestures";
import { type Hit, hitAt } from "./pointer/hitTest";
import { usePointer } from "./pointer/usePointer";

interface Props {
  page: HTMLDivElement;
  scroller: HTMLDivElement | null;
  zoom: number;
  /** What is painted over the page. */
  children: ReactNode;
}

const CORNER_CURSORS = { "-1,-1": "nwse-resize", "1,1": "nwse-resize", "1,-1": "nesw-resize", "-1,1": "nesw-resize" };

function cursorFor(hit: Hit, tool: Tool): string {
  if (hit.kind === "break" || hit.kind === "fold-edge") return "ns-resize";
  if (tool.kind === "fold") return "row-resize";
  if (hit.kind === "frame") return "move";
  if (hit.kind === "page") return "crosshair";
  const { x, y } = hit.handle;
  if (x === 0) return "ns-resize";
  return y === 0 ? "ew-resize" : CORNER_CURSORS[`${x},${y}`];
}

function hintFor(hit: Hit): string | undefined {
  if (hit.kind === "break") return "Drag to divide elsewhere";
  if (hit.kind === "fold-edge") return "Drag to fold more or less away";
  return hit.kind === "handle" ? "Drag to move this edge or corner" : undefined;
}

/** Takes every press on the page and lights the block under the pointer; what lies over the page only paints. */
export function PointerLayer({ page, scroller, zoom, children }: Props) {
  const { store, capture, breaks } = useBench();
  const { data: blocks = [] } = usePageMap(capture.id);
  const tool = useCut((state) => state.tool);
  const [lit, setLit] = useState<Block | null>(null);
  const [cursor, setCursor] = useState("crosshair");
  const [hint, setHint] = useState<string>();
  const pointer = usePointer({
    transform: () => pageTransform(page.getBoundingClientRect(), zoom),
    hit: (point, { shiftKey }) => {
      const { document } = store.getState();
      const hit = hitAt(point, { frame: document.frame, breaks: breaks.rows }, zoom);
      // Over the whole page there is nothing to move: a drag draws. Shift draws inside a frame.
      return hit.kind === "frame" && (shiftKey || isWhole(document.frame, capture)) ? { kind: "page" } : hit;
    },
    begin: (point, hit) => gestureAt(point, hit, tool, { store, page: capture, blocks, breaks }),
    onHover: (under) => {
      const overPlain = under && (under.hit.kind === "frame" || under.hit.kind === "page") && tool.kind === "frame";
      setLit(overPlain ? blockAt(blocks, under.point, store.getState().document.frame) : null);
      if (under) setCursor(cursorFor(under.hit, tool));
      setHint(under ? hintFor(under.hit) : undefined);
    },
    onPress: (hit) => focusFor(hit, page, scroller),
    scroller,
  });
  return (
    <div className="absolute inset-0 touch-none" style={{ cursor }} title={hint} data-pointer-layer {...pointer}>
      {lit && <BlockLight block={lit} zoom={zoom} />}
      {children}
    </div>
  );
}

/** Lines that have keys of their own get the focus; else the page has it, for the keys that scroll and nudge. */
function focusFor(hit: Hit, page: HTMLElement, scroller: HTMLElement | null): void {
  const lines = { break: "data-break", "fold-edge": "data-fold-edge" };
  const name = hit.kind === "break" ? `${hit.index}` : hit.kind === "fold-edge" ? `${hit.index} ${hit.edge}` : "";
  const line = hit.kind in lines ? page.querySelector<HTMLElement>(`[${lines[hit.kind as keyof typeof lines]}='${name}']`) : null;
  const quietly: FocusOptions & { focusVisible: boolean } = { preventScroll: true, focusVisible: line !== null };
  (line ?? scroller)?.focus(quietly);
}
