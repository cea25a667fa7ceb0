import { useVirtualizer } from "@tanstack/react-virtual";
import { type KeyboardEvent, useEffect, useRef, useState } from "react";

import { framesOf, frameUrl } from "../../api/clips";
import type { Clip, ClipDocument } from "../../api/types";
import { counted } from "../../parts/figures";
import { withRange } from "../playing";
import { type Span, spanWords } from "./onFrames";

const WIDE_PX = 104;

interface FrameStripProps {
  clip: Clip;
  document: ClipDocument;
  frame: number;
  onFrame: (frame: number) => void;
  /** Hears of a range of several frames; null where it is one. */
  onRange: (range: Span | null) => void;
  onDrop: (dropped: number[]) => void;
}

/** Every frame that was taken, in a row. A range is chosen with Shift; what is dropped stays, struck through. */
export function FrameStrip({ clip, document, frame, onFrame, onRange, onDrop }: FrameStripProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const [range, setRange] = useState({ from: 0, to: 0 });
  const dropped = new Set(document.dropped);
  // The strip's own measuring is what the compiler cannot know of; it is meant to run again.
  // oxlint-disable-next-line react/incompatible-library
  const columns = useVirtualizer({ horizontal: true, count: clip.frame_count, getScrollElement: () => scroller.current, estimateSize: () => WIDE_PX, overscan: 6 });
  const [first, last] = range.from <= range.to ? [range.from, range.to] : [range.to, range.from];
  const chosen = last - first + 1;
  const hasKept = Array.from({ length: chosen }, (_, index) => first + index).some((number) => !dropped.has(number));

  useEffect(() => {
    columns.scrollToIndex(frame, { align: "auto" });
  }, [columns, frame]);

  const choose = (number: number, extend: boolean) => {
    const from = extend ? range.from : number;
    setRange({ from, to: number });
    onRange(from === number ? null : { first: Math.min(from, number), last: Math.max(from, number) });
    onFrame(number);
  };
  const heard = (event: KeyboardEvent) => {
    const to = { ArrowLeft: range.to - 1, ArrowRight: range.to + 1, Home: 0, End: clip.frame_count - 1 }[event.key];
    if (to !== undefined) {
      event.preventDefault();
      choose(Math.min(clip.frame_count - 1, Math.max(0, to)), event.shiftKey);
    } else if (event.key === "Delete" || event.key === "Backspace") {
      event.preventDefault();
      onDrop(withRange(document.dropped, first, last, hasKept));
    }
  };
  const words = spanWords({ first, last });
  return (
    <section aria-label="Frames" className="mt-4">
      <div className="mb-1 flex flex-wrap items-center gap-2 text-sm">
        <span className="mr-auto">
          {words.charAt(0).toUpperCase() + words.slice(1)} in hand. A click with Shift takes all up to there.
        </span>
        <button type="button" className="btn btn-sm" disabled={!hasKept} onClick={() => onDrop(withRange(document.dropped, first, last, true))}>
          Drop {chosen === 1 ? "this frame" : counted(chosen, "frame")}
        </button>
        <button type="button" className="btn btn-sm" disabled={![...dropped].some((number) => number >= first && number <= last)} onClick={() => onDrop(withRange(document.dropped, first, last, false))}>
          Restore
        </button>
        <button type="button" className="btn btn-ghost btn-sm" disabled={dropped.size === 0} onClick={() => onDrop([])}>
          Restore all
        </button>
      </div>
      <div ref={scroller} className="overflow-x-auto border-y border-base-300 bg-base-200" role="listbox" aria-label="Frames in order" aria-multiselectable tabIndex={0} aria-activedescendant={`frame-${range.to}`} onKeyDown={heard}>
        <div className="relative h-24" style={{ width: columns.getTotalSize() }}>
          {columns.getVirtualItems().map(({ index, start }) => {
            const isChosen = index >= first && index <= last;
            const isDropped = dropped.has(index);
            return (
              <div
                key={index}
                id={`frame-${index}`}
                role="option"
                aria-selected={isChosen}
                aria-label={`Frame ${index + 1}${isDropped ? ", dropped" : ""}`}
                data-frame={index}
                data-dropped={isDropped}
                className={`absolute top-0 flex h-24 cursor-pointer flex-col gap-1 border-2 p-1 ${isChosen ? "border-accent" : "border-transparent"}`}
                style={{ left: start, width: WIDE_PX }}
                onClick={(event) => choose(index, event.shiftKey)}
              >
                <span className={`h-14 overflow-hidden bg-base-100 ${isDropped ? "opacity-30" : ""}`}>
                  <img src={frameUrl(framesOf(clip), index, 120, document.pointer)} alt="" loading="lazy" className="h-full w-full object-contain" draggable={false} />
                </span>
                <span className={`figure text-center text-xs ${isDropped ? "line-through" : index === frame ? "font-semibold" : ""}`}>{index + 1}</span>
              </div>
            );
          })}
        </div>
      </div>
    </section>
  );
}
