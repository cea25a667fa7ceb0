import { useState } from "react";

import { formatPx, parsePx } from "../parts/figures";
import { useBench, useCut } from "./benchContext";
import { setField, shownFrame } from "./cut/frameSteps";
import { fieldRange, type FrameField } from "./geometry";

const FIELDS: { field: FrameField; label: string; name: string }[] = [
  { field: "x_px", label: "x", name: "Left edge in px" },
  { field: "y_px", label: "y", name: "Upper edge in px" },
  { field: "width_px", label: "w", name: "Width in px" },
  { field: "height_px", label: "h", name: "Height in px" },
];

/** The frame as four numbers: read while dragging, typed when it must be exact. */
export function FrameFields() {
  const [problem, setProblem] = useState("");
  return (
    <div className="relative flex items-center gap-1.5 @min-[46rem]:gap-2" role="group" aria-label="Frame">
      {FIELDS.map((row) => (
        <FrameNumber key={row.field} {...row} onProblem={setProblem} />
      ))}
      {problem && (
        <p role="alert" className="absolute top-full left-0 z-20 mt-1 border border-error bg-base-100 px-2 py-1 text-sm whitespace-nowrap text-error">
          {problem}
        </p>
      )}
    </div>
  );
}

interface NumberProps {
  field: FrameField;
  label: string;
  name: string;
  onProblem: (words: string) => void;
}

function FrameNumber({ field, label, name, onProblem }: NumberProps) {
  const { store, capture } = useBench();
  const value = useCut((state) => shownFrame(state)[field]);
  const [typed, setTyped] = useState<string | null>(null);

  const apply = () => {
    if (typed === null) return;
    const number = parsePx(typed);
    const { least, greatest } = fieldRange(store.getState().document.frame, field, capture);
    if (number !== null && setField(store, field, number)) {
      onProblem("");
      setTyped(null);
    } else onProblem(`${name.replace(" in px", "")}: ${formatPx(least)} to ${formatPx(greatest)} px is possible here.`);
  };
  const leave = () => {
    apply();
    setTyped(null);
    if (typed === null || parsePx(typed) === store.getState().document.frame[field]) onProblem("");
  };
  return (
    <label className="flex items-center gap-1 text-sm">
      <span className="text-info">{label}</span>
      <input
        aria-label={name}
        data-field={field}
        inputMode="numeric"
        className="input input-xs figure w-[3.9rem] px-1.5 text-right @min-[46rem]:w-[4.6rem]"
        value={typed ?? String(value)}
        onChange={(event) => setTyped(event.target.value)}
        onFocus={(event) => event.target.select()}
        onBlur={leave}
        onKeyDown={(event) => {
          if (event.key === "Enter") apply();
          if (event.key === "Escape") {
            setTyped(null);
            onProblem("");
          }
          if (event.key === "ArrowUp" || event.key === "ArrowDown") {
            event.preventDefault();
            const step = (event.shiftKey ? 10 : 1) * (event.key === "ArrowUp" ? 1 : -1);
            setField(store, field, store.getState().document.frame[field] + step);
            setTyped(null);
          }
        }}
      />
    </label>
  );
}
