import type { ReactNode } from "react";

import type { CaptureDetail, Cut, CutDocument } from "../api/types";
import { BenchContext, type BenchState } from "../bench/benchContext";
import type { CutSaver, SaveState } from "../bench/cut/cutSaver";
import { createCutStore } from "../bench/cut/cutStore";
import { wholeFrame } from "../bench/page/geometry/boxes";
import { withFolds } from "../bench/page/geometry/folds";
import { show } from "./show";

export const PAGE = { width_px: 600, height_px: 1_500 };
export const WHOLE: CutDocument = { version: 1, hidden: [], sought: [], marks: [], styles: {}, frame: withFolds(wholeFrame(PAGE), []) };

interface Given {
  saveState?: SaveState;
  saver?: Partial<CutSaver>;
  /** Names of the page's cuts; the first is in hand. */
  cuts?: string[];
}

/** Show a part of the Bench with a page of 600 × 1,500 px on it. */
export function showOnBench(part: ReactNode, { saveState = { kind: "saved" }, saver = {}, cuts = ["Cut 1"] }: Given = {}) {
  const rows: Cut[] = cuts.map((name, at) => ({ id: at + 1, capture_id: 7, name, version: 1, document: WHOLE, changed_by: "", review: [] }));
  const capture = { id: 7, name: "Timetable", ...PAGE, cuts: rows, warnings: [], left_out: [], whole: true, lacking: [] } as unknown as CaptureDetail;
  const store = createCutStore(PAGE, WHOLE);
  const working = { flush: () => Promise.resolve(), resolve: () => undefined, ...saver };
  const bench = { capture, cut: rows[0], store, saver: working, saveState, outputs: [], inHand: undefined, open: () => undefined } as unknown as BenchState;
  return { store, ...show(<BenchContext value={bench}>{part}</BenchContext>) };
}
