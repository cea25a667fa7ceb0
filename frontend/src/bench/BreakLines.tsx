import { type KeyboardEvent, type PointerEvent, useState } from "react";

import { isFitting, useDivide } from "../api/outlets";
import { asProblem } from "../api/client";
import type { Output } from "../api/types";
import { useNotices } from "../app/notices";
import { useDragging } from "../parts/dragging";
import { breaksOf, movedBreak } from "./leafBreaks";
import { useBench, useCut } from "./benchContext";

interface Props {
  /** CSS px for each page px. */
  scale: number;
  /** Whether the lines say which leaf begins there. */
  named: boolean;
}

const STEP_PX = 1;
const FAR_STEP_PX = 10;

/** Where the file in hand is divided. Lines can be dragged, or moved by the arrow keys. */
export function BreakLines(props: Props) {
  const { inHand } = useBench();
  if (!inHand || inHand.leaves.length < 2 || inHand.stale) return null;
  return <Lines key={inHand.id} output={inHand} {...props} />;
}

function Lines({ output, scale, named }: Props & { output: Output }) {
  const frame = useCut((state) => state.document.frame);
  const divide = useDivide(output.cut_id);
  const show = useNotices((state) => state.show);
  const made = breaksOf(output);
  const [moved, setMovedOf] = useState<{ of: string; breaks: number[] } | null>(null);
  // What was moved counts until the files are there that it asks for; the line in hand stays in hand.
  const breaks = moved?.of === output.file_key ? moved.breaks : made;
  const setMoved = (wanted: number[]) => setMovedOf({ of: output.file_key, breaks: wanted });

  const send = (wanted: number[]) => {
    if (wanted.join() === made.join()) return;
    divide.mutate(
      { outputId: output.id, leaf_count: null, breaks: wanted.map((y_px) => y_px - frame.y_px) },
      { onError: (error) => show({ tone: "error", text: asProblem(error).sentence, hint: asProblem(error).hint }) },
    );
  };
  const dragging = useDragging();
  const press = (index: number) => (event: PointerEvent<HTMLDivElement>) => {
    const line = event.currentTarget;
    const at = (y: number) => movedBreak(breaks, index, (y - (line.parentElement?.getBoundingClientRect().top ?? 0)) / scale, frame);
    dragging.begin(event, {
      onMove: ({ y }) => setMoved(at(y)),
      onDrop: ({ y }, moved) => moved && send(at(y)),
      onCancel: () => setMovedOf(null),
    });
    line.focus({ preventScroll: true });
  };
  const nudge = (index: number) => (event: KeyboardEvent<HTMLDivElement>) => {
    if (event.key !== "ArrowUp" && event.key !== "ArrowDown") return;
    event.preventDefault();
    event.stopPropagation();
    const step = (event.shiftKey ? FAR_STEP_PX : STEP_PX) * (event.key === "ArrowUp" ? -1 : 1);
    setMoved(movedBreak(breaks, index, (breaks[index] ?? 0) + step, frame));
  };
  return (
    <>
      {breaks.map((y_px, index) => (
        <div
          key={index}
          role="slider"
          tabIndex={0}
          aria-label={`Break before leaf ${index + 2} of ${breaks.length + 1}`}
          aria-orientation="vertical"
          aria-valuemin={frame.y_px}
          aria-valuemax={frame.y_px + frame.height_px}
          aria-valuenow={y_px}
          aria-disabled={isFitting(output)}
          data-break={index}
          title="Drag to divide elsewhere"
          className="group absolute -inset-x-1 z-10 -mt-1.5 flex h-3 cursor-ns-resize touch-none items-center"
          style={{ top: y_px * scale }}
          onPointerDown={press(index)}
          onKeyDown={nudge(index)}
          onKeyUp={() => send(breaks)}
          onBlur={() => send(breaks)}
        >
          <span className="block w-full border-t-2 border-dashed border-primary group-focus:border-accent" />
          {named && (
            <span className="figure absolute right-2 rounded-[2px] bg-primary px-1.5 text-xs text-primary-content">
              {index + 2} of {breaks.length + 1}
            </span>
          )}
        </div>
      ))}
    </>
  );
}
