import { useState } from "react";

import { useDivide } from "../../api/outlets";
import type { Cut, Output } from "../../api/types";
import { showProblem } from "../../app/showProblem";
import type { CutStore } from "../cut/cutStore";
import { breaksOf } from "./geometry/leafBreaks";
import type { BreakMoves } from "./pointer/gestures";

/** Where the file in hand is divided, and moving that; no rows where it is not divided. */
export function useBreakMoves(output: Output | undefined, cut: Cut, store: CutStore): BreakMoves {
  const divide = useDivide(cut.id);
  const [moved, setMoved] = useState<{ of: string; rows: number[] } | null>(null);
  const made = output && !output.stale ? breaksOf(output) : [];
  // What was moved counts until the files are there that it asks for; the line in hand stays in hand.
  const key = output ? `${output.id} ${output.file_key}` : "";
  const rows = moved?.of === key ? moved.rows : made;
  const send = (wanted: number[]) => {
    if (!output || wanted.join() === made.join()) return;
    const first_px = store.getState().document.frame.y_px;
    divide.mutate(
      { outputId: output.id, leaf_count: null, breaks: wanted.map((y_px) => y_px - first_px) },
      { onError: showProblem },
    );
  };
  return { rows, show: (wanted) => setMoved({ of: key, rows: wanted }), send, forget: () => setMoved(null) };
}
