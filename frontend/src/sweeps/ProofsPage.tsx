import { useQueries } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useRef, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { Link, useParams, useSearchParams } from "react-router";

import { asProblem } from "../api/client";
import { isGoing, type Kept, type MarkWord, ROWS_AT_ONCE, sweepRowsQuery, useSweep, useSweepAction } from "../api/sweeps";
import type { Sweep, SweepRow } from "../api/types";
import { screenWords } from "../parts/figures";
import { ProblemNote } from "../parts/ProblemNote";
import { useTitle } from "../parts/useTitle";
import { LargeView } from "./LargeView";
import { moved, type Place } from "./moving";
import { ProofCell } from "./ProofCell";
import { SweepHeader } from "./SweepHeader";

const FILTERS: Record<Kept, string> = {
  all: "All",
  arrived: "Taken",
  failed: "Failed",
  not_whole: "Not whole",
  warnings: "With warnings",
  over_limit: "Over limit",
  blank: "Blank or nearly",
  same: "Same as another",
  changed: "Changed",
  unchanged: "Unchanged",
  new: "New",
  gone: "Gone",
  keep: "Kept",
  retake: "To retake",
  dropped: "Dropped",
};
const MARK_KEYS: Record<string, MarkWord> = { k: "keep", r: "retake", d: "drop", u: "" };
const ZOOM = { least: 70, most: 320, first: 150 };
const SHAPE = 1.5;
const ROW_EXTRA_PX = 44;
const LABEL_PX = 216;

export function ProofsPage() {
  const sweepId = Number(useParams().sweepId);
  const sweep = useSweep(sweepId);
  useTitle(sweep.data?.name ?? "Sweep");
  if (sweep.isError)
    return (
      <main className="mx-auto max-w-2xl p-10">
        <ProblemNote sentence={asProblem(sweep.error).sentence} hint={asProblem(sweep.error).hint} />
      </main>
    );
  if (!sweep.data) return <p className="p-10">Looking for the sweep…</p>;
  return <Proofs sweep={sweep.data} />;
}

