import { Link } from "react-router";
import { Pause, Play, Square } from "lucide-react";

import { useSweepAction } from "../../api/sweeps";
import type { Sweep } from "../../api/types";
import { counted, formatWhen } from "../../parts/figures";
import { useNow } from "../../parts/useNow";
import { AgainPanel } from "./AgainPanel";
import { roughly } from "../listing/picking";
import { DeletePanel } from "./DeletePanel";
import { RetakePanel } from "./RetakePanel";
import { HandOverPanel } from "../../handover/HandOverPanel";
import { RoutineMenu } from "../../routines/RoutineMenu";
import { SavePanel } from "./SavePanel";

/** How far a sweep is, and what can be done to all of it. */
export function SweepHeader({ sweep }: { sweep: Sweep }) {
  const action = useSweepAction(sweep.id);
  const { count } = sweep;
  const going = !sweep.finished_at;
  const retakes = count.failed + (count.by_filter.retake ?? 0);
  return (
    <header className="border-b border-base-300 px-3 pt-4 pb-3 sm:px-6">
      <div className="flex flex-wrap items-center gap-3">
        <h1 className="w-full min-w-0 truncate text-xl font-semibold sm:w-auto sm:flex-1" title={sweep.name}>
          {sweep.name}
        </h1>
        {going && sweep.stop_mode === "go_on" && (
          <button type="button" className="btn btn-sm" onClick={() => action.mutate({ kind: "stop_mode", stop_mode: "pause" })}>
            <Pause size={16} aria-hidden /> Pause
          </button>
        )}
        {(sweep.stop_mode === "pause" || sweep.stop_mode === "stop") && count.all > count.taken + count.failed && (
          <button type="button" className="btn btn-sm btn-primary" onClick={() => action.mutate({ kind: "stop_mode", stop_mode: "go_on" })}>
            <Play size={16} aria-hidden /> Resume
          </button>
        )}
        {going && sweep.stop_mode !== "stop" && (
          <button type="button" className="btn btn-sm" onClick={() => action.mutate({ kind: "stop_mode", stop_mode: "stop" })}>
            <Square size={16} aria-hidden /> Stop
          </button>
        )}
        {retakes > 0 && <RetakePanel sweep={sweep} />}
        <AgainPanel sweep={sweep} />
        <RoutineMenu over={() => ({ sweep_id: sweep.id })} words={`the pages of ${sweep.name}`} />
        {count.taken > 0 && <HandOverPanel handed={{ what: { sweep: sweep.id }, name: sweep.name }} />}
        {count.taken > 0 && <SavePanel sweep={sweep} />}
        {!going && <DeletePanel sweep={sweep} />}
      </div>
      <Far sweep={sweep} />
    </header>
  );
}

/** What is said aloud: each tenth, each failure, and the end; not each picture. */
function announced(share: number, failed: number, state: string): string {
  const tenths = `${Math.floor(share * 10) * 10} % done`;
  return [state || tenths, failed > 0 ? `${failed} failed` : ""].filter(Boolean).join(", ");
}

function Far({ sweep }: { sweep: Sweep }) {
  const { count } = sweep;
  const now = useNow();
  const share = count.all > 0 ? (count.taken + count.failed) / count.all : 0;
  const state = sweep.finished_at ? "ended" : sweep.stop_mode === "pause" ? "paused" : sweep.stop_mode === "stop" ? "stopping" : "";
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm" data-far>
      <p className="sr-only" role="status">
        {announced(share, count.failed, state)}
      </p>
      <div className="h-1.5 w-48 bg-base-300" aria-hidden>
        <div className="h-full bg-success" style={{ width: `${share * 100}%` }} />
      </div>
      <span>
        <span className="figure">{count.taken}</span> of {counted(count.all, "picture")} taken
      </span>
      {count.failed > 0 && (
        <span className="text-error">
          <span className="figure">{count.failed}</span> failed
        </span>
      )}
      {count.left > 0 && (
        <span>
          <span className="figure">{count.left}</span> left
        </span>
      )}
      {state && <span className="font-semibold">{state}</span>}
      {count.a_minute !== null && !sweep.finished_at && (
        <span>
          <span className="figure">{count.a_minute.toFixed(0)}</span> a minute
          {count.seconds_left !== null && `, ${roughly(count.seconds_left)} left`}
        </span>
      )}
      {sweep.finished_at && count.to_look > 0 && (
        <span>
          <span className="figure">{count.to_look}</span> still to be looked at
        </span>
      )}
      {sweep.to_look_at.length > 0 && (
          <Link className="link text-error" to={`/captures/${sweep.to_look_at[0]}`} title="Marks of the time before that are in doubt or have no place">
            {sweep.to_look_at.length === 1 ? "1 page has marks to look at" : `${sweep.to_look_at.length} pages have marks to look at`}
          </Link>
        )}
        {sweep.previous_at && <span>compared with {formatWhen(sweep.previous_at, now)}</span>}
      {sweep.problem && (
        <p className="w-full text-error" role="alert">
          {sweep.problem}
        </p>
      )}
      {count.on_now[0] && <span className="max-w-md truncate">now {count.on_now[0].replace(/^https?:\/\//, "")}</span>}
    </div>
  );
}
