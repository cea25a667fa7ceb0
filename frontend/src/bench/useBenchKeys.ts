import { useAction } from "../app/actions/useAction";
import type { CutStore } from "./cut/cutStore";
import { frameAll, isWhole, nudge, stretch } from "./cut/frameSteps";
import { useMarkKeys } from "./marks/handling/useMarkKeys";
import { hiddenInHand, nudgeHidden } from "./marks/hiding/hideSteps";
import { free, nudgeMarks } from "./marks/markSteps";
import type { ZoomMode } from "./page/geometry/zoom";
import { STAGES } from "./StagePick";

const STEPS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

interface Actions {
  onZoom: (mode: ZoomMode) => void;
  onStep: (towards: 1 | -1) => void;
  onNewCut: () => void;
}

/** The Bench's keys for looking and cutting. They rest while somebody types in a field. */
export function useBenchKeys(store: CutStore, { onZoom, onStep, onNewCut }: Actions): void {
  const byArrows = (change: (dx: number, dy: number) => void) => (event: KeyboardEvent) => {
    const step = STEPS[event.key];
    if (!step) return;
    event.preventDefault();
    const far = event.shiftKey ? 10 : 1;
    change(step[0] * far, step[1] * far);
  };
  const move = byArrows((dx, dy) => nudge(store, dx, dy));
  useAction("nudge", (event) => {
    const { document, page, stage } = store.getState();
    if (stage === "point") {
      if (free(store).length > 0) byArrows((dx, dy) => nudgeMarks(store, dx, dy))(event);
      return;
    }
    if (stage === "hide") {
      if (hiddenInHand(store)) byArrows((dx, dy) => nudgeHidden(store, dx, dy))(event);
      return;
    }
    if (stage !== "part") return;
    // A frame around everything cannot move: the arrows scroll then, as they do anywhere.
    if (!isWhole(document.frame, page)) move(event);
  });
  useAction(
    "stretch",
    byArrows((dx, dy) => stretch(store, { x: dx === 0 ? 0 : 1, y: dy === 0 ? 0 : 1 }, dx, dy)),
  );
  useMarkKeys(store);
  useAction("undo", store.undo, { preventDefault: true });
  useAction("redo", store.redo, { preventDefault: true });
  useAction("wholePage", () => frameAll(store));
  useAction("fold", (event) => {
    if (event.repeat) return;
    const folding = store.getState().tool.kind === "fold";
    if (store.getState().stage !== "part") store.setStage("part");
    store.setTool(folding ? { kind: "frame" } : { kind: "fold", axis: "across" });
  });
  useAction("measure", (event) => {
    if (event.repeat) return;
    const measuring = store.getState().tool.kind === "ruler";
    if (store.getState().stage !== "part") store.setStage("part");
    store.setTool({ kind: measuring ? "frame" : "ruler" });
  });
  useAction("layAside", () => {
    // What is open is closed by it first.
    if (document.querySelector("[role=dialog]")) return;
    const { stage, tool } = store.getState();
    if (stage === "part") store.setTool({ kind: "frame" });
    // First what is drawn with, then what is in hand.
    else if (tool.kind === "mark") store.setTool({ kind: "select" });
    else store.select([]);
  });
  const walkStages = (by: -1 | 1) => () => {
    const at = STAGES.findIndex((row) => row.stage === store.getState().stage);
    const next = STAGES[at + by];
    if (next) store.setStage(next.stage);
  };
  useAction("stageBefore", walkStages(-1));
  useAction("stageNext", walkStages(1));
  useAction("newCut", (event) => {
    if (!event.repeat) onNewCut();
  });
  useAction("fitWidth", () => onZoom("fit"));
  useAction("fitPage", () => onZoom("whole"));
  useAction("actual", () => onZoom(1));
  useAction("double", () => onZoom(2));
  useAction("closer", () => onStep(1));
  useAction("farther", () => onStep(-1));
}