/** A sweep as it arrives: a row a page, a column a screen; skimmed and marked by keys. */
function Proofs({ sweep }: { sweep: Sweep }) {
  const [search, setSearch] = useSearchParams();
  const kept = (search.get("show") ?? "all") as Kept;
  const words = search.get("words") ?? "";
  const [thumbPx, setThumbPx] = useState(ZOOM.first);
  const [place, setPlace] = useState<Place>({ row: 0, column: 0 });
  const [large, setLarge] = useState(false);
  const scroller = useRef<HTMLDivElement>(null);
  const action = useSweepAction(sweep.id);

  const [total, setTotal] = useState(Math.ceil(sweep.count.all / sweep.screens.length));
  const heightPx = Math.round(thumbPx * SHAPE);
  // The list's own measuring is what the compiler cannot know of; it is meant to run again.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: () => heightPx + ROW_EXTRA_PX,
    overscan: 3,
  });
  useEffect(() => {
    virtual.measure();
  }, [virtual, heightPx]);
  const items = virtual.getVirtualItems();
  const first = Math.floor((items[0]?.index ?? 0) / ROWS_AT_ONCE);
  const last = Math.floor((items.at(-1)?.index ?? 0) / ROWS_AT_ONCE);
  const stretches = Array.from({ length: last - first + 1 }, (_, at) => first + at);
  const answers = useQueries({
    queries: stretches.map((stretch) => sweepRowsQuery(sweep.id, kept, words, stretch, isGoing(sweep))),
  });
  const found = answers.find((answer) => answer.data)?.data?.total;
  if (found !== undefined && found !== total) setTotal(found);
  const rowAt = (index: number): SweepRow | undefined =>
    answers[Math.floor(index / ROWS_AT_ONCE) - first]?.data?.rows[index % ROWS_AT_ONCE];
  const row = rowAt(place.row);
  const shot = row?.shots[place.column];

  const goTo = (next: Place) => {
    setPlace(next);
    scroller.current?.focus({ preventScroll: true });
    virtual.scrollToIndex(next.row, { align: "auto" });
  };
  useHotkeys(
    "up,down,left,right",
    (event) => goTo(moved(place, event.key, total, sweep.screens.length)),
    { preventDefault: true },
  );
  const mark = (word: MarkWord) => {
    if (shot) action.mutate({ kind: "mark", shotIds: [shot.id], word });
    if (word) goTo(moved(place, "ArrowRight", total, sweep.screens.length));
  };
  useHotkeys("k,r,d,u", (event) => {
    const word = MARK_KEYS[event.key.toLowerCase()];
    if (word !== undefined) mark(word);
  });
  useHotkeys("enter", () => shot && setLarge(true), { ignoreEventWhen: (event) => event.target instanceof HTMLButtonElement });
  useHotkeys("esc", () => setLarge(false));

  const look = (change: Record<string, string>) => {
    setPlace({ row: 0, column: 0 });
    if (!("words" in change)) scroller.current?.focus({ preventScroll: true });
    setSearch(
      (before) => {
        const next = new URLSearchParams(before);
        for (const [name, value] of Object.entries(change)) {
          if (value) next.set(name, value);
          else next.delete(name);
        }
        return next;
      },
      // A word that is typed is one step back, not a step for each of its letters.
      { replace: "words" in change },
    );
  };

  return (
    <main className="relative flex h-full flex-col">
      <SweepHeader sweep={sweep} />
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-base-300 px-6 py-2 text-sm">
        <div className="flex flex-wrap gap-1" role="group" aria-label="Which to show">
          {(Object.keys(FILTERS) as Kept[])
            .filter((name) => name === "all" || name === kept || (sweep.count.by_filter[name] ?? 0) > 0)
            .map((name) => (
              <button
                key={name}
                type="button"
                aria-pressed={kept === name}
                className={`rounded-selector border px-2 py-0.5 ${kept === name ? "border-primary bg-primary text-primary-content" : "border-base-300"}`}
                onClick={() => look({ show: name === "all" ? "" : name })}
              >
                {FILTERS[name]} <span className="figure">{sweep.count.by_filter[name] ?? 0}</span>
              </button>
            ))}
        </div>
        <input
          type="search"
          className="input input-sm w-52"
          aria-label="Find a page"
          placeholder="Find a page"
          value={words}
          onChange={(event) => look({ words: event.target.value })}
        />
        <label className="ml-auto flex items-center gap-2">
          Size
          <input type="range" className="range range-xs w-32" min={ZOOM.least} max={ZOOM.most} value={thumbPx} onChange={(event) => setThumbPx(Number(event.target.value))} />
        </label>
      </div>
      <div className="flex gap-4 border-b border-base-300 px-6 py-1 text-xs" aria-hidden>
        <span style={{ width: LABEL_PX }}>Page</span>
        {sweep.screens.map((screen, at) => (
          <span key={at} className="figure" style={{ width: thumbPx }}>
            {screenWords(screen)}
          </span>
        ))}
      </div>
      <div ref={scroller} className="min-h-0 flex-1 overflow-auto px-6 outline-none" tabIndex={0} aria-label="Proofs" data-proofs>
        {total === 0 && <p className="py-12 text-center">{kept === "all" && !words ? "Nothing is in this sweep." : "Nothing of it is like this."}</p>}
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {items.map((item) => {
            const page = rowAt(item.index);
            return (
              <div key={item.key} className="absolute inset-x-0 flex gap-4 border-b border-base-200 pt-3" style={{ top: item.start, height: heightPx + ROW_EXTRA_PX }}>
                {page && (
                  <>
                    <div className="shrink-0 text-sm" style={{ width: LABEL_PX }}>
                      <p className="figure text-xs">{page.number}</p>
                      <p className="line-clamp-2 font-medium">{page.title || (page.gone ? "Gone" : "No title yet")}</p>
                      <p className="line-clamp-3 text-xs break-all">{page.address.replace(/^https?:\/\//, "")}</p>
                    </div>
                    {page.gone && (
                      <p className="pt-5 text-sm">
                        Its site lists it no more.{" "}
                        {sweep.previous_id !== null && (
                          <Link className="link" to={`/sweeps/${sweep.previous_id}?words=${encodeURIComponent(page.address)}`}>
                            As it was
                          </Link>
                        )}
                      </p>
                    )}
                    {page.shots.map((one, column) => (
                      <ProofCell
                        key={one.id}
                        shot={one}
                        title={page.title || page.address}
                        widthPx={thumbPx}
                        heightPx={heightPx}
                        here={place.row === item.index && place.column === column}
                        onOpen={() => {
                          setPlace({ row: item.index, column });
                          setLarge(true);
                        }}
                      />
                    ))}
                  </>
                )}
              </div>
            );
          })}
        </div>
      </div>
      {large && row && shot && <LargeView row={row} shot={shot} onMark={mark} onClose={() => setLarge(false)} />}
    </main>
  );
}
