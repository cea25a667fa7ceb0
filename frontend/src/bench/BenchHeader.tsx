import { CutsPanel } from "./cuts/CutsPanel";
import { StagePick } from "./StagePick";
import { FileDown, FileUp, FolderInput, Plus } from "lucide-react";
import { Link, useNavigate } from "react-router";

import { titled } from "../app/actions/registry";
import { useOpenCut } from "../api/cuts";
import { showProblem } from "../app/showProblem";
import { formatSize } from "../parts/figures";
import { useBench } from "./benchContext";
import type { SaveState } from "./cut/cutSaver";
import { LogPanel } from "../handover/LogPanel";
import { Panel } from "../parts/Panel";
import { RightsPanel } from "../rights/RightsPanel";
import { KeepAsRoutine } from "../routines/KeepAsRoutine";
import { RoutineMenu } from "../routines/RoutineMenu";
import { Report } from "./report/Report";
import { CarryOver } from "./review/CarryOver";

/** What is on the Bench, how it was taken, and which cut of it is in hand. */
export function BenchHeader({ onNewCut }: { onNewCut: () => void }) {
  const { capture, cut, saveState } = useBench();
  return (
    <div className="flex min-h-11 shrink-0 flex-wrap items-center gap-x-4 gap-y-1 border-b border-base-300 px-4 py-1">
      <h1 className="max-w-[55%] min-w-0 truncate font-semibold" title={capture.name}>
        {capture.name}
      </h1>
      <span className="figure shrink-0 text-sm">{formatSize(capture.width_px, capture.height_px)}</span>
      <Report />
      <StagePick />
      <div className="ml-auto flex flex-wrap items-center justify-end gap-1" role="group" aria-label="Cuts">
        <SaveWords state={saveState} />
        {capture.cuts.map((row) => (
          <Link
            key={row.id}
            to={`/captures/${capture.id}/cuts/${row.id}`}
            aria-current={row.id === cut.id}
            className={`btn btn-sm ${row.id === cut.id ? "btn-neutral" : ""}`}
          >
            {row.name}
          </Link>
        ))}
        <a
          className="btn btn-square btn-ghost btn-sm"
          href={`/api/cuts/${cut.id}/file`}
          download
          aria-label={`Save ${cut.name} as a file`}
          title={`Save ${cut.name} as a file, for the command line`}
        >
          <FileDown size={16} aria-hidden />
        </a>
        <OpenCut />
        <Panel name={`Carry ${cut.name} over to other captures`} side="right" size="w-[34rem]" button="btn-square btn-ghost" label={<FolderInput size={16} aria-hidden />}>
          <CarryOver />
        </Panel>
        <RightsPanel ids={[capture.id]} rights={capture.rights} />
        <LogPanel captureId={capture.id} />
        <BenchRoutines />
        <CutsPanel />
        <button type="button" className="btn btn-ghost btn-sm" title={titled("newCut", "Start another cut of this page")} onClick={onNewCut}>
          <Plus size={16} aria-hidden /> New cut
        </button>
      </div>
    </div>
  );
}

/** What was done here for other pages, and what is done to others for this one. */
function BenchRoutines() {
  const { capture, cut, saver } = useBench();
  return (
    <RoutineMenu over={() => ({ captures: [capture.id] })} words="this capture" label="Routines" button="btn-square btn-ghost" iconOnly>
      <KeepAsRoutine cutId={cut.id} captureId={capture.id} onSaved={() => saver.flush()} />
    </RoutineMenu>
  );
}

function SaveWords({ state }: { state: SaveState }) {
  const { saver } = useBench();
  if (state.kind === "conflict")
    return (
      <span className="mr-2 flex flex-wrap items-center gap-2 text-sm text-error" role="alert">
        {state.theirs.changed_by || "Another window"} changed the same part of this cut.
        <button type="button" className="btn btn-xs" title="What is shown here stays; the other’s can be had by Undo" onClick={() => saver.resolve("mine")}>
          Keep this one
        </button>
        <button type="button" className="btn btn-xs" title="What the other window wrote is shown; this one can be had by Undo" onClick={() => saver.resolve("theirs")}>
          Take the other
        </button>
      </span>
    );
  if (state.kind === "failed")
    return (
      <span className="mr-2 flex items-center gap-2 text-sm text-error" role="alert">
        Not saved{state.again ? " yet" : ""}: {state.problem.sentence} {state.again ? "It is kept here and tried again." : state.problem.hint}
        <button type="button" className="btn btn-xs" onClick={() => void saver.flush()}>
          Save now
        </button>
      </span>
    );
  return (
    <span className="mr-2 text-sm text-info" data-save-state={state.kind}>
      {state.kind === "saved" ? "Saved" : "Saving…"}
    </span>
  );
}

/** A cut from a file: one that was saved here or elsewhere, or that somebody wrote. */
function OpenCut() {
  const { capture } = useBench();
  const open = useOpenCut(capture.id);
  const navigate = useNavigate();
  const take = (file: File | undefined) => {
    if (!file) return;
    open.mutate(file, {
      onSuccess: (cut) => void navigate(`/captures/${capture.id}/cuts/${cut.id}`),
      onError: showProblem,
    });
  };
  return (
    <label className="btn btn-square btn-ghost btn-sm focus-within:outline-2" title="Open a cut from a file, as another cut of this page">
      <FileUp size={16} aria-hidden />
      <input
        type="file"
        accept="application/json,.json"
        className="sr-only"
        aria-label="Open a cut from a file"
        onChange={(event) => {
          take(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
    </label>
  );
}
