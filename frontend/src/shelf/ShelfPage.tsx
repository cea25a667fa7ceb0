import { HardDrive, Search, Trash2 } from "lucide-react";
import { type ReactNode, useDeferredValue, useState } from "react";
import { Link } from "react-router";

import { asProblem } from "../api/client";
import { useFound } from "../api/shelf";
import type { ShelfOrder } from "../api/types";
import { useAction } from "../app/actions/useAction";
import { useLeftState } from "../app/historyStep";
import { counted } from "../parts/figures";
import { ProblemNote } from "../parts/ProblemNote";
import { useNarrow } from "../parts/useNarrow";
import { useTitle } from "../parts/useTitle";
import { ChosenBar } from "./choosing/ChosenBar";
import { FolderList } from "./narrowing/FolderList";
import { KeptSearches } from "./narrowing/KeptSearches";
import { ANYTHING, isParticular, type Looked, wantedOf } from "./narrowing/looked";
import { ShelfFilters, type View } from "./narrowing/ShelfFilters";
import { ShelfGrid } from "./ShelfGrid";
import { ShelfList } from "./ShelfList";

const VIEW = "shelf-view";

/** Everything that was taken: found, sorted, chosen. */
export function ShelfPage() {
  useTitle("Shelf");
  const [looked, setLooked] = useLeftState<Looked>("looked", ANYTHING);
  const [order, setOrder] = useLeftState<ShelfOrder>("order", "newest");
  const [view, setView] = useState<View>(() => (localStorage.getItem(VIEW) === "list" ? "list" : "cards"));
  const words = useDeferredValue(looked.words.trim());
  const wanted = wantedOf({ ...looked, words });
  const found = useFound(wanted, order);
  useAction("search", () => document.querySelector<HTMLInputElement>("[data-shelf-search]")?.focus(), {
    preventDefault: true,
    useKey: true,
    ignoreModifiers: true,
  });
  const ids = found.data?.ids ?? [];
  const total = found.data?.total ?? 0;
  const narrow = useNarrow();
  const sides = (
    <div className="w-full shrink-0 lg:w-48">
      <FolderList folder={looked.folder} onFolder={(folder) => setLooked({ ...looked, folder })} />
      <KeptSearches
        looked={looked}
        order={order}
        onLook={(next, by) => {
          setLooked(next);
          setOrder(by);
        }}
      />
    </div>
  );
  return (
    <main className="mx-auto max-w-[1600px] px-4 pt-6 pb-16 sm:px-6">
      <div className="mb-3 flex flex-wrap items-center gap-x-3 gap-y-2 border-b border-base-300 pb-2">
        <h1 className="text-xl font-semibold">Shelf</h1>
        {total > 0 && <span className="figure">{counted(total, "capture")}</span>}
        <Link to="/shelf/data" className="btn btn-ghost btn-sm ml-auto">
          <HardDrive size={15} aria-hidden /> Data folder
        </Link>
        <Link to="/shelf/deleted" className="btn btn-ghost btn-sm">
          <Trash2 size={15} aria-hidden /> Deleted
        </Link>
        <label className="input input-sm w-full sm:w-64">
          <Search size={16} aria-hidden />
          <input
            type="search"
            data-shelf-search
            className="outline-none!"
            aria-label="Search the shelf"
            placeholder="Name, address, or what a page said"
            value={looked.words}
            onChange={(event) => setLooked({ ...looked, words: event.target.value })}
          />
        </label>
      </div>
      <FoldedWhenNarrow words="Filters, folders, order">
        <ShelfFilters
          looked={looked}
          order={order}
          view={view}
          onLook={setLooked}
          onOrder={setOrder}
          onView={(next) => {
            localStorage.setItem(VIEW, next);
            setView(next);
          }}
        />
        {narrow && sides}
      </FoldedWhenNarrow>
      <div className="flex flex-col gap-6 lg:flex-row">
        {!narrow && sides}
        <div className="min-w-0 flex-1">
          {found.isPending && <p>Looking at the shelf…</p>}
          {found.isError && (
            <ProblemNote sentence={asProblem(found.error).sentence} hint={asProblem(found.error).hint}>
              <button type="button" className="btn btn-sm mt-2" onClick={() => void found.refetch()}>
                Look again
              </button>
            </ProblemNote>
          )}
          {found.isSuccess && ids.length === 0 && <Nothing looked={looked} onLook={setLooked} />}
          <h2 className="sr-only">Captures</h2>
          {ids.length > 0 && (view === "cards" ? <ShelfGrid ids={ids} words={words} /> : <ShelfList ids={ids} words={words} order={order} onOrder={setOrder} />)}
        </div>
      </div>
      <ChosenBar found={ids} />
    </main>
  );
}

/** On a narrow screen behind a press, so that captures come first. */
function FoldedWhenNarrow({ words, children }: { words: string; children: ReactNode }) {
  if (!useNarrow()) return children;
  return (
    <details className="mb-4 border-b border-base-300 pb-2">
      <summary className="min-h-8 cursor-pointer py-1">{words}</summary>
      <div className="pt-3">{children}</div>
    </details>
  );
}

function Nothing({ looked, onLook }: { looked: Looked; onLook: (looked: Looked) => void }) {
  if (!isParticular(looked))
    return (
      <div className="py-20 text-center">
        <p className="mb-4">The shelf is empty. Pages and pictures that you take end up here.</p>
        <Link to="/" className="btn btn-primary">
          Take a page
        </Link>
      </div>
    );
  const words = looked.words.trim();
  return (
    <div className="py-20 text-center">
      <p className="mb-4">{words ? `Nothing on the shelf says “${words}”.` : "Nothing on the shelf is like that."}</p>
      <button type="button" className="btn" onClick={() => onLook(ANYTHING)}>
        Show everything
      </button>
    </div>
  );
}
