import { useSyncExternalStore } from "react";

import { useBench, useCut } from "../../benchContext";
import { shownCut } from "../../cut/cutStore";
import type { ShownMark } from "../handling/hitMarks";

/** The marks as they can be shown now: drawn again whenever they change, or more of them is known. */
export function useShownMarks(): ShownMark[] {
  const { drawer } = useBench();
  const marks = useCut((state) => shownCut(state).marks);
  const styles = useCut((state) => shownCut(state).styles);
  useSyncExternalStore(drawer.subscribe, () => drawer.version);
  return drawer.show(marks, styles);
}
