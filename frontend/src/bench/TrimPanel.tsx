import { Crop } from "lucide-react";

import { trimmedBox } from "../api/cuts";
import { preparationText } from "../api/prepared";
import type { Side } from "../api/types";
import { useAction } from "../app/actions/useAction";
import { titled } from "../app/actions/registry";
import { useNotices } from "../app/notices";
import { showProblem } from "../app/showProblem";
import { Panel } from "../parts/Panel";
import { useBench } from "./benchContext";
import { setFrame } from "./cut/frameSteps";
import { sameArea } from "./page/geometry/boxes";

const ALL: Side[] = ["top", "right", "bottom", "left"];
const EDGES: [Side, string][] = [
  ["top", "Above"],
  ["bottom", "Below"],
  ["left", "On the left"],
  ["right", "On the right"],
];

/** Leave the plain edges of the frame out: all four at once, or one. */
export function TrimPanel() {
  const { store, capture } = useBench();
  const show = useNotices((state) => state.show);
  const trim = async (sides: Side[]) => {
    const { x_px, y_px, width_px, height_px } = store.getState().document.frame;
    const box = { x_px, y_px, width_px, height_px };
    try {
      const inner = await trimmedBox(capture.id, box, sides, preparationText(store.getState().document));
      // The frame may have been moved meanwhile: what was found is of where it was.
      if (!sameArea(store.getState().document.frame, box)) return;
      if (sameArea(inner, box)) show({ tone: "info", text: sides.length > 1 ? "There are no plain edges here." : "There is no plain edge on this side." });
      else setFrame(store, "plain edges trimmed", inner);
    } catch (error) {
      showProblem(error);
    }
  };
  useAction("trim", (event) => {
    if (!event.repeat) void trim(ALL);
  });
  return (
    <Panel
      name="Trim plain edges"
      side="left"
      size="w-60"
      button="btn-xs"
      label={
        <>
          <Crop size={14} aria-hidden /> Trim
        </>
      }
    >
      <button type="button" className="btn btn-sm w-full" title={titled("trim")} onClick={() => void trim(ALL)}>
        All plain edges
      </button>
      <div className="mt-2 grid grid-cols-2 gap-1">
        {EDGES.map(([side, words]) => (
          <button key={side} type="button" className="btn btn-xs" onClick={() => void trim([side])}>
            {words}
          </button>
        ))}
      </div>
    </Panel>
  );
}
