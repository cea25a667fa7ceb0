import { DressTools } from "./dressing/DressTools";
import { HideTools } from "./marks/hiding/HideTools";
import { PointTools } from "./marks/PointTools";
import { PartTools } from "./PartTools";
import { Minus, Plus, Redo2, Undo2 } from "lucide-react";

import { titled } from "../app/actions/registry";
import { useBench, useCut } from "./benchContext";
import type { ZoomMode } from "./page/geometry/zoom";
import type { Zooming } from "./page/useZooming";

const ZOOMS: { mode: ZoomMode; label: string; hint: string }[] = [
  { mode: "fit", label: "Width", hint: titled("fitWidth") },
  { mode: "whole", label: "Page", hint: titled("fitPage") },
  { mode: 1, label: "1:1", hint: titled("actual") },
];

interface Props {
  mode: ZoomMode;
  /** CSS px for each px of the page. */
  zoom: number;
  zooming: Zooming;
}

/** One row above the page: how to look, the tools of the stage at hand, undo. */
export function Toolbar({ mode, zoom, zooming }: Props) {
  const { store } = useBench();
  const undone = useCut((state) => state.past.at(-1)?.words);
  const redone = useCut((state) => state.future.at(-1)?.words);
  const stage = useCut((state) => state.stage);
  return (
    <div className="@container shrink-0 border-b border-base-300">
      <div className="flex h-11 items-center gap-1 px-3 @min-[46rem]:gap-3">
      {stage !== "dress" && <div className="join" role="group" aria-label="Zoom">
        {ZOOMS.map((row) => (
          <button
            key={row.mode}
            type="button"
            title={row.hint}
            aria-pressed={mode === row.mode}
            className={`btn join-item btn-xs ${mode === row.mode ? "btn-neutral" : ""}`}
            onClick={() => zooming.to(row.mode)}
          >
            {row.label}
          </button>
        ))}
        <button type="button" className="btn btn-square join-item btn-xs @max-[46rem]:hidden" aria-label="Farther" title={titled("farther")} onClick={() => zooming.step(-1)}>
          <Minus size={14} aria-hidden />
        </button>
        <span className="figure grid w-14 place-items-center @min-[46rem]:w-[4.2rem] text-xs" data-zoom-percent>
          {Math.round(zoom * window.devicePixelRatio * 100)} %
        </span>
        <button type="button" className="btn btn-square join-item btn-xs @max-[46rem]:hidden" aria-label="Closer" title={titled("closer")} onClick={() => zooming.step(1)}>
          <Plus size={14} aria-hidden />
        </button>
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
