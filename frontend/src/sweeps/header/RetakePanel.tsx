import { RotateCcw } from "lucide-react";
import { useState } from "react";

import { useSweepAction } from "../../api/sweeps";
import type { Sweep } from "../../api/types";
import { splitSelectors } from "../../gather/taking/takeSteps";
import { NumberInput } from "../../parts/fields/NumberInput";
import { Panel } from "../../parts/Panel";

/** What failed or is marked, once more: as before, or with more patience. */
export function RetakePanel({ sweep }: { sweep: Sweep }) {
  const action = useSweepAction(sweep.id);
  const [waitS, setWaitS] = useState(sweep.settings.wait_ms / 1_000);
  const [leaveOut, setLeaveOut] = useState(sweep.settings.leave_out.join("\n"));
  const [screens, setScreens] = useState(sweep.settings.max_screens ?? null);
  const { failed, by_filter } = sweep.count;
  const marked = by_filter.retake ?? 0;
  const changed = {
    ...sweep.settings,
    wait_ms: Math.round(waitS * 1_000),
    leave_out: splitSelectors(leaveOut),
    max_screens: screens,
  };
  const same = JSON.stringify(changed) === JSON.stringify(sweep.settings);
  return (
    <Panel name="Retake" label={<><RotateCcw size={16} aria-hidden /> Retake {failed + marked}</>}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          action.mutate({ kind: "retake", shotIds: null, ...(same ? {} : { settings: changed }) });
        }}
      >
        <p>
          {[failed > 0 ? `${failed} failed` : "", marked > 0 ? `${marked} marked` : ""].filter(Boolean).join(" and ")}. What was taken of
          them before goes off the shelf.
        </p>
        <label className="flex items-center gap-2">
          wait
          <NumberInput name="Seconds to wait" least={0} greatest={60} step={0.5} value={waitS} onChange={(seconds) => setWaitS(seconds ?? 0)} />
          s before the picture
        </label>
        <label className="flex items-center gap-2">
          at most
          <NumberInput name="Screens at most" least={1} placeholder="all" value={screens} onChange={setScreens} />
          screens of the page
        </label>
        <label className="grid gap-1">
          leave out, a CSS selector a line
          <textarea className="textarea textarea-sm figure w-full" rows={2} spellCheck={false} value={leaveOut} onChange={(event) => setLeaveOut(event.target.value)} />
        </label>
        <button type="submit" className="btn btn-sm btn-primary" disabled={action.isPending}>
          Retake {failed + marked} {same ? "as before" : "like this"}
        </button>
      </form>
    </Panel>
  );
}
