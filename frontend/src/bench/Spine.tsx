import { type PointerEvent, useState } from "react";

import { spineUrl } from "../api/pictures";
import { formatPx } from "../parts/figures";
import { BreakLines } from "./BreakLines";
import { useBench, useFrame } from "./benchContext";
import { shownFrame } from "./frameStore";
import { useViewport, type Viewport } from "./useViewport";
import { WeightLine } from "./WeightLine";
import { MARGIN } from "./zoom";

interface Props {
  scroller: HTMLDivElement | null;
  viewport: Viewport;
  zoom: number;
}

const WIDTH = 80;

/** The whole page from top to bottom, squeezed where it is very tall; its window can be dragged. */
export function Spine({ scroller, viewport, zoom }: Props) {
  const { capture } = useBench();
  const frame = useFrame(shownFrame);
  const [column, setColumn] = useState<HTMLDivElement | null>(null);
  const room = useViewport(column).height - 34;
  const height = Math.max(40, Math.min(room, (WIDTH * capture.height_px) / capture.width_px));
  const perPagePixel = height / capture.height_px;
  const seenTop = Math.max(0, (viewport.top - MARGIN) / zoom) * perPagePixel;
  const seenHeight = Math.min(height - seenTop, Math.max(6, (viewport.height / zoom) * perPagePixel));

  const goTo = (event: PointerEvent<HTMLDivElement>) => {
    if (!scroller) return;
    const y = event.clientY - event.currentTarget.getBoundingClientRect().top;
    scroller.scrollTo({ top: (y / perPagePixel) * zoom + MARGIN - scroller.clientHeight / 2 });
  };
  return (
    <div ref={setColumn} className="flex w-[110px] shrink-0 flex-col items-center overflow-hidden border-r border-base-300 pt-3">
      <div
        data-spine
        className="seethrough relative cursor-pointer touch-none outline outline-base-300"
        style={{ width: WIDTH, height }}
        title="The whole page: press or drag to go there"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          goTo(event);
        }}
        onPointerMove={(event) => {
          if (event.buttons === 1) goTo(event);
        }}
      >
        <img src={spineUrl(capture)} alt="" draggable={false} className="absolute inset-0 h-full w-full select-none" />
        <div
          className="absolute border-2 border-accent"
          style={{
            left: (frame.x_px / capture.width_px) * WIDTH,
            width: Math.max(3, (frame.width_px / capture.width_px) * WIDTH),
            top: frame.y_px * perPagePixel,
            height: Math.max(3, frame.height_px * perPagePixel),
          }}
        />
        {frame.folds.map((fold) => (
          <div
            key={fold.top_px}
            className="hatched absolute inset-x-0"
            style={{ top: fold.top_px * perPagePixel, height: Math.max(2, fold.height_px * perPagePixel) }}
          />
        ))}
        <div
          data-spine-window
          className="absolute -inset-x-2 rounded-[2px] border border-primary bg-primary/20"
          style={{ top: seenTop, height: seenHeight }}
        />
        <BreakLines scale={perPagePixel} named={false} />
        <WeightLine perPagePixel={perPagePixel} />
      </div>
      <p className="figure mt-1.5 text-xs">{formatPx(capture.height_px)} px</p>
    </div>
  );
}
