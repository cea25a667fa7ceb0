import { Pause, Play, RotateCcw, Square } from "lucide-react";
import { useState } from "react";
import { Link, useLocation, useNavigate, useParams } from "react-router";

import { asProblem } from "../../api/client";
import { useRun, useRunAction, useRunAgain, useRunItems, useRunOutputs, useStartRun } from "../../api/routines";
import type { Run, RunIn } from "../../api/types";
import { NotHere } from "../../app/NotHere";
import { showProblem } from "../../app/showProblem";
import { HandOverPanel } from "../../handover/HandOverPanel";
import { counted } from "../../parts/figures";
import { ProblemNote } from "../../parts/ProblemNote";
import { useTitle } from "../../parts/useTitle";
import { ItemRow } from "./ItemRow";

const ITEMS_AT_ONCE = 60;

/** What became of each picture of a run; those that need a look first. */
export function RunPage() {
  const runId = Number(useParams().runId);
  const run = useRun(runId);
  const [pages, setPages] = useState(1);
  const items = useRunItems(run.data, pages);
  useTitle(run.data ? `${run.data.routine}: ${run.data.subject}` : "Run");
  if (run.isError) return asProblem(run.error).status === 404 ? <NotHere /> : <ProblemNote sentence={asProblem(run.error).sentence} hint={asProblem(run.error).hint} />;
  if (!run.data) return <p className="p-8">Fetching the run…</p>;
  const rows = items.data?.items ?? [];
  const look = rows.filter((row) => row.needs_a_look).length;
  return (
    <main className="px-4 pt-4 pb-16 sm:px-6">
      <RunHeader run={run.data} />
      {run.data.ended_by && (
        <div className="mt-3">
          <ProblemNote sentence="A step ended the run." hint={run.data.ended_by} />
        </div>
      )}
      {run.data.note && (
        <div className="mt-3">
          <ProblemNote sentence={run.data.note} />
        </div>
      )}
      {run.data.trial && <p className="mt-3">This is what would come of it. Nothing was kept.</p>}
      {look > 0 && run.data.finished && (
        <p className="mt-4 font-semibold">
          {look === 1 ? "1 picture needs a look." : `${look} pictures need a look.`} {look === 1 ? "It comes" : "They come"} first.
        </p>
      )}
      <table className="mt-3 w-full text-sm" data-run-items={rows.length}>
        <thead>
          <tr className="border-b border-base-content text-left">
            <th className={`${rows.some((row) => row.before) ? "w-52" : "w-28"} py-1 font-semibold`}>Picture</th>
            <th className="py-1 font-semibold">Of</th>
            <th className="w-[34rem] py-1 font-semibold">{run.data.trial ? "Files that would be made" : "Files"}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((item) => (
            <ItemRow key={item.id} item={item} trial={run.data.trial} />
          ))}
        </tbody>
      </table>
      {rows.length === 0 && <p className="py-8 text-center">{run.data.sweep_id === null ? "Nothing has been begun yet." : "The pages of the sweep appear here as they arrive."}</p>}
      {items.data && items.data.total > pages * ITEMS_AT_ONCE && (
        <button type="button" className="btn btn-sm mt-4" onClick={() => setPages(pages + 1)}>
          Show more of {counted(items.data.total, "picture")}
        </button>
      )}
    </main>
  );
}

