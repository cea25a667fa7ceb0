import { X } from "lucide-react";
import type { KeyboardEvent } from "react";

import type { Fold } from "../../api/types";
import { formatPx } from "../../parts/figures";
import { NumberInput } from "../../parts/fields/NumberInput";
import { bottomOf, movedEdge } from "./geometry/folds";
import { useBench, useCut, usePage } from "../benchContext";
import { removeFold, setFold, shownFrame } from "../cut/frameSteps";
import { lineStep } from "./lineKeys";

/** The folds on the page: hatched bands whose edges can be dragged, nudged or typed. */
export function FoldLayer({ zoom }: { zoom: number }) {
  const frame = useCut(shownFrame);
  const onItsWay = useCut((state) => state.preview !== null);
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
      <FoldEdge fold={fold} index={index} edge="top" />
      <FoldEdge fold={fold} index={index} edge="bottom" />
      {!onItsWay && <FoldLabel fold={fold} index={index} />}
    </div>
  ));
}

interface FoldProps {
  fold: Fold;
  index: number;
}

function FoldEdge({ fold, index, edge }: FoldProps & { edge: "top" | "bottom" }) {
  const { store } = useBench();
  const page = usePage();
  const at = edge === "top" ? fold.top_px : bottomOf(fold);
  const nudge = (event: KeyboardEvent<HTMLDivElement>) => {
    const step = lineStep(event);
    if (step !== null) setFold(store, index, movedEdge(fold, edge, at + step));
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={`${edge === "top" ? "Upper" : "Lower"} edge of fold ${index + 1}`}
      aria-orientation="vertical"
      aria-valuemin={0}
      aria-valuemax={page.height_px}
      aria-valuenow={at}
      data-fold-edge={`${index} ${edge}`}
      className={`absolute inset-x-0 h-3 focus-visible:bg-accent/50 ${edge === "top" ? "-top-1.5" : "-bottom-1.5"}`}
      onKeyDown={nudge}
    />
  );
}

function FoldLabel({ fold, index }: FoldProps) {
  const { store } = useBench();
  return (
    <div className="pointer-events-auto absolute top-2 right-2 flex items-center gap-2 rounded-[2px] bg-base-100 py-0.5 pr-0.5 pl-2 text-xs shadow-sm" data-own-presses>
      Folded away
      <FoldNumber label="y" name={`Upper edge of fold ${index + 1} in px`} value={fold.top_px} onNumber={(top_px) => setFold(store, index, { ...fold, top_px })} />
      <FoldNumber label="h" name={`Height of fold ${index + 1} in px`} value={fold.height_px} onNumber={(height_px) => setFold(store, index, { ...fold, height_px })} />
      <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Unfold ${formatPx(fold.height_px)} px`} title="Unfold" onClick={() => removeFold(store, index)}>
        <X size={13} aria-hidden />
      </button>
    </div>
  );
}

function FoldNumber({ label, name, value, onNumber }: { label: string; name: string; value: number; onNumber: (value: number) => void }) {
  return (
    <label className="flex items-center gap-1">
      <span className="text-info">{label}</span>
      <NumberInput
        name={name}
        value={value}
        least={0}
        size="w-16 text-right"
        onCommit={(number) => {
          if (number !== null && number !== value) onNumber(Math.round(number));
        }}
      />
    </label>
  );
}
