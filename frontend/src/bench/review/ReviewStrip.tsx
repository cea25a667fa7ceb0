import { Check, ChevronLeft, ChevronRight, MapPin, Trash2 } from "lucide-react";
import { useEffect, useState } from "react";

import { pieceUrl, useReview } from "../../api/review";
import type { HiddenArea, Mark, ReviewRow } from "../../api/types";
import { titled } from "../../app/actions/registry";
import { useAction } from "../../app/actions/useAction";
import { useNotices } from "../../app/notices";
import { showProblem } from "../../app/showProblem";
import { useBench, useCut } from "../benchContext";
import { putBack } from "./putBack";
import { nameOf, nextRow, pieceAround, stateWords, waiting } from "./reviewRows";

interface Shown {
  scroller: HTMLDivElement | null;
  zoom: number;
}

/** What became of a cut's parts when it was carried over, one after the other: as it was, and as it is. */
export function ReviewStrip({ scroller, zoom }: Shown) {
  const { capture, cut, store, saver } = useBench();
  const review = useReview(capture, cut);
  const show = useNotices((state) => state.show);
  const marks = useCut((state) => state.document.marks);
  const [at, setAt] = useState(0);
  const rows = cut.review;
  const row = rows[Math.min(at, rows.length - 1)];
  const send = (settled: ReviewRow[]) => review.mutate(settled, { onError: showProblem });
  const go = (place: number) => setAt((place + rows.length) % rows.length);
  const onwards = () => setAt(nextRow(rows, at));
  const look = () => {
    if (!row) return;
    // Files may be asked for then, and what was kept aside is let go of: the server must have what was changed here.
    void saver.flush().then(() => {
      if (saver.isSaved) send([row]);
      else show({ tone: "error", text: "The cut could not be saved: this part still waits for a look." });
    });
    setAt(nextRow(rows.map((other) => (other === row ? { ...row, doubt: false } : other)), at));
  };
  const put = () => {
    if (!row?.kept || !scroller) return;
    const middle_px = { x_px: (scroller.scrollLeft + scroller.clientWidth / 2) / zoom, y_px: (scroller.scrollTop + scroller.clientHeight / 2) / zoom };
    putBack(store, row.part === "hidden" ? { hidden: row.kept as unknown as HiddenArea } : { mark: row.kept as unknown as Mark }, middle_px);
    look();
  };
  useAction("reviewNext", onwards, undefined, [rows, at]);
  useAction("reviewRight", look, undefined, [rows, at]);
  useEffect(() => {
    // Only when another row is in hand: what is dragged meanwhile must not jump.
    const now = row?.now;
    if (now && scroller) scroller.scrollTo({ top: Math.max(0, now.y_px * zoom - scroller.clientHeight / 3), left: Math.max(0, now.x_px * zoom - scroller.clientWidth / 3) });
    if (row?.now && row.part !== "frame" && row.part !== "fold") {
      store.setStage(row.part === "hidden" ? "hide" : "point");
      store.select([row.id]);
    }
    // oxlint-disable-next-line react/exhaustive-deps
  }, [at, scroller]);
  if (!row) return null;
  const left = waiting(rows);
  return (
    <section aria-label="Review" data-review className="flex items-stretch gap-3 border-b border-base-300 bg-base-200 px-4 py-2 text-sm">
      {cut.carried_from != null && <Piece words="Before" url={pieceUrl(cut.carried_from, pieceAround(row.before, BEYOND), 0)} />}
      {row.now ? <Piece words="Now" url={pieceUrl(cut.id, pieceAround(row.now, store.getState().page), cut.version)} /> : <p className="grid w-[22%] max-w-60 min-w-28 shrink-0 place-items-center border border-dashed border-base-300 p-2 text-center text-info">No place now</p>}
      <div className="flex min-w-0 flex-1 flex-col gap-1">
        <p>
          <strong>{nameOf(row, marks)}</strong> <span data-review-state={row.state}>{stateWords(row)}</span>
        </p>
        <div className="mt-auto flex flex-wrap items-center gap-2">
          {row.doubt && row.now && (
            <button type="button" className="btn btn-primary btn-sm" title={titled("reviewRight")} onClick={look}>
              <Check size={15} aria-hidden /> Right here
            </button>
          )}
          {row.kept && (
            <button type="button" className="btn btn-primary btn-sm" title="It is put in the middle of what is shown of the page; move it from there" onClick={put}>
              <MapPin size={15} aria-hidden /> Put it here
            </button>
          )}
          {row.doubt && !row.now && (
            <button type="button" className="btn btn-sm" title={titled("reviewRight", row.kept ? "Leave it out of this cut" : "It stays as it is now")} onClick={look}>
              {row.kept ? <Trash2 size={15} aria-hidden /> : <Check size={15} aria-hidden />} {row.kept ? "Leave it out" : "Leave it so"}
            </button>
          )}
          <div className="join">
            <button type="button" className="btn join-item btn-square btn-sm" aria-label="The part before" onClick={() => go(at - 1)}>
              <ChevronLeft size={15} aria-hidden />
            </button>
            <button type="button" className="btn join-item btn-square btn-sm" aria-label="The next part" title={titled("reviewNext")} onClick={onwards}>
              <ChevronRight size={15} aria-hidden />
            </button>
          </div>
          <span className="figure">
            {Math.min(at, rows.length - 1) + 1} of {rows.length}
          </span>
          <span role="status" title={left > 0 ? "Files are made once nothing is in doubt" : undefined} className={left > 0 ? "font-medium text-error" : "text-info"}>
            {left > 0 ? `${left} ${left === 1 ? "needs" : "need"} a look` : "Nothing is in doubt."}
          </span>
          <button type="button" className="btn btn-sm" disabled={left > 0} onClick={() => send([])}>
            Close the review
          </button>
        </div>
      </div>
    </section>
  );
}

/** The page before may be of any size: the server leaves out what lies beside it. */
const BEYOND = { width_px: 100_000, height_px: 1_000_000 };

function Piece({ words, url }: { words: string; url: string }) {
  return (
    <figure className="flex w-[22%] max-w-60 min-w-28 shrink-0 flex-col">
      <figcaption className="text-info">{words}</figcaption>
      <img src={url} alt={`${words}: the place on the page`} className="h-28 w-full border border-base-300 bg-base-100 object-contain" />
    </figure>
  );
}
