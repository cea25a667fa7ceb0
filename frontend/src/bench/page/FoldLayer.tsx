import { X } from "lucide-react";
import type { CSSProperties, KeyboardEvent } from "react";

import type { Fold, Frame } from "../../api/types";
import { formatPx } from "../../parts/figures";
import { NumberInput } from "../../parts/fields/NumberInput";
import { bandsOf, bottomOf, type FoldAxis, movedEdge } from "./geometry/folds";
import { useBench, useCut, usePage } from "../benchContext";
import { removeFold, setFold, shownFrame } from "../cut/frameSteps";
import { lineStep } from "./lineKeys";

/** The folds on the page: hatched bands whose edges can be dragged, nudged or typed. */
export function FoldLayer({ zoom }: { zoom: number }) {
  const frame = useCut(shownFrame);
  return (
    <>
      <Folds axis="across" frame={frame} zoom={zoom} />
      <Folds axis="down" frame={frame} zoom={zoom} />
    </>
  );
}

function Folds({ axis, frame, zoom }: { axis: FoldAxis; frame: Frame; zoom: number }) {
  const onItsWay = useCut((state) => state.preview !== null);
  const numbered = useCut((state) => state.document.frame.folds.length);
  return bandsOf(frame, axis).map((fold, index) => {
    // Both kinds are counted on.
    const props = { axis, fold, index, number: axis === "across" ? index + 1 : numbered + index + 1 };
    return (
      <div
        key={index}
        {...(axis === "across" ? { "data-fold": index } : { "data-fold-down": index })}
        className={`hatched pointer-events-none absolute z-[5] border-primary ${axis === "across" ? "border-y" : "border-x"}`}
        style={placeOf(axis, fold, frame, zoom)}
      >
        <FoldEdge {...props} edge="top" />
        <FoldEdge {...props} edge="bottom" />
        {!onItsWay && <FoldLabel {...props} />}
      </div>
    );
  });
}

function placeOf(axis: FoldAxis, fold: Fold, frame: Frame, zoom: number): CSSProperties {
  const thick = Math.max(2, fold.height_px * zoom);
  return axis === "across"
    ? { left: frame.x_px * zoom, width: frame.width_px * zoom, top: fold.top_px * zoom, height: thick }
    : { top: frame.y_px * zoom, height: frame.height_px * zoom, left: fold.top_px * zoom, width: thick };
}

interface FoldProps {
  axis: FoldAxis;
  fold: Fold;
  index: number;
  number: number;
}

const EDGES = {
  across: { top: { words: "Upper", place: "inset-x-0 h-3 -top-1.5" }, bottom: { words: "Lower", place: "inset-x-0 h-3 -bottom-1.5" } },
  down: { top: { words: "Left", place: "inset-y-0 w-3 -left-1.5" }, bottom: { words: "Right", place: "inset-y-0 w-3 -right-1.5" } },
};

function FoldEdge({ axis, fold, index, number, edge }: FoldProps & { edge: "top" | "bottom" }) {
  const { store } = useBench();
  const page = usePage();
  const at = edge === "top" ? fold.top_px : bottomOf(fold);
  const { words, place } = EDGES[axis][edge];
  const nudge = (event: KeyboardEvent<HTMLDivElement>) => {
    const step = lineStep(event, axis);
    if (step !== null) setFold(store, axis, index, movedEdge(fold, edge, at + step));
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={`${words} edge of fold ${number}`}
      aria-orientation={axis === "across" ? "vertical" : "horizontal"}
      aria-valuemin={0}
      aria-valuemax={axis === "across" ? page.height_px : page.width_px}
      aria-valuenow={at}
      data-fold-edge={`${axis} ${index} ${edge}`}
      className={`absolute focus-visible:bg-accent/50 ${place}`}
      onKeyDown={nudge}
    />
  );
}

const FIELDS = {
  across: { at: { label: "y", words: "Upper edge" }, size: { label: "h", words: "Height" } },
  down: { at: { label: "x", words: "Left edge" }, size: { label: "w", words: "Width" } },
};

function FoldLabel({ axis, fold, index, number }: FoldProps) {
  const { store } = useBench();
  const { at, size } = FIELDS[axis];
  // A narrow band has its label beside it; those of several stand below each other.
  const place = axis === "across" ? "top-2 right-2" : "left-1";
  return (
    <div
      className={`pointer-events-auto absolute flex items-center gap-2 rounded-[2px] bg-base-100 py-0.5 pr-0.5 pl-2 text-xs whitespace-nowrap shadow-sm ${place}`}
      style={axis === "down" ? { top: 8 + (index % 4) * 32 } : undefined}
      data-own-presses
    >
      Folded away
      <FoldNumber label={at.label} name={`${at.words} of fold ${number} in px`} value={fold.top_px} onNumber={(top_px) => setFold(store, axis, index, { ...fold, top_px })} />
      <FoldNumber label={size.label} name={`${size.words} of fold ${number} in px`} value={fold.height_px} onNumber={(height_px) => setFold(store, axis, index, { ...fold, height_px })} />
      <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Unfold ${formatPx(fold.height_px)} px`} title="Unfold" onClick={() => removeFold(store, axis, index)}>
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
