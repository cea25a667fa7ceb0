import { useState } from "react";

import { spineUrl } from "../../api/pictures";
import { formatPx } from "../../parts/figures";
import { BreakLines } from "./BreakLines";
import { useBench, useCut, usePage, usePreparation } from "../benchContext";
import { shownFrame } from "../cut/frameSteps";
import type { Cut } from "../../api/types";
import type { PageSize, Point } from "./geometry/boxes";
import { pageTransform } from "./geometry/pageTransform";
import { breakGesture } from "./pointer/gestures";
import { nearestWithin, REACH } from "./pointer/hitTest";
import { usePointer } from "./pointer/usePointer";
import { useView } from "./useView";
import { useViewport } from "./useViewport";
import { WeightLine } from "./WeightLine";
import { MARGIN } from "./geometry/zoom";

interface Props {
  scroller: HTMLDivElement | null;
  zoom: number;
}

const WIDTH = 80;

/** The whole page from top to bottom, squeezed where it is very tall; its window can be dragged. */
export function Spine({ scroller, zoom }: Props) {
  const { capture, cut, store, breaks } = useBench();
  const page = usePage();
  const preparation = usePreparation();
  const frame = useCut(shownFrame);
  const [column, setColumn] = useState<HTMLDivElement | null>(null);
  const room = useViewport(column).height - 34;
  const height = Math.max(40, Math.min(room, (WIDTH * page.height_px) / page.width_px));
  const perPagePixel = height / page.height_px;
  const [squeezed, setSqueezed] = useState<HTMLDivElement | null>(null);
  const goTo = ({ y_px }: Point) => scroller?.scrollTo({ top: y_px * zoom + MARGIN - scroller.clientHeight / 2 });
  const pointer = usePointer({
    transform: () => squeezed && pageTransform(squeezed.getBoundingClientRect(), perPagePixel),
    hit: ({ y_px }) => {
      const index = nearestWithin(breaks.rows, y_px, REACH.break / perPagePixel);
      return index === null ? { kind: "page" } : { kind: "break", index };
    },
    begin: (point, hit) => {
      if (hit.kind === "break") return breakGesture(hit.index, store.getState().document.frame, breaks);
      goTo(point);
      return { move: goTo, drop: goTo, cancel: () => undefined };
    },
    onPress: (hit) => hit.kind === "break" && squeezed?.querySelector<HTMLElement>(`[data-break='${hit.index}']`)?.focus({ preventScroll: true }),
  });
  return (
    <div ref={setColumn} className="flex w-[110px] shrink-0 flex-col items-center overflow-hidden border-r border-base-300 pt-3">
      <div
        data-spine
        className="seethrough relative cursor-pointer touch-none outline outline-base-300"
        style={{ width: WIDTH, height }}
        title="The whole page: press or drag to go there"
        ref={setSqueezed}
        {...pointer}
      >
        <img src={spineUrl(capture, preparation)} alt="" draggable={false} className="absolute inset-0 h-full w-full select-none" />
        <div
          className="absolute border-2 border-accent"
          style={{
            left: (frame.x_px / page.width_px) * WIDTH,
            width: Math.max(3, (frame.width_px / page.width_px) * WIDTH),
            top: frame.y_px * perPagePixel,
            height: Math.max(3, frame.height_px * perPagePixel),
          }}
        />
        {capture.cuts.length > 1 &&
          capture.cuts.map((row) => row.id !== cut.id && <OtherCut key={row.id} row={row} turned={preparation !== ""} page={page} perPagePixel={perPagePixel} />)}
        {frame.folds.map((fold) => (
          <div
            key={fold.top_px}
            className="hatched absolute inset-x-0"
            style={{ top: fold.top_px * perPagePixel, height: Math.max(2, fold.height_px * perPagePixel) }}
          />
        ))}
        {frame.folds_down?.map((fold) => (
          <div
            key={fold.left_px}
            className="hatched absolute"
            style={{
              left: (fold.left_px / page.width_px) * WIDTH,
              width: Math.max(2, (fold.width_px / page.width_px) * WIDTH),
              top: frame.y_px * perPagePixel,
              height: frame.height_px * perPagePixel,
            }}
          />
        ))}
        <SeenWindow scroller={scroller} zoom={zoom} perPagePixel={perPagePixel} height={height} />
        <BreakLines scale={perPagePixel} named={false} />
        <WeightLine perPagePixel={perPagePixel} />
      </div>
      <p className="figure mt-1.5 text-xs">{formatPx(page.height_px)} px</p>
    </div>
  );
}

/** Where another cut of the page lies. Not on a page that is turned, where its places are others. */
function OtherCut({ row, turned, page, perPagePixel }: { row: Cut; turned: boolean; page: PageSize; perPagePixel: number }) {
  if (turned || row.document.orientation) return null;
  const { x_px, y_px, width_px, height_px } = row.document.frame;
  return (
    <div
      title={row.name}
      data-other-cut={row.id}
      className="pointer-events-none absolute border border-dashed border-primary"
      style={{
        left: (x_px / page.width_px) * WIDTH,
        width: Math.max(3, (width_px / page.width_px) * WIDTH),
        top: y_px * perPagePixel,
        height: Math.max(3, height_px * perPagePixel),
      }}
    />
  );
}

/** What of the page is seen: the only part of the spine that moves while the page is scrolled. */
function SeenWindow({ scroller, zoom, perPagePixel, height }: Props & { perPagePixel: number; height: number }) {
  const scrolled = useView(scroller, (view) => view.top, 0);
  const room = useView(scroller, (view) => view.height, 0);
  const top = Math.max(0, (scrolled - MARGIN) / zoom) * perPagePixel;
  return (
    <div
      data-spine-window
      className="absolute -inset-x-2 rounded-[2px] border border-primary bg-primary/20"
      style={{ top, height: Math.min(height - top, Math.max(6, (room / zoom) * perPagePixel)) }}
    />
  );
}
