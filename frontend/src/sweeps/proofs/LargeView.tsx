import { Dialog } from "@base-ui/react/dialog";
import { Check, ChevronLeft, ChevronRight, RotateCcw, Trash2, X } from "lucide-react";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { Link } from "react-router";

import { useAction } from "../../app/actions/useAction";
import { type MarkWord, useChange, wordOf } from "../../api/sweeps";
import type { Change, Shot, SweepRow } from "../../api/types";
import { formatSize } from "../../parts/figures";
import { ChangeBar, type Side } from "./ChangeBar";
import { LargePicture, type Marked } from "./LargePicture";
import { useSwipe } from "./useSwipe";

const MARKS = [
  { word: "keep", label: "Keep", Icon: Check },
  { word: "retake", label: "Retake", Icon: RotateCcw },
  { word: "drop", label: "Drop", Icon: Trash2 },
] as const;

const MARK_WORDS = { keep: "kept", retake: "to be retaken" } as const;

interface LargeViewProps {
  row: SweepRow;
  shot: Shot;
  onMark: (word: MarkWord) => void;
  /** Go on to another picture, as by that arrow key. */
  onStep: (key: "ArrowLeft" | "ArrowRight") => void;
  onClose: () => void;
}

/** One picture as large as the window, from its strips. The proofs rest behind it; their keys go on working. */
export function LargeView({ row, shot, onMark, onStep, onClose }: LargeViewProps) {
  const popup = useRef<HTMLDivElement>(null);
  const swipe = useSwipe(onStep);
  useLayoutEffect(putBehind, []);
  return (
    <Dialog.Root open modal="trap-focus" disablePointerDismissal onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Popup
          ref={popup}
          aria-label="Large view"
          className="fixed inset-0 z-40 flex h-dvh w-screen flex-col bg-base-100 text-base-content outline-none"
          initialFocus={() => popup.current?.querySelector<HTMLElement>("[data-picture]") ?? true}
          finalFocus={() => document.querySelector<HTMLElement>("[data-proofs]") ?? true}
          onKeyDown={(event) => event.preventBaseUIHandler()}
          data-large
        >
          <div className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-base-300 px-4 py-2 text-sm">
            <span className="figure">{row.number}</span>
            <span className="min-w-0 flex-1 truncate">
              <span className="font-semibold">{row.title || row.address}</span> {row.title && row.address}
            </span>
            <button type="button" className="btn btn-square btn-ghost btn-sm sm:order-last" aria-label="Close" title="Close (Esc)" onClick={onClose}>
              <X size={18} aria-hidden />
            </button>
            <span className="flex w-full flex-wrap items-center gap-x-3 gap-y-1 sm:w-auto">
              {(shot.mark || shot.dropped) && (
                <span className="rounded-selector border border-base-content px-2">{shot.dropped ? "dropped" : MARK_WORDS[shot.mark || "keep"]}</span>
              )}
              <span className="flex gap-1" role="group" aria-label="Mark this picture">
                {MARKS.map(({ word, label, Icon }) => (
                  <button
                    key={word}
                    type="button"
                    className="btn btn-sm"
                    aria-pressed={wordOf(shot) === word}
                    onClick={() => onMark(wordOf(shot) === word ? "" : word)}
                  >
                    <Icon size={15} aria-hidden /> {label}
                  </button>
                ))}
              </span>
              <span className="flex gap-1" role="group" aria-label="Go on">
                <button type="button" className="btn btn-square btn-sm" aria-label="Picture before" title="Picture before (←)" onClick={() => onStep("ArrowLeft")}>
                  <ChevronLeft size={16} aria-hidden />
                </button>
                <button type="button" className="btn btn-square btn-sm" aria-label="Next picture" title="Next picture (→)" onClick={() => onStep("ArrowRight")}>
                  <ChevronRight size={16} aria-hidden />
                </button>
              </span>
              {shot.width_px > 0 && <span className="figure">{formatSize(shot.width_px, shot.height_px)}</span>}
              {shot.capture_id !== null && shot.picture_key && (
                <Link className="btn btn-sm" to={`/captures/${shot.capture_id}`}>
                  Open on the Bench
                </Link>
              )}
            </span>
          </div>
          {[...shot.warnings, shot.job?.error?.sentence ?? ""].filter(Boolean).map((words) => (
            <p key={words} className="border-b border-base-300 bg-base-200 px-4 py-1 text-sm">
              {words}
            </p>
          ))}
          <div className="flex min-h-0 flex-1 flex-col" data-shown={shot.id} {...swipe}>
            <Sides key={shot.id} shot={shot} />
          </div>
          <p className="hidden border-t border-base-300 px-4 py-1 text-xs sm:block">
            ← → ↑ ↓ next · K keep · R retake · D drop · U neither{shot.change === "changed" && " · B as it was · C next change"} · Esc back to the
            proofs
          </p>
        </Dialog.Popup>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** What is behind takes no focus. The dialog hands it round one frame late, and two quick presses of Tab got out. */
function putBehind() {
  const behind = document.getElementById("root");
  behind?.setAttribute("inert", "");
  return () => behind?.removeAttribute("inert");
}

/** The picture, and of a page that changed also how it was. */
function Sides({ shot }: { shot: Shot }) {
  const changed = shot.change === "changed" || shot.change === "gone";
  const { data: change } = useChange(shot, changed);
  const [side, setSide] = useState<Side>("now");
  const [stretch, setStretch] = useState(-1);
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  useEffect(() => {
    // The keys that scroll are for the picture, unless a button is in hand.
    if (!(document.activeElement instanceof HTMLButtonElement)) scroller?.focus({ preventScroll: true });
  }, [scroller]);
  const comparable = changed && change !== undefined && change.before_id !== null;
  const next = () => {
    if (!change || change.stretches.length === 0) return;
    const number = (stretch + 1) % change.stretches.length;
    setStretch(number);
    const there = change.stretches[number]?.[side] ? side : side === "now" ? "before" : "now";
    setSide(there);
  };
  useAction("before", () => comparable && setSide(side === "now" ? "before" : "now"), undefined, [comparable, side]);
  useAction("nextChange", next, undefined, [change, stretch, side]);
  if (shot.capture_id === null || !shot.picture_key)
    return (
      <div className="min-h-0 flex-1 bg-base-200">
        <p className="p-10 text-center">There is no picture yet.</p>
      </div>
    );
  const picture =
    side === "before" && comparable
      ? { id: change.before_id ?? 0, picture_key: change.before_key }
      : { id: shot.capture_id, picture_key: shot.picture_key };
  return (
    <>
      {comparable && <ChangeBar change={change} side={side} stretch={stretch} onSide={setSide} onNext={next} />}
      <div ref={setScroller} className="min-h-0 flex-1 touch-pan-y touch-pinch-zoom overflow-y-auto overscroll-x-none bg-base-200" tabIndex={0} role="region" aria-label="The picture" data-picture>
        <LargePicture
          key={picture.id}
          picture={picture}
          marked={comparable ? markedOn(change, side, stretch) : []}
          scroller={scroller}
        />
      </div>
    </>
  );
}

function markedOn(change: Change, side: Side, chosen: number): Marked[] {
  return change.stretches.flatMap((stretch, number) => {
    const box = stretch[side];
    return box ? [{ ...box, here: number === chosen }] : [];
  });
}
