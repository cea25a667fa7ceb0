import { useHotkeys } from "react-hotkeys-hook";

import type { FrameStore } from "./frameStore";
import { sameArea, wholeFrame } from "./geometry";
import type { ZoomMode } from "./zoom";

const STEPS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

interface Actions {
  onMode: (mode: ZoomMode) => void;
  onNewCut: () => void;
}

/** The Bench's keys for looking and cutting. They rest while somebody types in a field. */
export function useBenchKeys(frames: FrameStore, { onMode, onNewCut }: Actions): void {
  const arrows = "left,right,up,down";
  const all = [arrows, ...["shift", "alt", "alt+shift"].map((held) => arrows.replace(/\w+/g, `${held}+$&`))].join(",");
  useHotkeys(all, (event) => {
    const { frame, page, nudge, stretch } = frames.getState();
    const step = STEPS[event.key];
    if (!step) return;
    // A frame around everything cannot move: the arrows scroll then, as they do anywhere.
    if (sameArea(frame, wholeFrame(page)) && !event.altKey) return;
    event.preventDefault();
    const far = event.shiftKey ? 10 : 1;
    const [dx, dy] = [step[0] * far, step[1] * far];
    if (event.altKey) stretch({ x: dx === 0 ? 0 : 1, y: dy === 0 ? 0 : 1 }, dx, dy);
    else nudge(dx, dy);
  });
  useHotkeys("mod+z", () => frames.temporal.getState().undo(), { preventDefault: true });
  useHotkeys("mod+shift+z,mod+y", () => frames.temporal.getState().redo(), { preventDefault: true });
  useHotkeys("w", () => frames.getState().frameAll());
  useHotkeys("f", (event) => {
    if (!event.repeat) frames.getState().setFolding(!frames.getState().folding);
  });
  useHotkeys("escape", () => frames.getState().setFolding(false));
  useHotkeys("n", (event) => {
    if (!event.repeat) onNewCut();
  });
  useHotkeys("0", () => onMode("fit"));
  useHotkeys("1", () => onMode("1"));
  useHotkeys("2", () => onMode("2"));
}
