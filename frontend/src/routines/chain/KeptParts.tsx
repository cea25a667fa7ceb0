import { Trash2 } from "lucide-react";
import type { ReactNode } from "react";

import type { RoutineStep } from "../../api/types";
import { KIND_WORDS } from "../../bench/marks/handling/geometry";
import { AreaFields, MarkFields, PlaceFields } from "../../bench/marks/MarkFields";
import { withoutPart, withPart } from "./steps";

interface Props {
  step: RoutineStep;
  onChange: (step: RoutineStep) => void;
}

type Part = Record<string, unknown>;

/** What a step holds that was kept from a cut: each part with its numbers, as they are on the page or beside its block. */
const PARTS: Record<string, { list: string; words: (part: Part) => string; fields: (part: Part, name: string, put: (more: object) => void) => ReactNode }[]> = {
  marks: [
    {
      list: "marks",
      words: ({ kind }) => KIND_WORDS[kind as keyof typeof KIND_WORDS],
      fields: (part, name, put) => <MarkFields name={name} mark={part as { kind: string }} onChange={put} />,
    },
  ],
  hide_areas: [{ list: "areas", words: () => "Area", fields: (part, name, put) => <AreaFields name={name} area={part} onChange={put} /> }],
  fold_bands: [
    { list: "folds", words: () => "Band across", fields: (part, name, put) => <PlaceFields name={name} what={part} onPut={(field, value) => put({ [field]: Math.round(value) })} /> },
    { list: "folds_down", words: () => "Band downwards", fields: (part, name, put) => <PlaceFields name={name} what={part} onPut={(field, value) => put({ [field]: Math.round(value) })} /> },
  ],
};

export function hasKeptParts(step: RoutineStep): boolean {
  return step.kind in PARTS;
}

export function KeptParts({ step, onChange }: Props) {
  return (
    <ul className="grid gap-4 sm:grid-cols-2">
      {(PARTS[step.kind] ?? []).flatMap(({ list, words, fields }) =>
        ((step[list] ?? []) as Part[]).map((part, at) => {
          const name = `${words(part)} ${at + 1}`;
          return (
            <li key={`${list}-${at}`} className="grid content-start gap-1" data-kept-part={`${list}-${at}`}>
              <div className="flex items-center gap-2">
                <span className="font-medium">{name}</span>
                <button type="button" className="btn btn-square btn-ghost btn-xs ml-auto" aria-label={`Leave out ${name.toLowerCase()}`} disabled={isLast(step)} onClick={() => onChange(withoutPart(step, list, at))}>
                  <Trash2 size={14} aria-hidden />
                </button>
              </div>
              {fields(part, name.toLowerCase(), (more) => onChange(withPart(step, list, at, more)))}
            </li>
          );
        }),
      )}
    </ul>
  );
}

/** A step holds something: its last part goes with the step. */
function isLast(step: RoutineStep): boolean {
  return (PARTS[step.kind] ?? []).reduce((sum, { list }) => sum + ((step[list] ?? []) as unknown[]).length, 0) < 2;
}
