import { useState } from "react";

import { formatPx } from "../parts/figures";
import { NumberInput } from "../parts/fields/NumberInput";
import { useBench, useCut } from "./benchContext";
import { setField, shownFrame } from "./cut/frameSteps";
import { fieldRange, type FrameField } from "./page/geometry/boxes";

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
  const { store } = useBench();
  const value = useCut((state) => shownFrame(state)[field]);
  const least = useCut((state) => fieldRange(state.document.frame, field, state.page).least);
  const greatest = useCut((state) => fieldRange(state.document.frame, field, state.page).greatest);
  const apply = (number: number | null) => {
    const done = number !== null && setField(store, field, Math.round(number));
    onProblem(done ? "" : `${name.replace(" in px", "")}: ${formatPx(least)} to ${formatPx(greatest)} px is possible here.`);
  };
  return (
    <label className="flex items-center gap-1 text-sm">
      <span className="text-info">{label}</span>
      <NumberInput
        name={name}
        field={field}
        size="w-[3.4rem] px-1 text-right @min-[46rem]:w-[4.6rem]"
        value={value}
        least={least}
        greatest={greatest}
        unclamped
        onCommit={apply}
        onForget={() => onProblem("")}
      />
    </label>
  );
}
