import { ArrowUp, Plus, X } from "lucide-react";

import type { Step } from "../../api/types";
import { TargetField } from "./howParts";
import { useTakeSettings } from "./takeSettings";
import { STEP_KINDS, stepAs, type StepKind } from "./takeSteps";

const MOST_STEPS = 20;

/** What is done on the page before its picture, in order. */
export function StepsEditor() {
  const { settings, change } = useTakeSettings();
  const steps = settings.steps;
  const put = (index: number, step: Step) => change({ steps: steps.map((row, at) => (at === index ? step : row)) });
  const raise = (index: number) => {
    const before = steps[index - 1];
    const step = steps[index];
    if (before && step) change({ steps: [...steps.slice(0, index - 1), step, before, ...steps.slice(index + 1)] });
  };
  return (
    <div className="space-y-1.5">
      <ol className="space-y-1.5">
        {steps.map((step, index) => (
          <li key={index} className="flex items-center gap-2" data-step={index}>
            <span className="figure w-4 text-right">{index + 1}</span>
            <select
              className="select select-xs w-40 shrink-0"
              aria-label={`What step ${index + 1} does`}
              value={step.kind}
              onChange={(event) => put(index, stepAs(step, event.target.value as StepKind))}
            >
              {Object.entries(STEP_KINDS).map(([kind, { words }]) => (
                <option key={kind} value={kind}>
                  {words}
                </option>
              ))}
            </select>
            {STEP_KINDS[step.kind].target && (
              <TargetField label={`On what, step ${index + 1}`} value={step.target} onChange={(target) => put(index, { ...step, target })} />
            )}
            {STEP_KINDS[step.kind].text && (
              <input
                className="input input-xs figure min-w-0 flex-1"
                aria-label={`What, step ${index + 1}`}
                placeholder={STEP_KINDS[step.kind].text}
                value={step.text}
                onChange={(event) => put(index, { ...step, text: event.target.value })}
              />
            )}
            <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Move step ${index + 1} up`} title="Earlier" disabled={index === 0} onClick={() => raise(index)}>
              <ArrowUp size={14} aria-hidden />
            </button>
            <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Remove step ${index + 1}`} title="Remove" onClick={() => change({ steps: steps.filter((_, at) => at !== index) })}>
              <X size={14} aria-hidden />
            </button>
          </li>
        ))}
      </ol>
      {steps.length < MOST_STEPS && (
        <button type="button" className="btn btn-xs" onClick={() => change({ steps: [...steps, { kind: "click", target: "", text: "" }] })}>
          <Plus size={14} aria-hidden /> Add a step
        </button>
      )}
    </div>
  );
}
