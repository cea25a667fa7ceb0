import { Trash2 } from "lucide-react";
import { useNavigate } from "react-router";

import { asProblem } from "../../api/client";
import { useDeleteSweep } from "../../api/sweeps";
import type { Sweep } from "../../api/types";
import { counted } from "../../parts/figures";
import { Panel } from "../../parts/Panel";

/** Deleting a sweep that has ended. */
export function DeletePanel({ sweep }: { sweep: Sweep }) {
  const remove = useDeleteSweep();
  const navigate = useNavigate();
  return (
    <Panel name="Delete" label={<Trash2 size={16} aria-hidden />}>
      <p>
        The sweep goes, with its marks and comparisons{sweep.schedule ? " and its set times" : ""}.
        {sweep.count.taken > 0 && ` Its ${counted(sweep.count.taken, "picture")} can be put back on the shelf for 30 days.`}
      </p>
      <button
        type="button"
        className="btn btn-sm btn-error btn-block mt-3"
        disabled={remove.isPending}
        onClick={() => void remove.mutateAsync(sweep.id).then(() => navigate("/sweeps")).catch(() => undefined)}
      >
        {remove.isPending ? "Deleting…" : "Delete the sweep"}
      </button>
      {remove.isError && (
        <p className="mt-2 text-error">
          {asProblem(remove.error).sentence} {asProblem(remove.error).hint}
        </p>
      )}
    </Panel>
  );
}
