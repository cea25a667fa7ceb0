import { useVirtualizer } from "@tanstack/react-virtual";
import { ChevronDown, TriangleAlert } from "lucide-react";
import { memo, type MouseEvent, type ReactNode, useRef } from "react";
import { Link } from "react-router";

import { topThumbnailUrl } from "../api/pictures";
import { useAskedFor, useToldCapture } from "../api/shelf";
import type { Capture, ShelfOrder } from "../api/types";
import { formatBytes, formatSize, screenWords } from "../parts/figures";
import { useListPlace } from "../parts/useListPlace";
import { pressed, useChosen } from "./choosing/chosen";
import { draggedCaptures } from "./choosing/draggedCaptures";
import { When } from "./When";

interface Props {
  ids: readonly number[];
  words: string;
  order: ShelfOrder;
  onOrder: (order: ShelfOrder) => void;
}

const ROW_PX = 48;
const COLUMNS = "grid grid-cols-[2rem_2.5rem_minmax(0,1fr)] items-center gap-x-3 md:grid-cols-[2rem_2.5rem_minmax(0,3fr)_minmax(0,2fr)_8rem_7rem_5rem_6.5rem]";

/** Captures as rows of a table; only those near the view are there. */
export function ShelfList({ ids, words, order, onOrder }: Props) {
  const list = useRef<HTMLDivElement>(null);
  const { scroller, marginPx } = useListPlace(list);
  // The list's own measuring is what the compiler cannot know of; it is meant to run again.
  // oxlint-disable-next-line react/incompatible-library
  const virtual = useVirtualizer({ count: ids.length, getScrollElement: () => scroller, estimateSize: () => ROW_PX, overscan: 8, scrollMargin: marginPx });
  const rows = virtual.getVirtualItems();
  useAskedFor(ids, rows[0]?.index ?? 0, rows.at(-1)?.index ?? 0, words);
  const head = { order, onOrder };
  return (
    <div role="table" aria-label="Captures" aria-rowcount={ids.length + 1} className="text-sm" data-shelf-list>
      <div role="rowgroup" className="sticky top-0 z-10 bg-base-100">
        <div role="row" className={`${COLUMNS} border-b border-base-content py-1 text-xs`}>
          <span role="columnheader" className="sr-only">
            Chosen
          </span>
          <span role="columnheader" className="col-start-2 sr-only">
            Picture
          </span>
          <Head {...head} by="name" className="col-start-3">
            Name
          </Head>
          <Head {...head} by="site" className="max-md:hidden">
            Site
          </Head>
          <Head className="max-md:hidden">Screen</Head>
          <Head {...head} by="tallest" className="max-md:hidden">
            Size, px
          </Head>
          <Head {...head} by="heaviest" className="max-md:hidden">
            Weight
          </Head>
          <Head {...head} by="newest" className="max-md:hidden">
            Taken
          </Head>
        </div>
      </div>
      <div ref={list} role="rowgroup" className="relative" style={{ height: virtual.getTotalSize() }}>
        {rows.map((row) => {
          const captureId = ids[row.index];
          return (
            captureId !== undefined && (
              <div key={captureId} role="row" aria-rowindex={row.index + 2} className="absolute inset-x-0" style={{ top: row.start - marginPx, height: ROW_PX }}>
                <Row captureId={captureId} ids={ids} />
              </div>
            )
          );
        })}
      </div>
    </div>
  );
}

interface HeadProps {
  by?: ShelfOrder;
  order?: ShelfOrder;
  onOrder?: (order: ShelfOrder) => void;
  className?: string;
  children: ReactNode;
}

function Head({ by, order, onOrder, className = "", children }: HeadProps) {
  const here = by !== undefined && by === order;
  return (
    <span role="columnheader" className={className} aria-sort={here ? (by === "name" || by === "site" ? "ascending" : "descending") : undefined}>
      {by ? (
        <button type="button" className={`flex min-h-6 items-center gap-1 hover:underline ${here ? "font-semibold" : ""}`} onClick={() => onOrder?.(by)}>
          {children} {here && <ChevronDown size={12} aria-hidden />}
        </button>
      ) : (
        children
      )}
    </span>
  );
}

// The list is drawn anew with every step that is scrolled; its rows are not.
const Row = memo(function Row({ captureId, ids }: { captureId: number; ids: readonly number[] }) {
  const capture = useToldCapture(captureId);
  const chosen = useChosen((state) => state.ids.has(captureId));
  const { toggle } = useChosen.getState();
  if (!capture) return null;
  const press = (event: MouseEvent) => pressed(event, captureId, ids);
  return (
    <div
      className={`${COLUMNS} h-full border-b border-base-200 ${chosen ? "bg-base-300" : "hover:bg-base-200"}`}
      data-chosen={chosen}
      data-capture={captureId}
      data-state={capture.job.state}
      draggable
      onDragStart={(event) => draggedCaptures.begin(event, chosen ? [...useChosen.getState().ids] : [captureId])}
      onClickCapture={press}
    >
      <label role="cell" className="flex h-full items-center justify-center">
        <input type="checkbox" className="checkbox checkbox-sm" checked={chosen} aria-label={`Choose ${capture.name}`} onChange={() => toggle(captureId)} />
      </label>
      <span role="cell" className="seethrough h-10 w-10 overflow-hidden border border-base-300">
        {capture.picture_key && <img src={topThumbnailUrl(capture)} alt="" decoding="async" className="block w-full" />}
      </span>
      <span role="cell" className="min-w-0">
        <Name capture={capture} />
      </span>
      <span role="cell" className="truncate max-md:hidden" title={capture.host}>
        {capture.host || "dropped picture"}
      </span>
      <span role="cell" className="figure truncate text-xs max-md:hidden">
        {capture.screen && screenWords(capture.screen)}
      </span>
      <span role="cell" className="figure text-xs max-md:hidden">
        {capture.width_px > 0 && formatSize(capture.width_px, capture.height_px)}
      </span>
      <span role="cell" className="figure text-xs max-md:hidden">
        {capture.bytes > 0 && formatBytes(capture.bytes)}
      </span>
      <span role="cell" className="truncate text-xs max-md:hidden">
        <When capture={capture} />
      </span>
    </div>
  );
});

function Name({ capture }: { capture: Capture }) {
  const said = [...capture.labels, ...(capture.passage ? [capture.passage] : [])];
  return (
    <>
      <span className="flex items-center gap-1">
        {capture.picture_key ? (
          <Link to={`/captures/${capture.id}`} className="truncate font-medium" title={capture.name}>
            {capture.name}
          </Link>
        ) : (
          <span className="truncate font-medium">{capture.name}</span>
        )}
        {!capture.whole && (
          <Link to={`/captures/${capture.id}?report`} className="bg-accent px-1 text-xs whitespace-nowrap text-accent-content">
            Not whole
          </Link>
        )}
        {capture.warnings.length > 0 && (
          <span title={capture.warnings.join("\n")}>
            <TriangleAlert size={14} className="text-accent" aria-hidden />
            <span className="sr-only">Warnings: {capture.warnings.join(" ")}</span>
          </span>
        )}
        <State capture={capture} />
      </span>
      {said.length > 0 && <span className="block truncate text-xs">{said.join(" · ")}</span>}
    </>
  );
}

function State({ capture }: { capture: Capture }) {
  const { state, error } = capture.job;
  if (state === "done" || capture.picture_key) return null;
  const words = { queued: "waiting", running: "being taken", failed: error?.sentence ?? "failed", stopped: "stopped" }[state];
  return <span className={`truncate text-xs ${state === "failed" ? "text-error" : ""}`}>{words}</span>;
}
