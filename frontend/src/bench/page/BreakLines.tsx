import type { KeyboardEvent } from "react";

import { isFitting } from "../../api/outlets";
import { useBench, useCut } from "../benchContext";
import { movedBreak } from "./geometry/leafBreaks";
import { lineStep } from "./lineKeys";

interface Props {
  /** CSS px for each page px. */
  scale: number;
  /** Whether the lines say which leaf begins there. */
  named: boolean;
}

/** Where the file in hand is divided. Lines can be dragged, or moved by the arrow keys. */
export function BreakLines({ scale, named }: Props) {
  const { inHand, breaks } = useBench();
  const frame = useCut((state) => state.document.frame);
  const { rows, show, send } = breaks;
  const nudge = (index: number) => (event: KeyboardEvent<HTMLDivElement>) => {
    const step = lineStep(event);
    if (step !== null) show(movedBreak([...rows], index, (rows[index] ?? 0) + step, frame));
  };
  return rows.map((y_px, index) => (
    <div
      key={index}
      role="slider"
      tabIndex={0}
      aria-label={`Break before leaf ${index + 2} of ${rows.length + 1}`}
      aria-orientation="vertical"
      aria-valuemin={frame.y_px}
      aria-valuemax={frame.y_px + frame.height_px}
      aria-valuenow={y_px}
      aria-disabled={inHand && isFitting(inHand)}
      data-break={index}
      className="group pointer-events-none absolute -inset-x-1 z-10 -mt-1.5 flex h-3 items-center"
      style={{ top: y_px * scale }}
      onKeyDown={nudge(index)}
      onKeyUp={() => send([...rows])}
      onBlur={() => send([...rows])}
    >
      <span className="block w-full border-t-2 border-dashed border-primary group-focus:border-accent" />
      {named && (
        <span className="figure absolute right-2 rounded-[2px] bg-primary px-1.5 text-xs text-primary-content">
          {index + 2} of {rows.length + 1}
        </span>
      )}
    </div>
  ));
}
