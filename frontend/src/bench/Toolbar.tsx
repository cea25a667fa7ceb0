import { DressTools } from "./dressing/DressTools";
import { HideTools } from "./marks/HideTools";
import { PointTools } from "./marks/PointTools";
import { PartTools } from "./PartTools";
import { Redo2, Undo2 } from "lucide-react";

import { titled } from "../app/actions/registry";
import { useBench, useCut } from "./benchContext";
import type { ZoomMode } from "./page/geometry/zoom";

const ZOOMS: { mode: ZoomMode; label: string; hint: string }[] = [
  { mode: "fit", label: "Fit", hint: titled("fitWidth") },
  { mode: "1", label: "1:1", hint: titled("actual") },
  { mode: "2", label: "2:1", hint: titled("double") },
];

interface Props {
  mode: ZoomMode;
  onMode: (mode: ZoomMode) => void;
}

/** One row above the page: how to look, the tools of the stage at hand, undo. */
export function Toolbar({ mode, onMode }: Props) {
  const { store } = useBench();
  const undone = useCut((state) => state.past.at(-1)?.words);
  const redone = useCut((state) => state.future.at(-1)?.words);
  const stage = useCut((state) => state.stage);
  return (
    <div className="@container shrink-0 border-b border-base-300">
      <div className="flex h-11 items-center gap-1 px-3 @min-[46rem]:gap-3">
      {stage !== "dress" && <div className="join" role="group" aria-label="Zoom">
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
      </div>}
      {stage === "part" && <PartTools />}
      {stage === "point" && <PointTools />}
      {stage === "hide" && <HideTools />}
      {stage === "dress" && <DressTools />}
      <div className="ml-auto flex gap-1">
        <button type="button" className="btn btn-square btn-ghost btn-sm" aria-label="Undo" title={undone ? titled("undo", `Undo: ${undone}`) : "Nothing to undo"} disabled={!undone} onClick={store.undo}>
          <Undo2 size={18} aria-hidden />
        </button>
        <button type="button" className="btn btn-square btn-ghost btn-sm" aria-label="Redo" title={redone ? titled("redo", `Redo: ${redone}`) : "Nothing to redo"} disabled={!redone} onClick={store.redo}>
          <Redo2 size={18} aria-hidden />
        </button>
      </div>
      </div>
    </div>
  );
}
