import type { KeyboardEvent } from "react";

const STEP_PX = 1;
const FAR_STEP_PX = 10;

/** By how many px an arrow key moves a line that has the focus (Shift: ten times as far); null for other keys. */
export function lineStep(event: KeyboardEvent): number | null {
  if (event.key !== "ArrowUp" && event.key !== "ArrowDown") return null;
  event.preventDefault();
  event.stopPropagation();
  return (event.shiftKey ? FAR_STEP_PX : STEP_PX) * (event.key === "ArrowUp" ? -1 : 1);
}
