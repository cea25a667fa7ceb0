import { BadgeInfo } from "lucide-react";
import { useState } from "react";

import { asProblem } from "../api/client";
import { useSetFacts } from "../api/outlets";
import type { Outlet, OutletFacts } from "../api/types";
import { ProblemNote } from "../parts/ProblemNote";

/** Which facts go along with the files of an outlet: none is usual. */
export function FactsLine({ outlet }: { outlet: Outlet }) {
  const [editing, setEditing] = useState(false);
  if (editing) return <FactsForm outlet={outlet} onDone={() => setEditing(false)} />;
  const where = [outlet.facts_in_file && "in the files", outlet.facts_beside && "as a JSON beside each"].filter(Boolean).join(" and ");
  return (
    <p className="flex flex-wrap items-center gap-2 pb-2 text-sm" data-facts-of={outlet.id}>
      <BadgeInfo size={14} aria-hidden />
      {where ? (
        <span className="min-w-0 break-words">
          Address, date and {outlet.credit ? `the credit “${outlet.credit}”` : "no credit"} go along {where}
        </span>
      ) : (
        <span className="text-info">No facts go along: the files hold pixels alone.</span>
      )}
      <button type="button" className="btn btn-ghost btn-xs" onClick={() => setEditing(true)}>
        {where ? "Change the facts" : "Let facts go along"}
      </button>
    </p>
  );
}

function FactsForm({ outlet, onDone }: { outlet: Outlet; onDone: () => void }) {
  const [said, setSaid] = useState<OutletFacts>({ credit: outlet.credit, facts_in_file: outlet.facts_in_file, facts_beside: outlet.facts_beside });
  const set = useSetFacts(outlet.id);
  const say = (change: Partial<OutletFacts>) => setSaid({ ...said, ...change });
  return (
    <form
      className="my-2 grid max-w-2xl gap-3 border border-base-300 p-3 text-sm"
      aria-label={`Facts of ${outlet.name}`}
      onSubmit={(event) => {
        event.preventDefault();
        set.mutate(said, { onSuccess: onDone });
      }}
    >
      <p>The address of the page, the day it was taken, and a credit can go along with each file.</p>
      <label className="grid gap-1">
        Credit: who is named for the picture
        <input className="input input-sm w-full" placeholder="none" maxLength={200} value={said.credit} onChange={(event) => say({ credit: event.target.value })} />
      </label>
      <label className="flex items-start gap-2">
        <input type="checkbox" className="checkbox checkbox-sm mt-0.5" checked={said.facts_in_file} onChange={() => say({ facts_in_file: !said.facts_in_file })} />
        <span>
          In the file itself, as IPTC and XMP
          <span className="block text-info">About half a kilobyte, within the limit. JPEG, PNG, WebP and AVIF hold it, GIF does not. Files that are there already stay as they are until they are fitted again.</span>
        </span>
      </label>
      <label className="flex items-start gap-2">
        <input type="checkbox" className="checkbox checkbox-sm mt-0.5" checked={said.facts_beside} onChange={() => say({ facts_beside: !said.facts_beside })} />
        <span>
          As a JSON beside each file
          <span className="block text-info">In ZIPs, folders and mails. Uploads and links bring the picture alone.</span>
        </span>
      </label>
      {set.isError && <ProblemNote sentence={asProblem(set.error).sentence} hint={asProblem(set.error).hint} />}
      <div className="flex gap-2">
        <button type="submit" className="btn btn-primary btn-sm" disabled={set.isPending}>
          Save the facts
        </button>
        <button type="button" className="btn btn-sm" onClick={onDone}>
          Leave it
        </button>
      </div>
    </form>
  );
}
