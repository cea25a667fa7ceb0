import { Maximize } from "lucide-react";

import { titled } from "../app/actions/registry";
import { useBench, useCut } from "./benchContext";
import { frameAll, isWhole } from "./cut/frameSteps";
import { FrameFields } from "./FrameFields";

/** Which part of the page is shown: the frame in numbers, the whole page. */
export function PartTools() {
  const { store } = useBench();
  const whole = useCut((state) => isWhole(state.document.frame, state.page));
  return (
    <>
      <FrameFields />
      <button type="button" className="btn btn-xs" title={titled("wholePage")} disabled={whole} onClick={() => frameAll(store)}>
        <Maximize size={14} aria-hidden /> <span className="@max-[46rem]:sr-only">Whole page</span>
      </button>
    </>
  );
}
