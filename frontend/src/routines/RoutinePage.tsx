import { FileDown } from "lucide-react";
import { useState } from "react";
import { Link, useParams } from "react-router";

import { useLatest } from "../api/captures";
import { asProblem } from "../api/client";
import { lookUrl, routineFileUrl, useLooks, useRoutine, useRuns } from "../api/routines";
import type { RoutineDetail, RoutineDocument } from "../api/types";
import { NotHere } from "../app/NotHere";
import { counted, formatWhen } from "../parts/figures";
import { Panel } from "../parts/Panel";
import { ProblemNote } from "../parts/ProblemNote";
import { useNow } from "../parts/useNow";
import { useTitle } from "../parts/useTitle";
import { ChainStrip } from "./chain/ChainStrip";
import { StepForm } from "./chain/StepForm";
import { withStep } from "./chain/steps";
import { RunPanel } from "./RunPanel";
import { useSample } from "./sample";
import { useRoutineDraft } from "./useRoutineDraft";

/** One routine: its chain, the step in hand, and what comes of a sample. */
export function RoutinePage() {
  const routineId = Number(useParams().routineId);
  const routine = useRoutine(routineId);
  if (routine.isError) return asProblem(routine.error).status === 404 ? <NotHere /> : <ProblemNote sentence={asProblem(routine.error).sentence} hint={asProblem(routine.error).hint} />;
  if (!routine.data) return <p className="p-8">Fetching the routine…</p>;
  return <Chain key={routineId} routine={routine.data} />;
}

function Chain({ routine }: { routine: RoutineDetail }) {
  const draft = useRoutineDraft(routine);
  const { document, saved } = draft;
  useTitle(document.name);
  const [at, setAt] = useState<number | null>(document.steps.length > 0 ? 0 : null);
  const latest = useLatest(30);
  const samples = latest.data?.filter((capture) => capture.width_px > 0) ?? [];
  const [sampleId, setSample] = useSample(samples.map((capture) => capture.id));
  const looks = useLooks(routine.id, saved.changes, sampleId);
  const change = (next: RoutineDocument, step: number | null = at) => {
    draft.change(next);
    setAt(step);
  };
  const reached = looks.data?.findLastIndex((look) => look.key !== "") ?? -1;
  const last = looks.data?.[reached];
  return (
    <main className="px-4 pt-4 pb-10 sm:px-6">
      <h1 className="sr-only">{document.name}</h1>
      <header className="mb-3 flex flex-wrap items-center gap-x-3 gap-y-2">
        <Link to="/routines" className="link text-sm">
          Routines
        </Link>
        <input
          className="input input-sm min-w-40 flex-1 text-base font-semibold sm:max-w-96"
          aria-label="Name of the routine"
          maxLength={120}
          defaultValue={document.name}
          onBlur={(event) => {
            const name = event.target.value.trim();
            if (name && name !== document.name) change({ ...document, name });
          }}
          onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
        />
        <span className="text-sm text-info" data-save-state={draft.saving ? "saving" : draft.problem ? "failed" : "saved"}>
          {draft.saving ? "Saving…" : draft.problem ? "Not saved" : `Saved, version ${saved.version}`}
        </span>
        <span className="ml-auto flex flex-wrap items-center gap-2">
          <label className="flex items-center gap-2 text-sm">
            Tried on
            <select className="select select-sm w-64 text-ellipsis" value={sampleId ?? ""} onChange={(event) => setSample(Number(event.target.value))}>
              {samples.length === 0 && <option value="">nothing is on the shelf yet</option>}
              {samples.map((capture) => (
                <option key={capture.id} value={capture.id}>
                  {capture.name}
                </option>
              ))}
            </select>
          </label>
          <Versions routine={saved} />
          <a className="btn btn-sm" href={routineFileUrl(routine.id)} download>
            <FileDown size={15} aria-hidden /> Save as a file
          </a>
          <RunPanel routine={saved} sampleId={sampleId} disabled={draft.problem !== null || document.steps.length === 0} />
        </span>
      </header>
      {draft.problem && (
        <div className="mb-3">
          <ProblemNote sentence={draft.problem.sentence} hint={draft.problem.hint}>
            {draft.problem.status === 409 && (
              <button type="button" className="btn btn-sm mt-2" onClick={() => window.location.reload()}>
                Show the other
              </button>
            )}
          </ProblemNote>
        </div>
      )}
      <ChainStrip
        routineId={routine.id}
        document={document}
        captureId={sampleId}
        looks={looks.data ?? []}
        at={at}
        onPick={setAt}
        onAdd={(step) => {
          const added = withStep(document, step);
          change(added.document, added.at);
        }}
      />
      <div className="mt-2 grid gap-8 border-t border-base-300 pt-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,26rem)]">
        <div>
          {at !== null && document.steps[at] ? (
            <StepForm key={at} document={document} at={at} onChange={change} />
          ) : (
            <Beginning document={document} onChange={change} />
          )}
        </div>
        <figure aria-label="What comes of the sample">
          <figcaption className="mb-2 text-sm font-semibold">What comes of it</figcaption>
          {sampleId !== null && last?.key ? (
            <img className="seethrough max-h-[60vh] max-w-full border border-base-300" src={lookUrl(routine.id, sampleId, reached, last.key)} alt="The sample after the last step that is reached" data-last-look={last.key} />
          ) : (
            <p className="text-sm">Choose a capture to try the steps on.</p>
          )}
        </figure>
      </div>
    </main>
  );
}

function Beginning({ document, onChange }: { document: RoutineDocument; onChange: (document: RoutineDocument) => void }) {
  return (
    <div className="max-w-xl text-sm">
      {document.steps.length === 0 && <p className="mb-4 text-base">Nothing is done yet. Add a step: what is shown of a page, what goes around it, which file is made.</p>}
      <label className="grid gap-1">
        What it is for
        <textarea className="textarea w-full" rows={3} maxLength={2_000} defaultValue={document.note ?? ""} onBlur={(event) => event.target.value !== (document.note ?? "") && onChange({ ...document, note: event.target.value })} />
      </label>
    </div>
  );
}

/** What was made with which version. */
function Versions({ routine }: { routine: RoutineDetail }) {
  const runs = useRuns(routine.id);
  const now = useNow();
  return (
    <Panel name={`Version ${routine.version}, earlier ones and runs`} size="w-96" label={`Version ${routine.version}`}>
      <h3 className="font-semibold">Versions</h3>
      <ul className="mb-3">
        {routine.versions.toReversed().map((row) => (
          <li key={row.number} className="flex gap-3 py-0.5">
            <span className="figure w-8">{row.number}</span>
            <span className="flex-1">{counted(row.made, "picture")} made</span>
            <span>{formatWhen(row.created_at, now)}</span>
            <a className="link" href={`${routineFileUrl(routine.id)}?version=${row.number}`} download aria-label={`Save version ${row.number} as a file`}>
              file
            </a>
          </li>
        ))}
      </ul>
      <h3 className="font-semibold">Runs</h3>
      {runs.data?.length === 0 && <p>It has not run yet.</p>}
      <ul className="max-h-60 overflow-y-auto">
        {runs.data?.map((run) => (
          <li key={run.id} className="flex gap-3 py-0.5">
            <Link className="link min-w-0 flex-1 truncate" to={`/runs/${run.id}`}>
              {run.subject}
            </Link>
            <span>{formatWhen(run.created_at, now)}</span>
          </li>
        ))}
      </ul>
    </Panel>
  );
}
