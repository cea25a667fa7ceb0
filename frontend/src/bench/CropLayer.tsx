import { type PointerEvent as ReactPointerEvent, useRef, useState } from "react";

import { usePageMap } from "../api/captures";
import type { Area, Block, Fold } from "../api/types";
import { BlockLight } from "./BlockLight";
import { blockAt, frameOf } from "./blocks";
import { useBench, useFrame } from "./benchContext";
import { foldBetween } from "./folds";
import { shownFrame } from "./frameStore";
import { drawnFrame, type Handle, movedFrame, type Point, resizedFrame, sameArea, wholeFrame } from "./geometry";

interface Props {
  page: HTMLDivElement;
  scroller: HTMLDivElement | null;
  zoom: number;
}

type Gesture =
  | { kind: "fold"; from: Point }
  | { kind: "draw"; from: Point }
  | { kind: "move"; from: Point; frame: Area }
  | { kind: "resize"; from: Point; frame: Area; handle: Handle };

const HANDLES: { handle: Handle; name: string; place: string; cursor: string }[] = [
  { handle: { x: 0, y: -1 }, name: "Upper edge", place: "inset-x-0 -top-2 h-4", cursor: "ns-resize" },
  { handle: { x: 0, y: 1 }, name: "Lower edge", place: "inset-x-0 -bottom-2 h-4", cursor: "ns-resize" },
  { handle: { x: -1, y: 0 }, name: "Left edge", place: "inset-y-0 -left-2 w-4", cursor: "ew-resize" },
  { handle: { x: 1, y: 0 }, name: "Right edge", place: "inset-y-0 -right-2 w-4", cursor: "ew-resize" },
  { handle: { x: -1, y: -1 }, name: "Upper left corner", place: "-top-2.5 -left-2.5 h-5 w-5", cursor: "nwse-resize" },
  { handle: { x: 1, y: -1 }, name: "Upper right corner", place: "-top-2.5 -right-2.5 h-5 w-5", cursor: "nesw-resize" },
  { handle: { x: -1, y: 1 }, name: "Lower left corner", place: "-bottom-2.5 -left-2.5 h-5 w-5", cursor: "nesw-resize" },
  { handle: { x: 1, y: 1 }, name: "Lower right corner", place: "-right-2.5 -bottom-2.5 h-5 w-5", cursor: "nwse-resize" },
];
/** Less than this is a click, not a box. */
const LEAST_DRAG = 4;
/** Near the upper or lower edge of the view, dragging scrolls: tall frames need no second try. */
const SCROLL_ZONE = 36;
const SCROLL_STEP = 18;

