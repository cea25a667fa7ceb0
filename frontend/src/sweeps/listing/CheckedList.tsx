import { useVirtualizer } from "@tanstack/react-virtual";
import { useMemo, useRef, useState } from "react";

import type { PageListing } from "../../api/types";
import { counted } from "../../parts/figures";
import { isChangedSince, isPicked, matches, type Picking, placeOf, toggled } from "./picking";

const ROW_PX = 44;
const SECTIONS_SHOWN = 14;

interface CheckedListProps {
  listing: PageListing;
  picking: Picking;
  onPick: (picking: Picking) => void;
  onColumn: (column: number) => void;
}

/** The pages of a list before anything is taken: counted, filtered, unticked. */
export function CheckedList({ listing, picking, onPick, onColumn }: CheckedListProps) {
  const [words, setWords] = useState("");
  const [since, setSince] = useState("");
  const shown = useMemo(
    () => listing.pages.filter((page) => matches(page, words) && isChangedSince(page, since)),
    [listing, words, since],
  );
  const dated = listing.pages.some((page) => page.modified);
  const scroller = useRef<HTMLDivElement>(null);
  // The table's own measuring is what the compiler cannot know of; it is meant to run again.
  // oxlint-disable-next-line react/incompatible-library
  const rows = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 12,
  });
  const leaveOutShown = (out: boolean) => {
    const leftOut = new Set(picking.leftOut);
    for (const page of shown) {
      if (out) leftOut.add(page.address);
      else leftOut.delete(page.address);
    }
    onPick({ ...picking, leftOut });
  };
  const onlyShown = () => {
    const leftOut = new Set(listing.pages.map((page) => page.address));
    for (const page of shown) leftOut.delete(page.address);
    onPick({ ...picking, leftOut });
  };
  const forbidden = listing.pages.filter((page) => page.forbidden).length;
  return (
    <section aria-label="The list">
      <Tally listing={listing} />
      {listing.columns.length > 1 && (
        <label className="mt-3 flex items-center gap-2 text-sm">
          Addresses are in the column
          <select className="select select-sm w-auto" value={listing.column ?? 0} onChange={(event) => onColumn(Number(event.target.value))}>
            {listing.columns.map((column) => (
              <option key={column.number} value={column.number}>
                {column.heading}
              </option>
            ))}
          </select>
        </label>
      )}
      <Sections listing={listing} picking={picking} onPick={onPick} />
      {(forbidden > 0 || listing.robots) && (
        <div className="mt-3 text-sm">
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={picking.respectRobots}
              onChange={() => onPick({ ...picking, respectRobots: !picking.respectRobots })}
            />
            Leave out what the site asks programmes not to take ({counted(forbidden, "page")})
          </label>
          {listing.robots && (
            <details className="mt-1 ml-6">
              <summary className="cursor-pointer">Its robots.txt</summary>
              <pre className="figure mt-1 max-h-40 overflow-auto border-l-2 border-base-300 pl-3 text-xs">{listing.robots}</pre>
            </details>
          )}
        </div>
      )}
      <div className="mt-4 flex flex-wrap items-center gap-2 text-sm">
        <input
          className="input input-sm min-w-48 flex-1"
          type="search"
          aria-label="Filter the list"
          placeholder="Filter: words, or /news/*"
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
        {dated && (
          <label className="flex items-center gap-2">
            changed since
            <input type="date" className="input input-sm figure w-36" value={since} onChange={(event) => setSince(event.target.value)} />
          </label>
        )}
        <span>{counted(shown.length, "page")} shown</span>
        <button type="button" className="btn btn-sm" onClick={() => leaveOutShown(true)}>
          Untick shown
        </button>
        <button type="button" className="btn btn-sm" onClick={() => leaveOutShown(false)}>
          Tick shown
        </button>
        <button type="button" className="btn btn-sm" onClick={onlyShown}>
          Only these
        </button>
      </div>
      <div ref={scroller} className="mt-2 h-[400px] overflow-y-auto border border-base-300" tabIndex={0} aria-label="Pages of the list">
        {shown.length === 0 && <p className="p-6 text-center text-sm">No page of the list is like this.</p>}
        <div className="relative" style={{ height: rows.getTotalSize() }}>
          {rows.getVirtualItems().map((item) => {
            const page = shown[item.index];
            if (!page) return null;
            const picked = isPicked(page, picking);
            return (
              <label
                key={page.address}
                className="absolute inset-x-0 flex items-center gap-3 border-b border-base-200 px-3"
                style={{ top: item.start, height: ROW_PX }}
              >
                <input
                  type="checkbox"
                  className="checkbox checkbox-sm"
                  checked={picked}
                  disabled={(picking.respectRobots && page.forbidden) || picking.placesOut.has(placeOf(page))}
                  onChange={() => onPick({ ...picking, leftOut: toggled(picking.leftOut, page.address) })}
                />
                <span className={`min-w-0 flex-1 leading-tight ${picked ? "" : "opacity-60"}`}>
                  <span className="block truncate">{page.title || page.address.replace(/^https?:\/\//, "")}</span>
                  {page.title && <span className="block truncate text-xs">{page.address}</span>}
                </span>
                {page.forbidden && <span className="text-xs">Blocked by robots.txt</span>}
                {page.modified && <span className="figure text-xs">{page.modified}</span>}
              </label>
            );
          })}
        </div>
      </div>
    </section>
  );
}

function Tally({ listing }: { listing: PageListing }) {
  return (
    <div>
      <p className="font-semibold">
        {counted(listing.pages.length, "page")}
        {listing.duplicates > 0 && <span className="font-normal">, {counted(listing.duplicates, "duplicate")} left out</span>}
        {listing.left_over > 0 && <span className="font-normal text-error">, {counted(listing.left_over, "page")} too many and not read</span>}
      </p>
      {listing.bad_count > 0 && (
        <details className="mt-1 text-sm">
          <summary className="cursor-pointer text-error">
            {counted(listing.bad_count, "line is", "lines are")} no {listing.bad_count === 1 ? "address" : "addresses"}
          </summary>
          <ul className="mt-1 max-h-40 overflow-auto border-l-2 border-base-300 pl-3">
            {listing.bad.map((row) => (
              <li key={`${row.line} ${row.text}`}>
                <span className="figure">line {row.line}</span> {row.sentence}
              </li>
            ))}
          </ul>
        </details>
      )}
      {listing.problems.map((problem) => (
        <p key={problem} className="mt-1 text-sm text-error">
          {problem}
        </p>
      ))}
    </div>
  );
}

function Sections({ listing, picking, onPick }: Omit<CheckedListProps, "onColumn">) {
  const places = Object.entries(listing.sections);
  if (places.length < 2) return null;
  const oneHost = new Set(listing.pages.map((page) => page.host)).size === 1;
  return (
    <div className="mt-3 flex flex-wrap gap-2" role="group" aria-label="Sections">
      {places.slice(0, SECTIONS_SHOWN).map(([place, count]) => {
        const on = !picking.placesOut.has(place);
        return (
          <button
            key={place}
            type="button"
            aria-pressed={on}
            className={`rounded-selector border px-2 py-0.5 text-sm ${on ? "border-base-content" : "border-base-300 line-through opacity-60"}`}
            onClick={() => onPick({ ...picking, placesOut: toggled(picking.placesOut, place) })}
          >
            {oneHost ? place.slice(place.indexOf("/")) : place} <span className="figure">{count}</span>
          </button>
        );
      })}
      {places.length > SECTIONS_SHOWN && <span className="self-center text-sm">and {places.length - SECTIONS_SHOWN} more</span>}
    </div>
  );
}
