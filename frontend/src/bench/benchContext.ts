import { createContext, useContext } from "react";
import { useStore } from "zustand";

import { orientationText, preparationText } from "../api/prepared";
import type { CaptureDetail, Cut, Output } from "../api/types";
import type { CutSaver, SaveState } from "./cut/cutSaver";
import type { CutState, CutStore, Page } from "./cut/cutStore";
import type { MarkDrawer } from "./marks/drawing/markDrawer";
import type { BreakMoves } from "./page/pointer/gestures";

export interface BenchState {
  capture: CaptureDetail;
  cut: Cut;
  /** The cut in hand with its history. */
  store: CutStore;
  saver: CutSaver;
  saveState: SaveState;
  outputs: Output[];
  /** The row of the ledger that is open: its leaves and weights are drawn along the page. */
  inHand: Output | undefined;
  open: (outputId: number) => void;
  /** What the cut's marks look like. */
  drawer: MarkDrawer;
  /** Where its file is divided. */
  breaks: BreakMoves;
}

export const BenchContext = createContext<BenchState | null>(null);

export function useBench(): BenchState {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error("useBench needs a Bench around it");
  return bench;
}

export function useCut<T>(select: (state: CutState) => T): T {
  return useStore(useBench().store, select);
}

/** The page as the cut turns it. */
export function usePage(): Page {
  return useCut((state) => state.page);
}

/** How the page is turned, for what is asked of the server about its places. */
export function useOrientation(): string {
  return useCut((state) => orientationText(state.document));
}

/** How the page is turned and cleared, for pictures of it. */
export function usePreparation(): string {
  return useCut((state) => preparationText(state.document));
}
