import { useState } from "react";

import { stripUrl } from "../../api/pictures";
import type { Strip } from "../../api/types";
import { HiddenLayer } from "../marks/HiddenLayer";
import { MarkLayer } from "../marks/MarkLayer";
import { BreakLines } from "./BreakLines";
import { FoldLayer } from "./FoldLayer";
import { FrameLayer } from "./FrameLayer";
import { OtherFrame } from "./OtherFrame";
import { PointerLayer } from "./PointerLayer";
import { useBench, useCut } from "../benchContext";
import { shownCut } from "../cut/cutStore";
import { ThresholdFilter } from "../tone/ThresholdFilter";
import { filterOf } from "../tone/toneSteps";
import { useView } from "./useView";
import type { Viewport } from "./useViewport";
import { MARGIN, roomLeftOf, shrinkFor } from "./geometry/zoom";

interface Props {
  scroller: HTMLDivElement | null;
  onScroller: (element: HTMLDivElement | null) => void;
  viewWidth: number;
  zoom: number;
}

/** Indices of the strips that are seen or nearly so. */
function stripsNear(strips: readonly Strip[], view: Viewport, zoom: number): number[] {
  const above = (view.top - MARGIN - view.height) / zoom;
  const below = (view.top - MARGIN + 2 * view.height) / zoom;
  return strips.flatMap((strip, index) => (strip.top_px < below && strip.top_px + strip.height_px > above ? [index] : []));
}

/** The page in the middle column. Only strips near the visible part are in the document at all. */
export function PageView({ scroller, onScroller, viewWidth, zoom }: Props) {
  const { capture } = useBench();
  const [page, setPage] = useState<HTMLDivElement | null>(null);
  const shrink = shrinkFor(zoom, window.devicePixelRatio);
  const seen = useView(scroller, (view) => stripsNear(capture.strips, view, zoom).join(), "");
  const tone = useCut((state) => shownCut(state).tone);
  const near = seen.split(",").flatMap((number) => capture.strips[Number(number)] ?? []);
  return (
    <div
      ref={onScroller}
      // Room for the scrollbar is always left: one that comes when the page is a little larger, and goes when
      // the page is fitted beside it, would come and go for ever.
      className="min-h-0 flex-1 overflow-auto bg-base-200 [scrollbar-gutter:stable]"
      tabIndex={0}
      role="region"
      aria-label="The page"
      data-zoom={zoom}
    >
      <div style={{ padding: MARGIN, paddingLeft: roomLeftOf(capture.width_px * zoom, viewWidth), width: "max-content" }}>
        <div
          ref={setPage}
          data-page
          className="seethrough relative"
          style={{ width: capture.width_px * zoom, height: capture.height_px * zoom }}
        >
          {tone?.threshold != null && <ThresholdFilter threshold={tone.threshold} />}
          {near.map((strip) => {
            // Whole CSS px, so that neighbours meet without a seam.
            const top = Math.round(strip.top_px * zoom);
            const height = Math.round((strip.top_px + strip.height_px) * zoom) - top;
            return (
              <img
                key={strip.number}
                src={stripUrl(capture, strip.number, shrink)}
                alt=""
                draggable={false}
                data-strip={strip.number}
                className="absolute left-0 w-full select-none"
                style={{ top, height, filter: filterOf(tone), imageRendering: zoom * window.devicePixelRatio > 1 ? "pixelated" : "auto" }}
              />
            );
          })}
          {page && (
            <PointerLayer page={page} scroller={scroller} zoom={zoom}>
              <HiddenLayer zoom={zoom} />
              <MarkLayer scroller={scroller} zoom={zoom} />
              <FrameLayer zoom={zoom} />
              <FoldLayer zoom={zoom} />
              <OtherFrame zoom={zoom} />
              <BreakLines scale={zoom} named />
            </PointerLayer>
          )}
        </div>
      </div>
    </div>
  );
}