/** Drawing, moving and resizing the frame, over the page. */
export function CropLayer({ page, scroller, zoom }: Props) {
  const { frames, capture } = useBench();
  const frame = useFrame(shownFrame);
  const gesture = useRef<Gesture | null>(null);
  const pointer = useRef({ x: 0, y: 0, startX: 0, startY: 0 });
  const scrolling = useRef(0);
  const { data: blocks } = usePageMap(capture.id);
  const [lit, setLit] = useState<Block | null>(null);
  const folding = useFrame((state) => state.folding);
  const [band, setBand] = useState<Fold | null>(null);
  const whole = sameArea(frame, wholeFrame(capture));

  const pointAt = (clientX: number, clientY: number): Point => {
    const box = page.getBoundingClientRect();
    return { x_px: (clientX - box.left) / zoom, y_px: (clientY - box.top) / zoom };
  };

  const update = () => {
    const current = gesture.current;
    if (!current) return;
    const to = pointAt(pointer.current.x, pointer.current.y);
    const dx_px = to.x_px - current.from.x_px;
    const dy_px = to.y_px - current.from.y_px;
    const state = frames.getState();
    if (current.kind === "fold") setBand(foldBetween(current.from.y_px, to.y_px));
    else if (current.kind === "draw") {
      const far = Math.max(Math.abs(dx_px), Math.abs(dy_px)) * zoom;
      if (far >= LEAST_DRAG || state.draft) state.drag(drawnFrame(current.from, to, capture));
    } else if (current.kind === "move") state.drag(movedFrame(current.frame, dx_px, dy_px, capture));
    else state.drag(resizedFrame(current.frame, current.handle, dx_px, dy_px, capture));
  };

  const scrollAtEdges = () => {
    if (!scroller || !gesture.current) return;
    const box = scroller.getBoundingClientRect();
    // Only once the pointer has left where it began: a handle may lie in the zone to start with.
    const moved = Math.abs(pointer.current.y - pointer.current.startY) > LEAST_DRAG;
    if (moved && pointer.current.y < box.top + SCROLL_ZONE) scroller.scrollBy({ top: -SCROLL_STEP });
    else if (moved && pointer.current.y > box.bottom - SCROLL_ZONE) scroller.scrollBy({ top: SCROLL_STEP });
    update();
    scrolling.current = requestAnimationFrame(scrollAtEdges);
  };

  const begin = (event: ReactPointerEvent, make: (from: Point) => Gesture) => {
    if (event.button !== 0) return;
    event.preventDefault();
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    const quietly: FocusOptions & { focusVisible: boolean } = { preventScroll: true, focusVisible: false };
    scroller?.focus(quietly);
    pointer.current = { x: event.clientX, y: event.clientY, startX: event.clientX, startY: event.clientY };
    setLit(null);
    const from = pointAt(event.clientX, event.clientY);
    gesture.current = folding ? { kind: "fold", from } : make(from);
    scrolling.current = requestAnimationFrame(scrollAtEdges);
  };
  const moveOn = (event: ReactPointerEvent) => {
    event.stopPropagation();
    if (!gesture.current) {
      const onHandle = (event.target as HTMLElement).closest("[data-handle]");
      setLit(onHandle ? null : blockAt(blocks ?? [], pointAt(event.clientX, event.clientY), frame));
      return;
    }
    pointer.current.x = event.clientX;
    pointer.current.y = event.clientY;
    update();
  };
  const end = (keep: boolean) => {
    if (!gesture.current) return;
    cancelAnimationFrame(scrolling.current);
    const { kind } = gesture.current;
    gesture.current = null;
    if (kind === "fold") {
      setBand(null);
      if (keep && band && band.height_px * zoom >= LEAST_DRAG) frames.getState().addFolds([band]);
      return;
    }
    const { x, y, startX, startY } = pointer.current;
    const clicked = Math.max(Math.abs(x - startX), Math.abs(y - startY)) < LEAST_DRAG;
    if (keep && clicked && kind !== "resize") {
      frames.getState().cancelDrag();
      const block = blockAt(blocks ?? [], pointAt(x, y), frames.getState().frame);
      if (block) frames.getState().setFrame(frameOf(block));
    } else if (keep) frames.getState().drop();
    else frames.getState().cancelDrag();
  };
  const follow = {
    onPointerMove: moveOn,
    onPointerUp: () => end(true),
    onPointerCancel: () => end(false),
  };

  const box = {
    left: frame.x_px * zoom,
    top: frame.y_px * zoom,
    width: frame.width_px * zoom,
    height: frame.height_px * zoom,
  };
  const shade = "pointer-events-none absolute bg-neutral/45";
  return (
    <div
      className={`absolute inset-0 touch-none ${folding ? "cursor-row-resize" : "cursor-crosshair"}`}
      data-crop-layer
      onPointerDown={(event) => begin(event, (from) => ({ kind: "draw", from }))}
      onPointerLeave={() => setLit(null)}
      {...follow}
    >
      {lit && !folding && <BlockLight block={lit} zoom={zoom} />}
      <div className={`${shade} inset-x-0 top-0`} style={{ height: box.top }} />
      <div className={`${shade} inset-x-0 bottom-0`} style={{ top: box.top + box.height }} />
      <div className={`${shade} left-0`} style={{ top: box.top, height: box.height, width: box.left }} />
      <div className={`${shade} right-0`} style={{ top: box.top, height: box.height, left: box.left + box.width }} />
      <div
        data-frame
        className={`absolute outline-2 outline-accent ${whole || folding ? "" : "cursor-move"}`}
        style={box}
        onPointerDown={(event) => {
          // Over the whole page there is nothing to move: a drag draws. Shift draws inside a frame.
          if ((whole || event.shiftKey) && !folding) return;
          begin(event, (from) => ({ kind: "move", from, frame: frames.getState().frame }));
        }}
        {...follow}
      >
        {band && <div className="hatched absolute inset-x-0 border-y border-primary" style={{ top: (band.top_px - frame.y_px) * zoom, height: band.height_px * zoom }} />}
        {HANDLES.map(({ handle, name, place, cursor }) => (
          <div
            key={name}
            data-handle={`${handle.x},${handle.y}`}
            title={name}
            className={`absolute ${place}`}
            style={{ cursor }}
            onPointerDown={(event) =>
              begin(event, (from) => ({ kind: "resize", from, frame: frames.getState().frame, handle }))
            }
            {...follow}
          >
            {handle.x !== 0 && handle.y !== 0 && (
              <div className="absolute inset-[5px] border border-neutral bg-accent" />
            )}
          </div>
        ))}
      </div>
    </div>
  );
}
