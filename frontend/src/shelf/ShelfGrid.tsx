import { useVirtualizer } from "@tanstack/react-virtual";
import { memo, useRef } from "react";

import { useAskedFor, useToldCapture } from "../api/shelf";
import { useListPlace } from "../parts/useListPlace";
import { useNarrow } from "../parts/useNarrow";
import { ShelfCard } from "./ShelfCard";

interface Props {
  /** All that are found, in their order. */
  ids: readonly number[];
  words: string;
}

const [GAP_PX, ROW_GAP_PX] = [24, 36];
const [LEAST_PX, LEAST_NARROW_PX] = [190, 150];
/** Height of what is written under a picture, and of the picture in widths, before it is known. */
const [WRITTEN_PX, USUAL_SHAPE] = [130, 1.6];

/** Captures as cards; only those near the view are there. */
export function ShelfGrid({ ids, words }: Props) {
  const list = useRef<HTMLDivElement>(null);
  const { scroller, marginPx, widthPx } = useListPlace(list);
  const least = useNarrow() ? LEAST_NARROW_PX : LEAST_PX;
  const columns = Math.max(1, Math.floor((widthPx + GAP_PX) / (least + GAP_PX)));
  const cardPx = (widthPx + GAP_PX) / columns - GAP_PX;
  // The list's own measuring is what the compiler cannot know of; it is meant to run again.
  // oxlint-disable-next-line react/incompatible-library
  const virtual = useVirtualizer({
    count: widthPx > 0 ? Math.ceil(ids.length / columns) : 0,
    getScrollElement: () => scroller,
    estimateSize: () => cardPx * USUAL_SHAPE + WRITTEN_PX + ROW_GAP_PX,
    getItemKey: (row) => `${columns} ${ids[row * columns]}`,
    overscan: 2,
    scrollMargin: marginPx,
  });
  const rows = virtual.getVirtualItems();
  useAskedFor(ids, (rows[0]?.index ?? 0) * columns, ((rows.at(-1)?.index ?? 0) + 1) * columns - 1, words);
  return (
    <div ref={list} className="relative" style={{ height: virtual.getTotalSize() }} data-shelf-grid>
      {rows.map((row) => (
        <div
          key={row.key}
          ref={virtual.measureElement}
          data-index={row.index}
          className="absolute inset-x-0 grid"
          style={{ transform: `translateY(${row.start - marginPx}px)`, gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`, columnGap: GAP_PX, paddingBottom: ROW_GAP_PX }}
        >
          {ids.slice(row.index * columns, (row.index + 1) * columns).map((captureId) => (
            <Card key={captureId} captureId={captureId} ids={ids} heightPx={cardPx * USUAL_SHAPE + WRITTEN_PX} />
          ))}
        </div>
      ))}
    </div>
  );
}

// The grid is drawn anew with every step that is scrolled; its cards are not.
const Card = memo(function Card({ captureId, ids, heightPx }: { captureId: number; ids: readonly number[]; heightPx: number }) {
  const capture = useToldCapture(captureId);
  if (!capture) return <div style={{ height: heightPx }} aria-hidden />;
  return <ShelfCard capture={capture} shown={ids} />;
});
