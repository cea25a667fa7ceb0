import { createStore, del, entries, get, set } from "idb-keyval";

import type { Cut, CutDocument } from "../../api/types";
import { complete, type CutHistory, sameDocument } from "./cutStore";

/** What the server is known to have. */
export type Saved = Pick<Cut, "version" | "document">;

/** What a browser keeps of a cut: its history, and what the server may not have yet. */
export interface Kept extends CutHistory {
  saved: Saved;
  document: CutDocument;
  kept_ms: number;
}

/** Where histories are kept, each under its cut's id: two cuts never share one. */
export interface Keep {
  find: (cutId: number) => Promise<Kept | undefined>;
  keep: (cutId: number, kept: Kept) => Promise<void>;
}

/** With which state a cut is opened, and what the server is known to have. */
export interface Opening extends CutHistory {
  saved: Saved;
  document: CutDocument;
}

/** A browser whose store does not answer must not keep the cut from being opened. */
const WAIT_MS = 2_000;
const KEPT_FOR_MS = 30 * 24 * 3_600_000;

/** How a cut goes on: with its history where it is as it was left; with what was never saved, if anything was. */
export function openingOf(cut: Cut, kept: Kept | undefined): Opening {
  const now = { saved: { version: cut.version, document: cut.document }, document: cut.document, past: [], future: [] };
  if (!kept) return now;
  const { past, future } = kept;
  if (sameDocument(kept.document, cut.document)) return { ...now, past, future };
  if (sameDocument(kept.document, kept.saved.document)) return now; // changed elsewhere; nothing of ours is missing
  return { saved: kept.saved, document: complete(kept.document), past, future };
}

const nothingAfter = (ms: number) => new Promise<undefined>((resolve) => setTimeout(() => resolve(undefined), ms));

/** Kept in this browser (IndexedDB); a browser that keeps nothing has no history after a reload. */
export function browserKeep(): Keep {
  const store = createStore("tallpage-cuts", "histories");
  void dropOld();
  return {
    find: (cutId) => Promise.race([get<Kept>(cutId, store).catch(() => undefined), nothingAfter(WAIT_MS)]),
    keep: (cutId, kept) => set(cutId, kept, store).catch(() => undefined),
  };

  async function dropOld() {
    try {
      for (const [cutId, kept] of await entries<number, Kept>(store)) {
        if (Date.now() - kept.kept_ms > KEPT_FOR_MS) await del(cutId, store);
      }
    } catch {
      // Nothing is kept where there is no such store.
    }
  }
}
