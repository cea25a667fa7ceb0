import { useQueries } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useRef, useState } from "react";
import { useParams, useSearchParams } from "react-router";

import { useAction } from "../../app/actions/useAction";
import { asProblem } from "../../api/client";
import { isGoing, type Kept, type MarkWord, ROWS_AT_ONCE, sweepRowsQuery, useRowsAtTheEnd, useSweep, useSweepAction } from "../../api/sweeps";
import type { Sweep, SweepRow } from "../../api/types";
import { showProblem } from "../../app/showProblem";
import { useLeftState, useScrollMemory } from "../../app/historyStep";
import { ProblemNote } from "../../parts/ProblemNote";
import { useNarrow } from "../../parts/useNarrow";
import { Slide } from "../../parts/fields/Slide";
import { useTitle } from "../../parts/useTitle";
import { LargeView } from "./LargeView";
import { moved, type Place } from "./moving";
import { ProofRows } from "./ProofRows";
import { HEAD_PX, proofShape, THUMB } from "./proofShape";
import { SweepHeader } from "../header/SweepHeader";

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
  const [thumbPx, setThumbPx] = useLeftState("size", THUMB.first);
  const [place, setPlace] = useLeftState<Place>("place", { row: 0, column: 0 });
  const [large, setLarge] = useLeftState("large", false);
  const scroller = useRef<HTMLDivElement>(null);
  useScrollMemory(scroller, "proofs");
  const action = useSweepAction(sweep.id);

  const [total, setTotal] = useState(Math.ceil(sweep.count.all / sweep.screens.length));
  const shape = proofShape(thumbPx, useNarrow());
  // The list's own measuring is what the compiler cannot know of; it is meant to run again.
  // oxlint-disable-next-line react/incompatible-library
  const virtual = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: () => shape.rowPx,
    overscan: 3,
    scrollMargin: HEAD_PX,
    scrollPaddingStart: HEAD_PX,
  });
  useEffect(() => {
    virtual.measure();
  }, [virtual, shape.rowPx]);
  const items = virtual.getVirtualItems();
  const first = Math.floor((items[0]?.index ?? 0) / ROWS_AT_ONCE);
  const last = Math.floor((items.at(-1)?.index ?? 0) / ROWS_AT_ONCE);
  const stretches = Array.from({ length: last - first + 1 }, (_, at) => first + at);
  useRowsAtTheEnd(sweep.id, isGoing(sweep));
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
    if (!large) scroller.current?.focus({ preventScroll: true });
    virtual.scrollToIndex(next.row, { align: "auto" });
  };
  useAction(
    "nextPicture",
    (event) => goTo(moved(place, event.key, total, sweep.screens.length)),
    { preventDefault: true },
  );
  const mark = (word: MarkWord) => {
    if (shot)
      action.mutate(
        { kind: "mark", shots: [shot], word },
        { onError: showProblem },
      );
    if (word) goTo(moved(place, "ArrowRight", total, sweep.screens.length));
  };
  useAction("mark", (event) => {
    const word = MARK_KEYS[event.key.toLowerCase()];
    if (word !== undefined && !event.repeat) mark(word);
  });
  useAction("large", () => shot && setLarge(true), { ignoreEventWhen: (event) => event.target instanceof HTMLButtonElement });
  const close = () => {
    setLarge(false);
    scroller.current?.focus({ preventScroll: true });
  };

  const look = (change: Record<string, string>) => {
    setPlace({ row: 0, column: 0 });
    scroller.current?.scrollTo({ top: 0 });
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
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-base-300 px-3 py-2 text-sm sm:px-6">
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
          className="input input-sm w-full sm:w-52"
          aria-label="Find a page"
          placeholder="Find a page"
          value={words}
          onChange={(event) => look({ words: event.target.value })}
        />
        <span className="ml-auto hidden items-center gap-2 sm:flex">
          Size
          <Slide name="Size of the pictures" size="w-32" least={THUMB.least} greatest={THUMB.most} value={thumbPx} onChange={setThumbPx} />
        </span>
      </div>
      <ProofRows
        sweep={sweep}
        scroller={scroller}
        virtual={virtual}
        shape={shape}
        place={place}
        empty={total > 0 ? "" : kept === "all" && !words ? "Nothing is in this sweep." : "Nothing of it is like this."}
        rowAt={rowAt}
        onOpen={(there) => {
          setPlace(there);
          setLarge(true);
        }}
      />
      {large && row && shot && (
        <LargeView row={row} shot={shot} onMark={mark} onStep={(key) => goTo(moved(place, key, total, sweep.screens.length))} onClose={close} />
      )}
    </main>
  );
}
