import { Ruler } from "lucide-react";

import { titled } from "../../app/actions/registry";
import { useBench, useCut } from "../benchContext";

/** Takes the ruler in hand, or lays it aside; what it measured stays. */
export function RulerButton() {
  const { store } = useBench();
  const measuring = useCut((state) => state.tool.kind === "ruler");
  return (
    <button
      type="button"
      className={`btn btn-xs ${measuring ? "btn-neutral" : ""}`}
      aria-pressed={measuring}
      title={titled("measure", "Measure: drag from one point to another; a press takes the rulers away")}
      onClick={() => store.setTool({ kind: measuring ? "frame" : "ruler" })}
    >
      <Ruler size={14} aria-hidden /> <span className="@max-[56rem]:sr-only">Ruler</span>
    </button>
  );
}
