import { type PointerEvent, useState } from "react";

import { usePageMap } from "../api/captures";
import type { Area, Block, Fold } from "../api/types";
import { type At, type Drag, LEAST_DRAG, useDragging } from "../parts/dragging";
import { BlockLight } from "./BlockLight";
import { blockAt, frameOf } from "./blocks";
import { useBench, useCut } from "./benchContext";
import { foldBetween } from "./folds";
import { addFolds, dragFrame, dropFrame, isWhole, setFrame, shownFrame } from "./cut/frameSteps";
import { drawnFrame, type Handle, movedFrame, type Point, resizedFrame } from "./geometry";
import { pageTransform } from "./pageTransform";

interface Props {
  page: HTMLDivElement;
  scroller: HTMLDivElement | null;
  zoom: number;
}

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
/** Drawing, moving and resizing the frame, over the page. */
export function CropLayer({ page, scroller, zoom }: Props) {
  const { store, capture } = useBench();
  const frame = useCut(shownFrame);
  const dragging = useDragging();
  const { data: blocks } = usePageMap(capture.id);
  const [lit, setLit] = useState<Block | null>(null);
  const folding = useCut((state) => state.tool.kind === "fold");
  const [band, setBand] = useState<Fold | null>(null);
  const whole = isWhole(frame, capture);

  const pointAt = (at: At): Point => pageTransform(page.getBoundingClientRect(), zoom).toPage(at);

  /** Press, drag and let go: the box that `boxOf` says for how far it was dragged; a click frames a block. */
  const dragBox = (event: PointerEvent, words: string, boxOf: (from: Point, to: Point) => Area, clickable: boolean) => {
    if (folding) {
      dragBand(event);
      return;
    }
    const from = pointAt({ x: event.clientX, y: event.clientY });
    begin(event, {
      onMove: (at, pressed) => {
        const far = Math.max(Math.abs(at.x - pressed.x), Math.abs(at.y - pressed.y)) >= LEAST_DRAG;
        if (far || store.getState().preview) dragFrame(store, boxOf(from, pointAt(at)));
      },
      onDrop: (at, moved) => {
        if (moved || !clickable) {
          dropFrame(store, words);
          return;
        }
        store.cancel();
        const block = blockAt(blocks ?? [], pointAt(at), store.getState().document.frame);
        if (block) setFrame(store, "block framed", frameOf(block));
      },
      onCancel: store.cancel,
    });
  };
  const dragBand = (event: PointerEvent) => {
    const from = pointAt({ x: event.clientX, y: event.clientY });
    const bandAt = (at: At) => foldBetween(from.y_px, pointAt(at).y_px);
    begin(event, {
      onMove: (at) => setBand(bandAt(at)),
      onDrop: (at, moved) => {
        setBand(null);
        if (moved) addFolds(store, [bandAt(at)]);
      },
      onCancel: () => setBand(null),
    });
  };
  const begin = (event: PointerEvent, drag: Drag) => {
    dragging.begin(event, { ...drag, scroller });
    const quietly: FocusOptions & { focusVisible: boolean } = { preventScroll: true, focusVisible: false };
    scroller?.focus(quietly);
    setLit(null);
  };
  const hover = (event: PointerEvent) => {
    if (dragging.isOn) return;
    const onHandle = (event.target as HTMLElement).closest("[data-handle]");
    setLit(onHandle ? null : blockAt(blocks ?? [], pointAt({ x: event.clientX, y: event.clientY }), frame));
  };
  const moved = (by: (start: Area, dx_px: number, dy_px: number) => Area) => {
    const start = store.getState().document.frame;
    return (from: Point, to: Point) => by(start, to.x_px - from.x_px, to.y_px - from.y_px);
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
      onPointerDown={(event) => dragBox(event, "frame drawn", (from, to) => drawnFrame(from, to, capture), true)}
      onPointerMove={hover}
      onPointerLeave={() => setLit(null)}
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
          dragBox(event, "frame moved", moved((start, dx_px, dy_px) => movedFrame(start, dx_px, dy_px, capture)), true);
        }}
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
              dragBox(event, "edge moved", moved((start, dx_px, dy_px) => resizedFrame(start, handle, dx_px, dy_px, capture)), false)
            }
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
