import { X } from "lucide-react";
import { type KeyboardEvent, type PointerEvent, useState } from "react";

import type { Fold } from "../api/types";
import { formatPx, parsePx } from "../parts/figures";
import { bottomOf, movedEdge } from "./folds";
import { useBench, useFrame } from "./benchContext";
import { shownFrame } from "./frameStore";

const FAR_STEP_PX = 10;

/** The folds on the page: hatched bands whose edges can be dragged, nudged or typed. */
export function FoldLayer({ zoom }: { zoom: number }) {
  const frame = useFrame(shownFrame);
  return frame.folds.map((fold, index) => (
    <div
      key={index}
      data-fold={index}
      className="hatched pointer-events-none absolute z-[5] border-y border-primary"
      style={{
        left: frame.x_px * zoom,
        width: frame.width_px * zoom,
        top: fold.top_px * zoom,
        height: Math.max(2, fold.height_px * zoom),
      }}
    >
      <FoldEdge fold={fold} index={index} edge="top" zoom={zoom} />
      <FoldEdge fold={fold} index={index} edge="bottom" zoom={zoom} />
      <FoldLabel fold={fold} index={index} />
    </div>
  ));
}

interface FoldProps {
  fold: Fold;
  index: number;
}

function FoldEdge({ fold, index, edge, zoom }: FoldProps & { edge: "top" | "bottom"; zoom: number }) {
  const { frames, capture } = useBench();
  const at = edge === "top" ? fold.top_px : bottomOf(fold);
  const drag = (event: PointerEvent<HTMLDivElement>) => {
    const page = event.currentTarget.closest("[data-page]")?.getBoundingClientRect();
    if (event.buttons !== 1 || !page) return;
    event.stopPropagation();
    frames.getState().dragFold(index, movedEdge(fold, edge, (event.clientY - page.top) / zoom));
  };
  const nudge = (event: KeyboardEvent<HTMLDivElement>) => {
    if (event.key !== "ArrowUp" && event.key !== "ArrowDown") return;
    event.preventDefault();
    event.stopPropagation();
    const step = (event.shiftKey ? FAR_STEP_PX : 1) * (event.key === "ArrowUp" ? -1 : 1);
    frames.getState().setFold(index, movedEdge(fold, edge, at + step));
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={`${edge === "top" ? "Upper" : "Lower"} edge of fold ${index + 1}`}
      aria-orientation="vertical"
      aria-valuemin={0}
      aria-valuemax={capture.height_px}
      aria-valuenow={at}
      className={`pointer-events-auto absolute inset-x-0 h-3 cursor-ns-resize touch-none focus-visible:bg-accent/50 ${edge === "top" ? "-top-1.5" : "-bottom-1.5"}`}
      onPointerDown={(event) => {
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={drag}
      onPointerCancel={() => frames.getState().cancelDrag()}
      // Let go, or taken out of hand by the window losing the pointer: it stays where it is.
      onLostPointerCapture={() => frames.getState().drop()}
      onKeyDown={nudge}
    />
  );
}

function FoldLabel({ fold, index }: FoldProps) {
  const { frames } = useBench();
  return (
    <div className="pointer-events-auto absolute top-2 right-2 flex items-center gap-2 rounded-[2px] bg-base-100 py-0.5 pr-0.5 pl-2 text-xs shadow-sm" onPointerDown={(event) => event.stopPropagation()}>
      Folded away
      <FoldNumber label="y" name={`Upper edge of fold ${index + 1} in px`} value={fold.top_px} onNumber={(top_px) => frames.getState().setFold(index, { ...fold, top_px })} />
      <FoldNumber label="h" name={`Height of fold ${index + 1} in px`} value={fold.height_px} onNumber={(height_px) => frames.getState().setFold(index, { ...fold, height_px })} />
      <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Unfold ${formatPx(fold.height_px)} px`} title="Unfold" onClick={() => frames.getState().removeFold(index)}>
        <X size={13} aria-hidden />
      </button>
    </div>
  );
}

function FoldNumber({ label, name, value, onNumber }: { label: string; name: string; value: number; onNumber: (value: number) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const apply = () => {
    const number = typed === null ? null : parsePx(typed);
    if (number !== null && number !== value) onNumber(number);
    setTyped(null);
  };
  return (
    <label className="flex items-center gap-1">
      <span className="text-info">{label}</span>
      <input
        aria-label={name}
        inputMode="numeric"
        className="input input-xs figure w-16 text-right"
        value={typed ?? String(value)}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={apply}
        onKeyDown={(event) => {
          if (event.key === "Enter") apply();
          if (event.key === "Escape") setTyped(null);
        }}
      />
    </label>
  );
}
