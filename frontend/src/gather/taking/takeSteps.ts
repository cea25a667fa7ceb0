import type { Step } from "../../api/types";

/** CSS selectors out of a field: one a line, or separated by commas outside brackets. */
export function splitSelectors(text: string): string[] {
  return text
    .split(/\n|,(?![^([]*[)\]])/)
    .map((part) => part.trim())
    .filter(Boolean);
}

export type StepKind = Step["kind"];

/** What each kind of step is called, and which of its two fields it has. */
export const STEP_KINDS: Record<StepKind, { words: string; target: boolean; text: string }> = {
  click: { words: "Click", target: true, text: "" },
  hover: { words: "Put the pointer on", target: true, text: "" },
  type: { words: "Type into", target: true, text: "the text" },
  press: { words: "Press the key", target: false, text: "Enter" },
  scroll: { words: "Scroll to", target: true, text: "" },
  wait_for: { words: "Wait until there is", target: true, text: "" },
  pause: { words: "Pause, in seconds", target: false, text: "1.5" },
};

/** The step as another kind, without what that kind does not have. */
export function stepAs(step: Step, kind: StepKind): Step {
  const has = STEP_KINDS[kind];
  return { kind, target: has.target ? step.target : "", text: has.text ? step.text : "" };
}
