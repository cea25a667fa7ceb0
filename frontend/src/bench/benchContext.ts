import { createContext, useContext } from "react";
import { useStore } from "zustand";

import type { CaptureDetail, Cut, Output } from "../api/types";
import type { FrameSaver, SaveState } from "./frameSaver";
import { type FrameState, type FrameStore } from "./frameStore";

export interface BenchState {
  capture: CaptureDetail;
  cut: Cut;
  frames: FrameStore;
  saver: FrameSaver;
  saveState: SaveState;
  outputs: Output[];
  /** The row of the ledger that is open: its leaves and weights are drawn along the page. */
  inHand: Output | undefined;
  open: (outputId: number) => void;
}

export const BenchContext = createContext<BenchState | null>(null);

export function useBench(): BenchState {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error("useBench needs a Bench around it");
  return bench;
}

export function useFrame<T>(select: (state: FrameState) => T): T {
  return useStore(useBench().frames, select);
}
