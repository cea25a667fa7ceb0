import { useState } from "react";

import { useMoveSeam } from "../api/joins";
import type { JoinSeam } from "../api/types";
import { showProblem } from "../app/showProblem";
import { Slide } from "../parts/fields/Slide";

interface SeamRowProps {
  joinId: number;
  seam: JoinSeam;
  isChosen: boolean;
  onChoose: () => void;
}

/** Where one piece goes over into the next; it can lie wherever both show the same. */
export function SeamRow({ joinId, seam, isChosen, onChoose }: SeamRowProps) {
  const [movingPx, setMovingPx] = useState<number | null>(null);
  const move = useMoveSeam(joinId);
  const atPx = movingPx ?? seam.at_px;
  const settle = (row: number) => move.mutate({ number: seam.number, at_px: row }, { onError: showProblem, onSettled: () => setMovingPx(null) });
  return (
    <li className={`my-1 ml-4 border-l-2 py-1 pl-3 text-sm ${isChosen ? "border-primary" : "border-base-300"}`} data-seam={seam.number}>
      <button type="button" className="underline" aria-pressed={isChosen} onClick={onChoose}>
        Seam at row {atPx.toLocaleString("en-GB")}
      </button>
      {seam.least_px < seam.most_px && (
        <Slide name={`Row of seam ${seam.number}`} value={atPx} least={seam.least_px} greatest={seam.most_px} onChange={setMovingPx} onSettle={settle} />
      )}
    </li>
  );
}
