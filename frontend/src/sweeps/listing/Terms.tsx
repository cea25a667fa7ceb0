import { useOutlets } from "../../api/outlets";
import { asProblem } from "../../api/client";
import { useNames } from "../../api/sweeps";
import type { ListedPage, Sweep } from "../../api/types";
import { own } from "../../app/own";
import { NumberInput } from "../../parts/fields/NumberInput";
import { toggled } from "./picking";

const DEFAULT_PATTERN = "{host}/{path}-{width}";

/** What is right for most sweeps, with names of files as they are set. */
export function defaultTerms() {
  return { name: "", pattern: own<string>("files.pattern", DEFAULT_PATTERN), atOnce: 2, pauseS: 0.5, slotIds: new Set<number>() };
}
export type Terms = ReturnType<typeof defaultTerms>;

const FIELDS = ["host", "path", "section", "title", "screen", "width", "date", "time", "number", "slot"];
const EXAMPLES = 3;

interface TermsProps {
  terms: Terms;
  onChange: (terms: Terms) => void;
  pages: ListedPage[];
  screens: Sweep["screens"];
}

/** How a sweep's files are called, what is made of every page, and how gently hosts are asked. */
export function TermsFields({ terms, onChange, pages, screens }: TermsProps) {
  const outlets = useOutlets();
  const slots = outlets.data?.flatMap((outlet) => outlet.slots.map((slot) => ({ id: slot.id, words: `${outlet.name}: ${slot.name}` }))) ?? [];
  const examples = pages.slice(0, EXAMPLES).map(({ address, title, line }) => ({ address, title, line }));
  const names = useNames({
    pattern: terms.pattern,
    pages: examples,
    screens: screens.slice(0, 1),
    slot_names: slots.filter((slot) => terms.slotIds.has(slot.id)).slice(0, 1).map((slot) => slot.words),
  });
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4 text-sm">
      <label className="grid gap-1">
        Name
        <input className="input input-sm w-full" placeholder="its pages and host, if left empty" maxLength={120} value={terms.name} onChange={(event) => onChange({ ...terms, name: event.target.value })} />
      </label>
      <div>
        <label className="grid gap-1">
          Names of files
          <input
            className="input input-sm figure w-full"
            aria-label="Pattern for names"
            spellCheck={false}
            value={terms.pattern}
            onChange={(event) => onChange({ ...terms, pattern: event.target.value })}
          />
        </label>
        <p className="mt-1 flex flex-wrap gap-1">
          {FIELDS.map((field) => (
            <button key={field} type="button" className="figure rounded-selector border border-base-300 px-1 text-xs hover:border-base-content" onClick={() => onChange({ ...terms, pattern: `${terms.pattern}{${field}}` })}>
              {field}
            </button>
          ))}
          <span className="text-xs">and / for folders</span>
        </p>
        {names.isError ? (
          <p className="mt-1 text-error">{asProblem(names.error).sentence}</p>
        ) : (
          <ul className="mt-1" aria-label="Examples of names">
            {names.data?.names.map((name) => (
              <li key={name} className="figure truncate text-xs" title={name}>
                {name}
              </li>
            ))}
          </ul>
        )}
      </div>
      {slots.length > 0 && (
        <fieldset>
          <legend>Files to make of every page</legend>
          <div className="mt-1 grid max-h-32 gap-1 overflow-y-auto">
            {slots.map((slot) => (
              <label key={slot.id} className="flex items-center gap-2">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={terms.slotIds.has(slot.id)}
                  onChange={() => onChange({ ...terms, slotIds: toggled(terms.slotIds, slot.id) })}
                />
                {slot.words}
              </label>
            ))}
          </div>
        </fieldset>
      )}
      <p className="flex flex-wrap items-center gap-2">
        Ask one host for
        <NumberInput name="Pages of one host at once" size="w-14" least={1} greatest={16} value={terms.atOnce} onChange={(atOnce) => onChange({ ...terms, atOnce: atOnce ?? 1 })} />
        at once,
        <NumberInput name="Seconds between two pages of one host" least={0} greatest={600} step={0.5} value={terms.pauseS} onChange={(pauseS) => onChange({ ...terms, pauseS: pauseS ?? 0 })} />
        s apart
      </p>
    </div>
  );
}
