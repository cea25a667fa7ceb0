import { Search, Trash2 } from "lucide-react";
import { useDeferredValue, useState } from "react";
import { Link } from "react-router";

import { useAction } from "../app/actions/useAction";
import { useShelf } from "../api/captures";
import { asProblem } from "../api/client";
import { ProblemNote } from "../parts/ProblemNote";
import { useTitle } from "../parts/useTitle";
import { CaptureCard } from "./CaptureCard";

/** Everything that was taken, newest first. */
export function ShelfPage() {
  useTitle("Shelf");
  const [words, setWords] = useState("");
  const [swept, setSwept] = useState(false);
  const searched = useDeferredValue(words.trim());
  // A search is for everything: whoever looks for words does not know how the page was taken.
  const shelf = useShelf({ words: searched, alone: !swept && searched === "" });
  useAction("search", () => document.querySelector<HTMLInputElement>("[data-shelf-search]")?.focus(), {
    preventDefault: true,
    useKey: true,
    ignoreModifiers: true,
  });
  const captures = shelf.data?.pages.flatMap((page) => page.captures) ?? [];
  const total = shelf.data?.pages[0]?.total ?? 0;
  return (
    <main className="mx-auto max-w-[1600px] px-4 pt-6 pb-16 sm:px-6">
      <div className="mb-5 flex flex-wrap items-center gap-x-3 gap-y-2 border-b border-base-300 pb-2">
        <h1 className="text-xl font-semibold">Shelf</h1>
        {total > 0 && (
          <span className="figure">
            {total} {total === 1 ? "capture" : "captures"}
          </span>
        )}
        <Link to="/shelf/deleted" className="btn btn-ghost btn-sm ml-auto">
          <Trash2 size={15} aria-hidden /> Deleted
        </Link>
        <label className="flex items-center gap-2 text-sm">
          <input type="checkbox" className="checkbox checkbox-xs" checked={swept || searched !== ""} disabled={searched !== ""} onChange={() => setSwept(!swept)} />
          with the pages of sweeps
        </label>
        <label className="input input-sm w-full sm:w-80">
          <Search size={16} aria-hidden />
          <input
            type="search"
            data-shelf-search
            className="outline-none!"
            aria-label="Search the shelf"
            placeholder="Name, address, or what a page said"
            value={words}
            onChange={(event) => setWords(event.target.value)}
          />
        </label>
      </div>
      {shelf.isPending && <p>Looking at the shelf…</p>}
      {shelf.isError && (
        <ProblemNote sentence={asProblem(shelf.error).sentence} hint={asProblem(shelf.error).hint}>
          <button type="button" className="btn btn-sm mt-2" onClick={() => void shelf.refetch()}>
            Look again
          </button>
        </ProblemNote>
      )}
      {shelf.isSuccess && captures.length === 0 && words.trim() !== "" && (
        <div className="py-20 text-center">
          <p className="mb-4">Nothing on the shelf says “{words.trim()}”.</p>
          <button type="button" className="btn" onClick={() => setWords("")}>
            Show everything
          </button>
        </div>
      )}
      {shelf.isSuccess && captures.length === 0 && words.trim() === "" && (
        <div className="py-20 text-center">
          <p className="mb-4">The shelf is empty. Pages and pictures that you take end up here.</p>
          <Link to="/" className="btn btn-primary">
            Take a page
          </Link>
        </div>
      )}
      <h2 className="sr-only">Captures, newest first</h2>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-x-4 gap-y-9 sm:grid-cols-[repeat(auto-fill,minmax(190px,1fr))] sm:gap-x-6">
        {captures.map((capture) => (
          <CaptureCard key={capture.id} capture={capture} />
        ))}
      </div>
      {shelf.hasNextPage && (
        <div className="mt-10 text-center">
          <button type="button" className="btn" disabled={shelf.isFetchingNextPage} onClick={() => void shelf.fetchNextPage()}>
            {shelf.isFetchingNextPage ? "Looking…" : `Show more of ${total}`}
          </button>
        </div>
      )}
    </main>
  );
}
