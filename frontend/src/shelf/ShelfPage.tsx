import { Search, Trash2 } from "lucide-react";
import { useDeferredValue, useState } from "react";
import { Link } from "react-router";

import { useAction } from "../app/actions/useAction";
import { useLabels, useWanted } from "../api/shelf";
import { asProblem } from "../api/client";
import { ProblemNote } from "../parts/ProblemNote";
import { useTitle } from "../parts/useTitle";
import { useLeftState } from "../app/historyStep";
import { ChosenBar } from "./ChosenBar";
import { FolderList } from "./FolderList";
import { ShelfCard } from "./ShelfCard";

const STATES = [
  { state: "", words: "in any state" },
  { state: "ready", words: "taken" },
  { state: "not_whole", words: "not whole" },
  { state: "warned", words: "with warnings" },
  { state: "failed", words: "failed" },
] as const;

/** Everything that was taken, newest first. */
export function ShelfPage() {
  useTitle("Shelf");
  const [words, setWords] = useState("");
  const [swept, setSwept] = useState(false);
  const searched = useDeferredValue(words.trim());
  // A search is for everything: whoever looks for words does not know how the page was taken.
  const [folder, setFolder] = useLeftState<number | null>("folder", null);
  const [label, setLabel] = useLeftState("label", "");
  const [state, setState] = useLeftState<(typeof STATES)[number]["state"]>("state", "");
  const labels = useLabels();
  const sorted = folder !== null || label !== "" || state !== "";
  const wanted = { words: searched, alone: !swept && searched === "" && !sorted, label, state, ...(folder !== null && { folder }) };
  const shelf = useWanted(wanted);
  useAction("search", () => document.querySelector<HTMLInputElement>("[data-shelf-search]")?.focus(), {
    preventDefault: true,
    useKey: true,
    ignoreModifiers: true,
  });
  const captures = shelf.data?.pages.flatMap((page) => page.captures) ?? [];
  const total = shelf.data?.pages[0]?.total ?? 0;
  const shown = captures.map((capture) => capture.id);
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
          <input type="checkbox" className="checkbox checkbox-xs" checked={swept || searched !== "" || sorted} disabled={searched !== "" || sorted} onChange={() => setSwept(!swept)} />
          with the pages of sweeps
        </label>
        {(labels.data?.length ?? 0) > 0 && (
          <select className="select select-sm w-auto" aria-label="Label" value={label} onChange={(event) => setLabel(event.target.value)}>
            <option value="">any label</option>
            {labels.data?.map((row) => (
              <option key={row.name} value={row.name}>
                {row.name} ({row.count})
              </option>
            ))}
          </select>
        )}
        <select className="select select-sm w-auto" aria-label="State" value={state} onChange={(event) => setState(event.target.value as typeof state)}>
          {STATES.map((row) => (
            <option key={row.state} value={row.state}>
              {row.words}
            </option>
          ))}
        </select>
        <label className="input input-sm w-full sm:w-64">
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
      <div className="flex flex-col gap-6 lg:flex-row">
        <FolderList folder={folder} onFolder={setFolder} />
        <div className="min-w-0 flex-1">
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
      {shelf.isSuccess && captures.length === 0 && words.trim() === "" && sorted && <p className="py-20 text-center">Nothing here.</p>}
      {shelf.isSuccess && captures.length === 0 && words.trim() === "" && !sorted && (
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
          <ShelfCard key={capture.id} capture={capture} shown={shown} />
        ))}
      </div>
      {shelf.hasNextPage && (
        <div className="mt-10 text-center">
          <button type="button" className="btn" disabled={shelf.isFetchingNextPage} onClick={() => void shelf.fetchNextPage()}>
            {shelf.isFetchingNextPage ? "Looking…" : `Show more of ${total}`}
          </button>
        </div>
      )}
        </div>
      </div>
      <ChosenBar wanted={wanted} total={total} />
    </main>
  );
}
