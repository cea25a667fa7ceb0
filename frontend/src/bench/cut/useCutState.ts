import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";

import { fetchCut, saveCut, saveCutLeaving } from "../../api/cuts";
import { asProblem } from "../../api/client";
import { fitStale } from "../../api/outlets";
import type { CaptureDetail, Cut } from "../../api/types";
import { useNotices } from "../../app/notices";
import { CutSaver, type SaveState } from "./cutSaver";
import { createCutStore, type CutStore } from "./cutStore";
import { browserKeep, openingOf } from "./keptHistory";

/** A cut that is still being changed is not fitted to yet. */
const REFIT_AFTER_MS = 500;
/** What is dragged along is not written to the browser's store at every move. */
const KEEP_AFTER_MS = 150;

interface InHand {
  store: CutStore;
  saver: CutSaver;
}

/** Opens a cut with its history, keeps it written, and lets go of it again. Null while it is being opened. */
export function useCutState(capture: CaptureDetail, cut: Cut): (InHand & { saveState: SaveState }) | null {
  const [inHand, setInHand] = useState<InHand | null>(null);
  const [saveState, setSaveState] = useState<SaveState>({ kind: "saved" });
  const queries = useQueryClient();
  const show = useNotices((state) => state.show);
  const opened = useRef(cut);
  const page = useRef({ width_px: capture.width_px, height_px: capture.height_px, scale: capture.screen?.scale ?? 1 });

  useEffect(() => {
    const { id } = opened.current;
    const keep = browserKeep();
    let left = false;
    let close: (() => void) | undefined;
    void keep.find(id).then((kept) => {
      if (!left) close = begin(kept);
    });
    return () => {
      left = true;
      close?.();
    };

    function begin(kept: Awaited<ReturnType<typeof keep.find>>): () => void {
      const opening = openingOf(opened.current, kept);
      const store = createCutStore(page.current, opening.document, opening);
      let refit: ReturnType<typeof setTimeout> | undefined;
      let keeping: ReturnType<typeof setTimeout> | undefined;
      const saver = new CutSaver(opening.saved, store, {
        save: (version, document) => saveCut(id, version, document),
        saveLeaving: (version, document) => saveCutLeaving(id, version, document),
        fetch: () => fetchCut(id),
        asProblem,
        onState: setSaveState,
        onSaved: (saved) => {
          opened.current = saved;
          keepNow();
          queries.setQueryData<CaptureDetail>(["capture", capture.id], (old) =>
            old && { ...old, cuts: old.cuts.map((row) => (row.id === saved.id ? saved : row)) },
          );
          clearTimeout(refit);
          refit = setTimeout(() => {
            void fitStale(saved.id).finally(() => void queries.invalidateQueries({ queryKey: ["outputs", saved.id] }));
          }, REFIT_AFTER_MS);
          void queries.invalidateQueries({ queryKey: ["outputs", saved.id] });
        },
        onMerged: () =>
          show({ tone: "info", text: "Another window changed this cut as well.", hint: "What both did is in it now. Undo takes the other’s part back." }),
      });
      const keepNow = () => {
        const { document, past, future } = store.getState();
        void keep.keep(id, { saved: saver.known, document, past, future, kept_ms: Date.now() });
      };
      const keepSoon = () => {
        clearTimeout(keeping);
        keeping = setTimeout(keepNow, KEEP_AFTER_MS);
      };
      const stopKeeping = store.subscribe((state, before) => {
        if (state.document !== before.document || state.past !== before.past) keepSoon();
      });
      const leave = () => {
        keepNow();
        saver.leave();
      };
      window.addEventListener("pagehide", leave);
      setInHand({ store, saver });
      return () => {
        window.removeEventListener("pagehide", leave);
        stopKeeping();
        clearTimeout(keeping);
        keepNow();
        saver.close();
      };
    }
  }, [capture.id, queries, show]);
  return inHand && { ...inHand, saveState };
}
