import type { MouseEvent } from "react";

import type { Capture } from "../api/types";
import { CaptureCard } from "./CaptureCard";
import { pressed, useChosen } from "./choosing/chosen";
import { draggedCaptures } from "./choosing/draggedCaptures";

interface Props {
  capture: Capture;
  /** All that are shown, in order: a press with Shift chooses up to this one. */
  shown: readonly number[];
}

/** A capture that can be chosen: by its box, or by a press anywhere with Ctrl or Shift. */
export function ShelfCard({ capture, shown }: Props) {
  const chosen = useChosen((state) => state.ids.has(capture.id));
  const any = useChosen((state) => state.ids.size > 0);
  const { toggle } = useChosen.getState();
  const press = (event: MouseEvent) => pressed(event, capture.id, shown);
  return (
    <div className={`group/card relative ${chosen ? "outline-2 outline-offset-4 outline-accent" : ""}`} data-chosen={chosen} draggable onDragStart={(event) => draggedCaptures.begin(event, chosen ? [...useChosen.getState().ids] : [capture.id])} onClickCapture={press}>
      <label className={`absolute top-1 left-1 z-10 flex h-8 w-8 items-center justify-center bg-base-100/90 ${any || chosen ? "" : "opacity-0 group-focus-within/card:opacity-100 group-hover/card:opacity-100"}`}>
        <input type="checkbox" className="checkbox checkbox-sm" checked={chosen} aria-label={`Choose ${capture.name}`} onChange={() => toggle(capture.id)} />
      </label>
      <CaptureCard capture={capture} />
      {!capture.rights.cleared && <p className="mt-1 border-l-2 border-accent pl-1 text-xs">Rights: {capture.rights.words}</p>}
      {capture.labels.length > 0 && (
        <p className="mt-1 flex flex-wrap gap-1 text-xs" aria-label="Labels">
          {capture.labels.map((label) => (
            <span key={label} className="border border-base-content/60 px-1">
              {label}
            </span>
          ))}
        </p>
      )}
    </div>
  );
}
