import { useState } from "react";

import { useBench, useCut, usePage, usePreparation } from "../benchContext";
import { useGround } from "../clearing/ground";
import { shownCut } from "../cut/cutStore";
import { MarkLayer } from "../marks/drawing/MarkLayer";
import { HiddenLayer } from "../marks/hiding/HiddenLayer";
import { OutlineLayer } from "../outline/OutlineLayer";
import { ThresholdFilter } from "../tone/ThresholdFilter";
import { BreakLines } from "./BreakLines";
import { FoldLayer } from "./FoldLayer";
import { FrameLayer } from "./FrameLayer";
import type { PageSize } from "./geometry/boxes";
import { GRID_FROM, MARGIN, roomLeftOf, shrinkFor } from "./geometry/zoom";
import { OtherFrame } from "./OtherFrame";
import { PagePictures, picturesNear, type Stretch } from "./PagePictures";
import { PointerLayer } from "./PointerLayer";
import { usePanning } from "./usePanning";
import { useView } from "./useView";
import type { Viewport } from "./useViewport";

interface Props {
  scroller: HTMLDivElement | null;
  onScroller: (element: HTMLDivElement | null) => void;
  viewWidth: number;
  zoom: number;
}

/** What of the page is seen, or nearly so: as much again above, below and beside. */
function nearView(view: Viewport, page: PageSize, viewWidth: number, zoom: number): Stretch {
  const left = view.left - roomLeftOf(page.width_px * zoom, viewWidth);
  const top = view.top - MARGIN;
  return {
    left_px: (left - view.width) / zoom,
    top_px: (top - view.height) / zoom,
    right_px: (left + 2 * view.width) / zoom,
    bottom_px: (top + 2 * view.height) / zoom,
  };
}

/** The page in the middle column. Only strips near the visible part are in the document at all. */
export function PageView({ scroller, onScroller, viewWidth, zoom }: Props) {
  const { capture } = useBench();
  const [page, setPage] = useState<HTMLDivElement | null>(null);
  const shrink = shrinkFor(zoom, window.devicePixelRatio);
  usePanning(scroller);
  const { width_px, height_px } = usePage();
  const prepared = usePreparation() !== "";
  const near = (view: Viewport) => picturesNear(nearView(view, { width_px, height_px }, viewWidth, zoom), capture.strips, { width_px, height_px }, prepared, shrink);
  const seen = useView(scroller, (view) => near(view).join(), "");
  const ground = useGround((state) => state.ground);
  const threshold = useCut((state) => shownCut(state).tone?.threshold);
  return (
    <div
      ref={onScroller}
      // Room for the scrollbar is always left: one that comes when the page is a little larger, and goes when
      // the page is fitted beside it, would come and go for ever.
      className="min-h-0 flex-1 overflow-auto bg-base-200 data-[panning=on]:cursor-grabbing data-[panning=ready]:cursor-grab data-[panning=on]:*:pointer-events-none data-[panning=ready]:*:pointer-events-none [scrollbar-gutter:stable]"
      tabIndex={0}
      role="region"
      aria-label="The page"
      data-zoom={zoom}
    >
      <div style={{ padding: MARGIN, paddingLeft: roomLeftOf(width_px * zoom, viewWidth), width: "max-content" }}>
        <div
          ref={setPage}
          data-page
          className={`relative ${ground === null ? "seethrough" : ""}`}
          style={{ width: width_px * zoom, height: height_px * zoom, ...(ground !== null && { backgroundColor: ground }) }}
        >
          {threshold != null && <ThresholdFilter threshold={threshold} />}
          <PagePictures names={seen ? seen.split(",") : []} zoom={zoom} />
          {zoom * window.devicePixelRatio >= GRID_FROM && <PixelGrid zoom={zoom} />}
          {page && (
            <PointerLayer page={page} scroller={scroller} zoom={zoom}>
              <HiddenLayer zoom={zoom} />
              <OutlineLayer zoom={zoom} />
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

/** Lines between the px of the page. */
function PixelGrid({ zoom }: { zoom: number }) {
  const line = "rgb(128 128 128 / 45%) 0 1px, transparent 1px";
  return (
    <div
      data-pixel-grid
      className="pointer-events-none absolute inset-0"
      style={{ backgroundImage: `linear-gradient(to right, ${line}), linear-gradient(to bottom, ${line})`, backgroundSize: `${zoom}px ${zoom}px` }}
    />
  );
}