function RunHeader({ run }: { run: Run }) {
  const action = useRunAction(run.id);
  const again = useRunAgain();
  const outputs = useRunOutputs(run);
  const navigate = useNavigate();
  const go = (mode: Run["mode"]) => action.mutate({ kind: "mode", mode }, { onError: showProblem });
  const { counts } = run;
  const failed = (counts.failed ?? 0) + (counts.stopped ?? 0) + (counts.skipped ?? 0);
  const done = (counts.done ?? 0) + failed;
  const all = counts.all ?? 0;
  const files = outputs.data ?? [];
  return (
    <header className="border-b border-base-300 pb-3">
      <div className="flex flex-wrap items-center gap-2">
        <h1 className="min-w-0 flex-1 truncate text-xl font-semibold">
          {run.trial && "Tried: "}
          <Link to={`/routines/${run.routine_id}`} className="hover:underline">
            {run.routine}
          </Link>{" "}
          <span className="font-normal">over {run.subject}</span>
        </h1>
        {!run.finished && run.mode === "go_on" && (
          <button type="button" className="btn btn-sm" onClick={() => go("pause")}>
            <Pause size={16} aria-hidden /> Pause
          </button>
        )}
        {!run.finished && run.mode === "pause" && (
          <button type="button" className="btn btn-primary btn-sm" onClick={() => go("go_on")}>
            <Play size={16} aria-hidden /> Go on
          </button>
        )}
        {!run.finished && run.mode !== "stop" && (
          <button type="button" className="btn btn-sm" onClick={() => go("stop")}>
            <Square size={16} aria-hidden /> Stop
          </button>
        )}
        {run.finished && failed > 0 && !run.trial && (
          <button type="button" className="btn btn-sm" title="What failed, was stopped or left out" onClick={() => action.mutate({ kind: "retry" }, { onError: showProblem })}>
            <RotateCcw size={15} aria-hidden /> Try {failed === 1 ? "it" : `those ${failed}`} again
          </button>
        )}
        {run.finished && !run.trial && run.newest_version > run.version && (
          <button type="button" className="btn btn-sm" title="What this version made is replaced, unless somebody has changed it; it can be put back" onClick={() => again.mutate(run.id, { onError: showProblem, onSuccess: (made) => void navigate(`/runs/${made.id}`) })}>
            Make again with version {run.newest_version}
          </button>
        )}
        {run.trial && <RunOnAll run={run} />}
        {files.length > 0 && <HandOverPanel handed={{ what: { outputs: files }, name: `${counted(files.length, "file")} of ${run.routine}` }} />}
      </div>
      <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm" data-run-state={run.finished ? "ended" : run.mode}>
        <div className="h-1.5 w-48 bg-base-300" aria-hidden>
          <div className="h-full bg-success" style={{ width: `${all > 0 ? (done / all) * 100 : 0}%` }} />
        </div>
        <span role="status">
          <span className="figure">{counts.done ?? 0}</span> of {counted(all, "picture")} {run.trial ? "tried" : "made"}
        </span>
        {(counts.skipped ?? 0) > 0 && (
          <span>
            <span className="figure">{counts.skipped}</span> left out
          </span>
        )}
        {(counts.failed ?? 0) > 0 && (
          <span className="text-error">
            <span className="figure">{counts.failed}</span> failed
          </span>
        )}
        {(counts.stopped ?? 0) > 0 && (
          <span>
            <span className="figure">{counts.stopped}</span> stopped
          </span>
        )}
        <span className="font-semibold">{run.finished ? "ended" : run.mode === "pause" ? "paused" : run.mode === "stop" ? "stopping" : ""}</span>
        <span>version {run.version}</span>
        {Object.entries(run.values).map(([name, value]) => (
          <span key={name}>
            {name} <span className="figure">{String(value)}</span>
          </span>
        ))}
        {run.sweep_id !== null && (
          <Link className="link" to={`/sweeps/${run.sweep_id}`}>
            its sweep
          </Link>
        )}
      </div>
    </header>
  );
}

/** From a trial to all that it stood for, as it was asked for on this screen. */
function RunOnAll({ run }: { run: Run }) {
  const asked = useLocation().state as RunIn | null;
  const start = useStartRun();
  const navigate = useNavigate();
  if (!asked) return null;
  const many = asked.captures?.length ?? 0;
  return (
    <button type="button" className="btn btn-primary btn-sm" disabled={start.isPending} onClick={() => start.mutate({ routineId: run.routine_id, ...asked }, { onError: showProblem, onSuccess: (made) => void navigate(`/runs/${made.id}`) })}>
      <Play size={15} aria-hidden /> Run{many > 0 ? ` on ${counted(many, "picture")}` : ""}
    </button>
  );
}
