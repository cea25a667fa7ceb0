import { useState } from "react";

import { formatPx } from "../parts/figures";
import { NumberInput } from "../parts/fields/NumberInput";
import { useBench, useCut } from "./benchContext";
import { setField, shownFrame } from "./cut/frameSteps";
import type { CutState } from "./cut/cutStore";
import { fromCorner, placeFrom } from "./page/geometry/shapes";
import { useShape } from "./shape/shape";
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
  const corner = useShape((state) => state.corner);
  const placed = field === "x_px" || field === "y_px";
  const value = useCut((state) => (placed ? fromCorner(shownFrame(state), corner, state.page)[field] : shownFrame(state)[field]));
  const ends = (state: CutState) => {
    const { least, greatest } = fieldRange(state.document.frame, field, state.page);
    if (!placed) return [least, greatest] as const;
    const at = (place: number) => fromCorner({ ...state.document.frame, [field]: place }, corner, state.page)[field];
    return [Math.min(at(least), at(greatest)), Math.max(at(least), at(greatest))] as const;
  };
  const least = useCut((state) => ends(state)[0]);
  const greatest = useCut((state) => ends(state)[1]);
  const apply = (number: number | null) => {
    const { document, page } = store.getState();
    const whole = number === null ? null : Math.round(number);
    const place = whole !== null && placed ? placeFrom(field, whole, document.frame, corner, page) : whole;
    const done = place !== null && setField(store, field, place);
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
