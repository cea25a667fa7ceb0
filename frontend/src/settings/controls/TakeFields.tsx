import { useState } from "react";

import type { TakeChanges } from "../../api/types";
import { HowToTakeForm } from "../../gather/taking/HowToTakeForm";
import { differing, TakeFormContext, USUAL } from "../../gather/taking/takeSettings";
import { takeWords } from "../../gather/taking/takeWords";

function isSame(one: TakeChanges, other: TakeChanges): boolean {
  return Object.keys(differing({ ...USUAL, ...one }, { ...USUAL, ...other })).length === 0;
}

interface TakeFieldsProps {
  said: TakeChanges;
  /** What is taken so. */
  words: string;
  onSay: (said: TakeChanges) => void;
}

/** How pages are taken, in words; the form opens when it is to be changed, and counts when it is kept. */
export function TakeFields({ said, words, onSay }: TakeFieldsProps) {
  const [draft, setDraft] = useState<TakeChanges | null>(null);
  if (draft === null)
    return (
      <div className="grid justify-items-start gap-1">
        <ul>
          {takeWords(said).map((row) => (
            <li key={row}>{row}</li>
          ))}
          {Object.keys(said).length === 0 && <li>as is right for most</li>}
        </ul>
        <button type="button" className="btn btn-xs" aria-label={`Change: ${words}`} onClick={() => setDraft(said)}>
          Change
        </button>
      </div>
    );
  const settings = { ...USUAL, ...draft };
  return (
    <div className="w-full" data-take-form>
      <TakeFormContext value={{ settings, change: (change) => setDraft(differing({ ...settings, ...change }, USUAL)) }}>
        <HowToTakeForm />
      </TakeFormContext>
      <div className="mt-3 flex gap-2">
        <button type="button" className="btn btn-primary btn-xs" onClick={() => (isSame(draft, said) ? setDraft(null) : onSay(draft))}>
          Keep
        </button>
        <button type="button" className="btn btn-xs" onClick={() => setDraft(null)}>
          Leave as it was
        </button>
      </div>
    </div>
  );
}
