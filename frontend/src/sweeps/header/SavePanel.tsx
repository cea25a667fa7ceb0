import { Download, FolderDown } from "lucide-react";
import { useState } from "react";

import { asProblem } from "../../api/client";
import { sweepZipUrl, useSaveSweep } from "../../api/sweeps";
import type { Sweep } from "../../api/types";
import { RightsAsked } from "../../handover/RightsAsked";
import { Panel } from "../../parts/Panel";

/** Taking a sweep away: as a ZIP, or straight into a folder on the server's disk. */
export function SavePanel({ sweep }: { sweep: Sweep }) {
  const [folder, setFolder] = useState("");
  const save = useSaveSweep(sweep.id);
  const kept = sweep.count.by_filter.keep ?? 0;
  const [onlyKept, setOnlyKept] = useState(false);
  const wanted = onlyKept && kept > 0;
  return (
    <Panel button="btn-primary" name="Save" label={<><Download size={16} aria-hidden /> Save</>}>
      <RightsAsked what={{ sweep: sweep.id, only_kept: wanted }}>
        <p>With folders and names as set, a manifest, and a contact sheet to look through or print.</p>
        {kept > 0 && (
          <label className="mt-3 flex items-center gap-2">
            <input type="checkbox" className="checkbox checkbox-xs" checked={onlyKept} onChange={() => setOnlyKept(!onlyKept)} />
            only the <span className="figure">{kept}</span> kept
          </label>
        )}
        <a className="btn btn-sm btn-primary btn-block mt-3" href={sweepZipUrl(sweep.id, wanted)} download>
          <Download size={16} aria-hidden /> Save {wanted ? `${kept} kept` : "all"} as ZIP
        </a>
        <form
          className="mt-4 grid gap-2 border-t border-base-300 pt-3"
          onSubmit={(event) => {
            event.preventDefault();
            save.mutate({ folder, only_kept: wanted });
          }}
        >
          <label className="grid gap-1">
            Or into a folder on the server
            <input className="input input-sm w-full" placeholder={`${sweep.name.slice(0, 24)} and the day`} maxLength={80} value={folder} onChange={(event) => setFolder(event.target.value)} />
          </label>
          <button type="submit" className="btn btn-sm btn-block" disabled={save.isPending || sweep.saving?.job.state === "running"}>
            <FolderDown size={16} aria-hidden /> Save {wanted ? `${kept} kept` : "all"} there
          </button>
          {save.isError && <p className="text-error">{asProblem(save.error).sentence}</p>}
          {sweep.saving && <Saving saving={sweep.saving} />}
        </form>
      </RightsAsked>
    </Panel>
  );
}

function Saving({ saving }: { saving: NonNullable<Sweep["saving"]> }) {
  const { job } = saving;
  if (job.error) return <p className="text-error">{job.error.sentence}</p>;
  if (job.state === "stopped") return <p>The saving was stopped.</p>;
  return (
    <p role="status">
      {job.state === "done" ? "Saved in " : `Saving${job.expected ? `, ${job.done} of ${job.expected},` : ""} into `}
      <span className="figure break-all">{saving.folder}</span>
    </p>
  );
}
