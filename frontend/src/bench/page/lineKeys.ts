import type { KeyboardEvent } from "react";

const STEP_PX = 1;
const FAR_STEP_PX = 10;
const KEYS = { across: { ArrowUp: -1, ArrowDown: 1 }, down: { ArrowLeft: -1, ArrowRight: 1 } };

/** By how many px an arrow key moves a line that has the focus (Shift: ten times as far); null for other keys. */
export function lineStep(event: KeyboardEvent, axis: "across" | "down" = "across"): number | null {
  const towards = (KEYS[axis] as Record<string, number>)[event.key];
  if (towards === undefined) return null;
  event.preventDefault();
  event.stopPropagation();
  return (event.shiftKey ? FAR_STEP_PX : STEP_PX) * towards;
}
