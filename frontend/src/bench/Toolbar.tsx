import { FoldVertical, Maximize, Redo2, Undo2 } from "lucide-react";
import { useStore } from "zustand";

import { useBench, useFrame } from "./benchContext";
import { FrameFields } from "./FrameFields";
import { sameArea, wholeFrame } from "./geometry";
import type { ZoomMode } from "./zoom";

const ZOOMS: { mode: ZoomMode; label: string; hint: string }[] = [
  { mode: "fit", label: "Fit", hint: "Fit the width (0)" },
  { mode: "1", label: "1:1", hint: "Actual pixels (1)" },
  { mode: "2", label: "2:1", hint: "Two to one (2)" },
];

interface Props {
  mode: ZoomMode;
  onMode: (mode: ZoomMode) => void;
}

/** One row above the page: how to look, the frame in numbers, undo. */
export function Toolbar({ mode, onMode }: Props) {
  const { frames, capture } = useBench();
  const past = useStore(frames.temporal, (state) => state.pastStates.length);
  const future = useStore(frames.temporal, (state) => state.futureStates.length);
  const whole = useFrame((state) => sameArea(state.frame, wholeFrame(capture)));
  const folding = useFrame((state) => state.folding);
  return (
    <div className="@container shrink-0 border-b border-base-300">
      <div className="flex h-11 items-center gap-2 px-3 @min-[46rem]:gap-3">
      <div className="join" role="group" aria-label="Zoom">
        {ZOOMS.map((zoom) => (
          <button
            key={zoom.mode}
            type="button"
            title={zoom.hint}
            aria-pressed={mode === zoom.mode}
            className={`btn join-item btn-xs ${mode === zoom.mode ? "btn-neutral" : ""}`}
            onClick={() => onMode(zoom.mode)}
          >
            {zoom.label}
          </button>
        ))}
      </div>
      <FrameFields />
      <button type="button" className="btn btn-xs" title="Frame the whole page (W)" disabled={whole} onClick={() => frames.getState().frameAll()}>
        <Maximize size={14} aria-hidden /> <span className="@max-[46rem]:sr-only">Whole page</span>
      </button>
      <button type="button" className={`btn btn-xs ${folding ? "btn-neutral" : ""}`} aria-pressed={folding} title="Fold a band away: drag over the rows that are not wanted (F)" onClick={() => frames.getState().setFolding(!folding)}>
        <FoldVertical size={14} aria-hidden /> <span className="@max-[46rem]:sr-only">Fold</span>
      </button>
      <div className="ml-auto flex gap-1">
        <button type="button" className="btn btn-square btn-ghost btn-sm" aria-label="Undo" title="Undo (Ctrl+Z)" disabled={past === 0} onClick={() => frames.temporal.getState().undo()}>
          <Undo2 size={18} aria-hidden />
        </button>
        <button type="button" className="btn btn-square btn-ghost btn-sm" aria-label="Redo" title="Redo (Ctrl+Shift+Z)" disabled={future === 0} onClick={() => frames.temporal.getState().redo()}>
          <Redo2 size={18} aria-hidden />
        </button>
      </div>
      </div>
    </div>
  );
}
