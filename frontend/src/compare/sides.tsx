import { type PointerEvent, useState } from "react";

import { useAction } from "../app/actions/useAction";
import type { Output } from "../api/types";
import { type Band, movedSplit } from "./bands";
import { Layer } from "./Layer";
import { useDragging } from "../parts/dragging";

const STEP = 1;
const FAR_STEP = 10;

interface Props {
  output: Output;
  bands: Band[];
  scale: number;
}

export function Original(props: Props) {
  return (
    <div data-compare="original" className="seethrough absolute inset-0 select-none">
      <Layer {...props} side="original" />
    </div>
  );
}

export function Result(props: Props) {
  return (
    <div data-compare="result" className="seethrough absolute inset-0 select-none">
      <Layer {...props} side="result" />
    </div>
  );
}

/** Black where nothing differs. */
export function Difference(props: Props) {
  return (
    <div data-compare="difference" className="absolute inset-0 bg-black select-none">
      <Layer {...props} side="difference" />
    </div>
  );
}

/** Two layers of the same picture; the split decides how much of the upper one is seen. */
export function Split({ flipped, ...side }: Props & { flipped: boolean }) {
  const [split, setSplit] = useState(50);
  useAction(
    "moveSplit",
    (event) => {
      event.preventDefault();
      const step = event.shiftKey ? FAR_STEP : STEP;
      setSplit((current) => movedSplit(current, event.key === "ArrowLeft" ? -step : step));
    },
    { enableOnFormTags: ["slider"] },
  );
  const dragging = useDragging();
  const press = (event: PointerEvent) => {
    const box = event.currentTarget.getBoundingClientRect();
    const splitAt = (x: number) => setSplit(movedSplit(((x - box.left) / box.width) * 100, 0));
    dragging.begin(event, { onMove: (at) => splitAt(at.x) });
    if (event.button === 0) splitAt(event.clientX);
  };
  const shown = flipped ? 100 : split;
  return (
    <div
      data-compare="split"
      className="seethrough absolute inset-0 cursor-ew-resize touch-none select-none"
      onPointerDown={press}
    >
      <Layer {...side} side="result" />
      <div className="absolute inset-0 overflow-hidden bg-base-200" style={{ clipPath: `inset(0 ${100 - shown}% 0 0)` }}>
        <Layer {...side} side="original" />
      </div>
      <div
        role="slider"
        tabIndex={0}
        aria-label="Split between original and result"
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round(split)}
        className="absolute inset-y-0 w-0.5 bg-neutral outline outline-base-100"
        style={{ left: `${split}%` }}
      />
    </div>
  );
}
