import { type PointerEvent, useRef, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";

import type { Output } from "../api/types";
import { type Band, movedSplit } from "./bands";
import { Layer } from "./Layer";

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
  const picture = useRef<HTMLDivElement>(null);
  const [split, setSplit] = useState(50);
  useHotkeys(
    "left,right,shift+left,shift+right",
    (event) => {
      event.preventDefault();
      const step = event.shiftKey ? FAR_STEP : STEP;
      setSplit((current) => movedSplit(current, event.key === "ArrowLeft" ? -step : step));
    },
    { enableOnFormTags: ["slider"] },
  );
  const drag = (event: PointerEvent) => {
    const box = picture.current?.getBoundingClientRect();
    if (box && event.buttons === 1) setSplit(movedSplit(((event.clientX - box.left) / box.width) * 100, 0));
  };
  const shown = flipped ? 100 : split;
  return (
    <div
      ref={picture}
      data-compare="split"
      className="seethrough absolute inset-0 cursor-ew-resize touch-none select-none"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        drag(event);
      }}
      onPointerMove={drag}
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
