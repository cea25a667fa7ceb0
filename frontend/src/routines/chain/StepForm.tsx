import { ArrowLeft, ArrowRight, Copy, MessageCircleQuestion, Trash2 } from "lucide-react";

import type { RoutineDocument, RoutineStep } from "../../api/types";
import { Pick } from "../../parts/fields/Pick";
import { FieldInput } from "./FieldInput";
import { hasKeptParts, KeptParts } from "./KeptParts";
import { type Field, kindOf } from "./stepKinds";
import { asking, duplicated, isAskable, mayMove, moved, replaced, withoutStep, withValue } from "./steps";

const IF_MISSING = { skip: "the picture is left out", whole: "the step is passed over", stop: "the whole run ends" };

interface Props {
  document: RoutineDocument;
  at: number;
  /** The routine from now on, and which of its steps is in hand then. */
  onChange: (document: RoutineDocument, at: number | null) => void;
}

/** What the step in hand does, and what can be done with it. */
export function StepForm({ document, at, onChange }: Props) {
  const step = document.steps[at];
  if (!step) return null;
  const kind = kindOf(step);
  const set = (next: RoutineStep) => onChange(replaced(document, at, next), at);
  const shown = kind.fields.filter((field) => field.when?.(step) ?? true);
  return (
    <section aria-label={`Step ${at + 1}: ${kind.words}`} className="text-sm">
      <div className="mb-3 flex flex-wrap items-center gap-1">
        <h2 className="mr-auto text-base font-semibold">
          <span className="figure mr-2 font-normal text-info">{at + 1}</span>
          {kind.words}
        </h2>
        <label className="mr-2 flex items-center gap-2">
          <input type="checkbox" className="toggle toggle-sm" checked={!step.off} onChange={(event) => set(withValue(step, "off", event.target.checked ? undefined : true))} />
          {step.off ? "Off" : "On"}
        </label>
        <Tool name="Move this step one place earlier" icon={ArrowLeft} disabled={!mayMove(document, at, -1)} onPress={() => onChange(moved(document, at, -1), at - 1)} />
        <Tool name="Move this step one place later" icon={ArrowRight} disabled={!mayMove(document, at, 1)} onPress={() => onChange(moved(document, at, 1), at + 1)} />
        <Tool name="Duplicate this step" icon={Copy} disabled={["take", "turn", "clear", "outline", "out"].includes(step.kind)} onPress={() => onChange(duplicated(document, at), at + 1)} />
        <Tool name="Remove this step" icon={Trash2} disabled={false} onPress={() => onChange(withoutStep(document, at), null)} />
      </div>
      {shown.length === 0 && !hasKeptParts(step) && <p className="mb-3">{kind.fresh ? "There is nothing to say about it." : "It was kept from a cut. What it holds is drawn on the Bench; here it can be switched off, moved or removed."}</p>}
      <KeptParts step={step} onChange={set} />
      <div className="grid gap-x-5 gap-y-3 sm:grid-cols-2">
        {shown.map((field) => (
          <div key={`${at}-${field.path}`} className={field.kind === "block" || field.kind === "formats" || field.kind === "sides" ? "contents" : "flex items-end gap-1"}>
            <div className={field.kind === "block" || field.kind === "formats" || field.kind === "sides" ? "contents" : "min-w-0 flex-1"}>
              <FieldInput field={field} step={step} onChange={(value) => set(withValue(step, field.path, value))} />
            </div>
            {isAskable(step, field.path) && <AskButton field={field} step={step} onChange={set} />}
          </div>
        ))}
      </div>
      {kind.ruled && (
        <fieldset className="mt-4 border-t border-base-300 pt-3">
          <legend className="sr-only">Where it finds nothing</legend>
          <p className="mb-1">Where it finds nothing,</p>
          <Pick name={`missing-${at}`} value={step.if_missing ?? "skip"} options={IF_MISSING} onPick={(value) => set(withValue(step, "if_missing", value))} />
        </fieldset>
      )}
    </section>
  );
}

/** Whether a value is asked for each time that the routine runs. */
function AskButton({ field, step, onChange }: { field: Field; step: RoutineStep; onChange: (step: RoutineStep) => void }) {
  const asked = (step.ask ?? []).some((row) => row.field === field.path);
  return (
    <button
      type="button"
      aria-pressed={asked}
      aria-label={`Ask for “${field.words}” when it runs`}
      title={asked ? "Asked for each time it runs; press to keep it as it is" : "Ask for it each time it runs"}
      className={`btn btn-square btn-ghost btn-sm ${asked ? "text-accent" : "opacity-60"}`}
      onClick={() => onChange(asking(step, field.path, field.words, !asked))}
    >
      <MessageCircleQuestion size={16} aria-hidden />
    </button>
  );
}

function Tool({ name, icon: Icon, disabled, onPress }: { name: string; icon: typeof Copy; disabled: boolean; onPress: () => void }) {
  return (
    <button type="button" className="btn btn-square btn-ghost btn-sm" aria-label={name} title={name} disabled={disabled} onClick={onPress}>
      <Icon size={16} aria-hidden />
    </button>
  );
}
