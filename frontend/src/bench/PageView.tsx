import { useState } from "react";

import { stripUrl } from "../api/pictures";
import { BreakLines } from "./BreakLines";
import { CropLayer } from "./CropLayer";
import { FoldLayer } from "./FoldLayer";
import { useBench } from "./benchContext";
import type { Viewport } from "./useViewport";
import { MARGIN, roomLeftOf, shrinkFor } from "./zoom";

interface Props {
  scroller: HTMLDivElement | null;
  onScroller: (element: HTMLDivElement | null) => void;
  viewport: Viewport;
  zoom: number;
}

/** The page in the middle column. Only strips near the visible part are in the document at all. */
export function PageView({ scroller, onScroller, viewport, zoom }: Props) {
  const { capture } = useBench();
  const [page, setPage] = useState<HTMLDivElement | null>(null);
  const shrink = shrinkFor(zoom, window.devicePixelRatio);
  const above = (viewport.top - MARGIN - viewport.height) / zoom;
  const below = (viewport.top - MARGIN + 2 * viewport.height) / zoom;
  const near = capture.strips.filter((strip) => strip.top_px < below && strip.top_px + strip.height_px > above);
  return (
    <div
      ref={onScroller}
      className="min-h-0 flex-1 overflow-auto bg-base-200"
      tabIndex={0}
      role="region"
      aria-label="The page"
      data-zoom={zoom}
    >
      <div style={{ padding: MARGIN, paddingLeft: roomLeftOf(capture.width_px * zoom, viewport.width), width: "max-content" }}>
        <div
          ref={setPage}
          data-page
          className="seethrough relative"
          style={{ width: capture.width_px * zoom, height: capture.height_px * zoom }}
        >
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
                style={{ top, height, imageRendering: zoom * window.devicePixelRatio > 1 ? "pixelated" : "auto" }}
              />
            );
          })}
          {page && <CropLayer page={page} scroller={scroller} zoom={zoom} />}
          <FoldLayer zoom={zoom} />
          <BreakLines scale={zoom} named />
        </div>
      </div>
    </div>
  );
}
