import { ChevronLeft, ChevronRight } from "lucide-react";

import { titled } from "../app/actions/registry";
import type { Output } from "../api/types";
import { formatsOf } from "../parts/figures";
import { type Mode, MODES, type Zoom, ZOOMS } from "./views";

interface Props {
  mode: Mode;
  onMode: (mode: Mode) => void;
  zoom: Zoom;
  onZoom: (zoom: Zoom) => void;
  output: Output;
  outputs: Output[];
  onOutput: (outputId: number) => void;
  /** Number of the worst place that was gone to last, from 0; -1 before the first. */
  place: number;
  onPlace: (step: 1 | -1) => void;
}

/** How original and result are laid against each other, how close, and what to look at first. */
export function CompareTools({ mode, onMode, zoom, onZoom, output, outputs, onOutput, place, onPlace }: Props) {
  const count = output.worst.length;
  return (
    <div className="flex h-11 shrink-0 items-center gap-4 border-b border-base-300 px-4 text-sm">
      <div className="join" role="group" aria-label="How they are laid">
        {MODES.map(({ name, words, hint }) => (
          <button key={name} type="button" className={`btn join-item btn-sm ${mode === name ? "btn-neutral" : ""}`} aria-pressed={mode === name} title={titled(name, hint)} onClick={() => onMode(name)}>
            {words}
          </button>
        ))}
      </div>
      <div className="join" role="group" aria-label="Zoom">
        {ZOOMS.map((factor) => (
          <button key={factor} type="button" className={`btn join-item btn-sm figure ${zoom === factor ? "btn-neutral" : ""}`} aria-pressed={zoom === factor} onClick={() => onZoom(factor)}>
            {factor}:1
          </button>
        ))}
      </div>
      {count > 0 && (
        <div className="flex items-center gap-1" role="group" aria-label="Where most was lost">
          <button type="button" className="btn btn-square btn-sm" aria-label="Place before" title={titled("placeBefore", "Back")} disabled={place <= 0} onClick={() => onPlace(-1)}>
            <ChevronLeft size={16} aria-hidden />
          </button>
          <span className="w-32 text-center" data-worst-place={place}>
            {place < 0 ? "Where it lost most" : <span className="figure">{`place ${place + 1} of ${count}`}</span>}
          </span>
          <button type="button" className="btn btn-square btn-sm" aria-label="Next place" title={titled("nextPlace", "Next")} disabled={place >= count - 1} onClick={() => onPlace(1)}>
            <ChevronRight size={16} aria-hidden />
          </button>
        </div>
      )}
      {outputs.length > 1 && (
        <label className="ml-auto flex min-w-0 items-center gap-2">
          File
          <select className="select select-sm min-w-0" value={output.id} onChange={(event) => onOutput(Number(event.target.value))}>
            {outputs.map((row) => (
              <option key={row.id} value={row.id}>
                {row.label}
                {row.format && `, ${formatsOf(row)}`}
              </option>
            ))}
          </select>
        </label>
      )}
    </div>
  );
}
