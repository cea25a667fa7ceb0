import { Bookmark, X } from "lucide-react";
import { useState } from "react";

import { useChangeSearches, useSearches } from "../../api/shelf";
import type { ShelfOrder } from "../../api/types";
import { showProblem } from "../../app/showProblem";
import { isParticular, type Looked, lookedOf, wantedOf } from "./looked";

interface Props {
  looked: Looked;
  order: ShelfOrder;
  onLook: (looked: Looked, order: ShelfOrder) => void;
}

/** Searches that are kept, and the way to keep the one that is looked for now. */
export function KeptSearches({ looked, order, onLook }: Props) {
  const searches = useSearches();
  const change = useChangeSearches();
  const [name, setName] = useState<string | null>(null);
  const now = JSON.stringify([wantedOf(looked), order]);
  const rows = searches.data ?? [];
  const particular = isParticular(looked);
  if (rows.length === 0 && !particular) return null;
  return (
    <nav className="mt-5 text-sm" aria-label="Kept searches">
      <h2 className="px-2 text-xs font-semibold">Kept searches</h2>
      <ul>
        {rows.map((row) => {
          const held = lookedOf(row.wanted);
          const here = JSON.stringify([wantedOf(held), row.order]) === now;
          return (
            <li key={row.id} className="flex items-center">
              <button
                type="button"
                aria-current={here}
                className={`flex min-w-0 flex-1 items-center gap-1.5 border-l-2 px-2 py-1 text-left ${here ? "border-accent font-semibold" : "border-transparent hover:bg-base-200"}`}
                onClick={() => onLook(held, row.order)}
              >
                <Bookmark size={13} aria-hidden /> <span className="truncate">{row.name}</span>
              </button>
              <button
                type="button"
                className="btn btn-square btn-ghost btn-xs"
                aria-label={`Keep the search ${row.name} no longer`}
                title="Keep it no longer"
                onClick={() => change.mutate({ kind: "delete", searchId: row.id }, { onError: showProblem })}
              >
                <X size={13} aria-hidden />
              </button>
            </li>
          );
        })}
      </ul>
      {name === null ? (
        particular && (
          <button type="button" className="btn btn-ghost btn-xs mt-1" onClick={() => setName(looked.words.trim())}>
            <Bookmark size={13} aria-hidden /> Keep this search
          </button>
        )
      ) : (
        <form
          className="mt-2 flex gap-1"
          onSubmit={(event) => {
            event.preventDefault();
            change.mutate({ kind: "keep", name: name.trim(), wanted: wantedOf(looked), order }, { onError: showProblem, onSuccess: () => setName(null) });
          }}
        >
          <input autoFocus className="input input-xs min-w-0 flex-1" aria-label="Name of the search" maxLength={80} value={name} onChange={(event) => setName(event.target.value)} onKeyDown={(event) => event.key === "Escape" && setName(null)} />
          <button type="submit" className="btn btn-xs" disabled={!name.trim()}>
            Keep it
          </button>
        </form>
      )}
    </nav>
  );
}
