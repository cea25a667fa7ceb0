import { useDeferredValue } from "react";

import { asProblem } from "../api/client";
import { useExampleNames } from "../api/handover";
import { own } from "../app/own";
import type { What } from "../api/types";

const FIELDS = ["title", "host", "path", "date", "width", "slot", "screen", "number"];

/** A pattern for the names of files, with what it gives for these. */
export function PatternField({ what, pattern, onPattern }: { what: What; pattern: string; onPattern: (pattern: string) => void }) {
  const asked = useDeferredValue(pattern);
  const names = useExampleNames(what, asked);
  const more = (names.data?.count ?? 0) - (names.data?.names.length ?? 0);
  return (
    <div className="grid gap-1">
      <label className="grid gap-1">
        Name
        <input
          className="input input-sm w-full"
          placeholder={`as usual: ${own("files.pattern", "page, host, date and size")}`}
          maxLength={300}
          value={pattern}
          onChange={(event) => onPattern(event.target.value)}
        />
      </label>
      <p className="flex flex-wrap gap-1">
        {FIELDS.map((field) => (
          <button key={field} type="button" className="btn btn-ghost btn-xs font-mono" onClick={() => onPattern(`${pattern}{${field}}`)}>
            {`{${field}}`}
          </button>
        ))}
      </p>
      {names.isError ? (
        <p className="text-error" role="alert">
          {asProblem(names.error).sentence} {asProblem(names.error).hint}
        </p>
      ) : (
        <ul className="border-l-2 border-base-300 pl-2 font-mono text-xs break-all" aria-label="Names of the files" data-examples>
          {names.data?.names.map((name) => <li key={name}>{name}</li>)}
          {more > 0 && <li>and {more} more</li>}
        </ul>
      )}
    </div>
  );
}
