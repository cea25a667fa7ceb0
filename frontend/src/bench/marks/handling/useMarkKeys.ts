import type { MarkKind } from "../../../api/types";
import { useAction } from "../../../app/actions/useAction";
import type { CutStore } from "../../cut/cutStore";
import { copyMarks, duplicateSelected, pasteMarks, removeSelected } from "../markSteps";

/** The Bench's keys for pointing and hiding. Those that draw go to their stage by themselves. */
export function useMarkKeys(store: CutStore): void {
  const draw = (kind: MarkKind) => (event: KeyboardEvent) => {
    if (event.repeat) return;
    if (store.getState().stage !== "point") store.setStage("point");
    store.setTool({ kind: "mark", mark: kind });
  };
  useAction("drawArrow", draw("arrow"));
  useAction("drawText", draw("text"));
  useAction("putNumber", draw("badge"));
  useAction("drawBox", draw("box"));
  useAction("drawEllipse", draw("ellipse"));
  useAction("drawLine", draw("line"));
  useAction("drawHighlighter", draw("highlighter"));
  useAction("drawPen", draw("pen"));
  useAction("putSticker", draw("sticker"));
  useAction("dimRest", draw("dim"));
  const pointing = (run: () => void) => (event: KeyboardEvent) => {
    if (store.getState().stage !== "point") return;
    event.preventDefault();
    run();
  };
  useAction("allMarks", pointing(() => store.select(store.getState().document.marks.map((mark) => mark.id))));
  useAction("copyMarks", pointing(() => copyMarks(store)));
  useAction("pasteMarks", pointing(() => pasteMarks(store)));
  useAction("duplicate", pointing(() => duplicateSelected(store)));
  useAction("removeMark", (event) => {
    if (store.getState().selected.length === 0) return;
    event.preventDefault();
    removeSelected(store);
  });
}
