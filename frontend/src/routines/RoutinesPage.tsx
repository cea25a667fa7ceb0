import { Copy, Eye, Trash2 } from "lucide-react";
import { Link, useNavigate } from "react-router";

import { asProblem } from "../api/client";
import { useAddRoutine, useChangeRoutines, useOpenRoutine, useRoutines, useRuns, useStarters, type NewRoutine, type RoutineChange } from "../api/routines";
import type { Routine } from "../api/types";
import { useNotices } from "../app/notices";
import { showProblem } from "../app/showProblem";
import { moved } from "../outlets/order";
import { MoveButtons } from "../outlets/MoveButtons";
import { counted, formatWhen } from "../parts/figures";
import { OpenFile } from "../parts/OpenFile";
import { ClosingButton, Panel } from "../parts/Panel";
import { ProblemNote } from "../parts/ProblemNote";
import { useNow } from "../parts/useNow";
import { useTitle } from "../parts/useTitle";
import { RunPanel } from "./RunPanel";
import { STEP_KINDS } from "./chain/stepKinds";
import { WatchedFolders } from "./WatchedFolders";

const KEYS = [1, 2, 3, 4, 5, 6, 7, 8, 9];

/** All routines: run, changed, put in order; and what ships to begin with. */
export function RoutinesPage() {
  useTitle("Routines");
  const routines = useRoutines();
  const change = useChangeRoutines();
  const show = useNotices((state) => state.show);
  const send = (what: RoutineChange) => change.mutate(what, { onError: showProblem });
  const remove = (routine: Routine) => {
    send({ kind: "delete", id: routine.id });
    show({ tone: "info", text: `Deleted “${routine.name}”. What it made stays.`, action: { label: "Undo", run: () => send({ kind: "restore", id: routine.id }) } });
  };
  return (
    <main className="mx-auto max-w-5xl px-6 pt-6 pb-16">
      <div className="mb-1 flex flex-wrap items-center gap-2">
        <h1 className="mr-auto text-xl font-semibold">Routines</h1>
        <NewRoutinePanel />
      </div>
      <p className="mb-6">The same steps over many pictures: how a page is taken, what is shown of it, which files are made, where they go.</p>
      {routines.isPending && <p>Fetching the routines…</p>}
      {routines.isError && <ProblemNote sentence={asProblem(routines.error).sentence} hint={asProblem(routines.error).hint} />}
      {routines.data?.length === 0 && <Starters />}
      <ul>
        {routines.data?.map((routine, index, all) => (
          <li key={routine.id} className="flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-base-300 py-3" data-routine={routine.name}>
            <div className="min-w-60 flex-1">
              <Link to={`/routines/${routine.id}`} className="font-semibold hover:underline">
                {routine.name}
              </Link>
              {routine.note && <p className="text-sm">{routine.note}</p>}
              <p className="text-sm text-info">
                {stepsInWords(routine.steps)}
                {routine.made > 0 && <> · made of {counted(routine.made, "picture")}</>}
              </p>
            </div>
            <label className="text-sm">
              Key{" "}
              <select className="select select-xs w-20" aria-label={`Key of ${routine.name}`} value={routine.key ?? ""} onChange={(event) => send({ kind: "key", id: routine.id, key: Number(event.target.value) || null })}>
                <option value="">none</option>
                {KEYS.map((key) => (
                  <option key={key} value={key}>
                    Alt + {key}
                  </option>
                ))}
              </select>
            </label>
            <span className="flex items-center gap-1">
              <MoveButtons name={routine.name} first={index === 0} last={index === all.length - 1} onMove={(step) => send({ kind: "order", ids: moved(all, index, step) })} />
              <button type="button" className="btn btn-square btn-ghost btn-sm" aria-label={`Duplicate ${routine.name}`} title="Duplicate" onClick={() => send({ kind: "duplicate", id: routine.id })}>
                <Copy size={16} aria-hidden />
              </button>
              <button type="button" className="btn btn-square btn-ghost btn-sm" aria-label={`Delete ${routine.name}`} title="Delete" onClick={() => remove(routine)}>
                <Trash2 size={16} aria-hidden />
              </button>
              <RunPanel routine={routine} sampleId={null} />
            </span>
          </li>
        ))}
      </ul>
      <Runs />
      {(routines.data?.length ?? 0) > 0 && <WatchedFolders routines={routines.data ?? []} />}
    </main>
  );
}

function stepsInWords(kinds: readonly string[]): string {
  const named = kinds.map((kind) => STEP_KINDS.find((row) => row.kind === kind && row.kind !== "dress")?.words ?? "Dress");
  return [...new Set(named)].join(" · ") || "no step yet";
}

function useMake(): (made: NewRoutine) => void {
  const add = useAddRoutine();
  const navigate = useNavigate();
  return (made) => add.mutate(made, { onError: showProblem, onSuccess: ({ id }) => void navigate(`/routines/${id}`) });
}

/** A routine from nothing, from one that ships, or from a file. */
function NewRoutinePanel() {
  const starters = useStarters();
  const make = useMake();
  const open = useOpenRoutine();
  const navigate = useNavigate();
  return (
    <>
      <OpenFile words="Open a file" name="File of a routine" accept="application/json,.json" onFile={(file) => open.mutate(file, { onError: showProblem, onSuccess: ({ id }) => void navigate(`/routines/${id}`) })} />
      <Panel name="New routine" size="w-96" button="btn-primary" label="New routine">
        <ClosingButton className="w-full px-2 py-1 text-left font-semibold hover:bg-base-200" onClick={() => make({})}>
          From nothing
        </ClosingButton>
        <p className="mt-3 mb-1">Or begin with</p>
        <ul>
          {starters.data?.map((row) => (
            <li key={row.name}>
              <ClosingButton className="w-full px-2 py-1 text-left hover:bg-base-200" onClick={() => make({ starter: row.name })}>
                <span className="block font-semibold">{row.title}</span>
                {row.note}
              </ClosingButton>
            </li>
          ))}
        </ul>
        <p className="mt-3 border-t border-base-300 pt-2">What was done on the Bench becomes one by “Keep as routine” there.</p>
      </Panel>
    </>
  );
}

/** What there is to begin with, while there is no routine. */
function Starters() {
  const starters = useStarters();
  const make = useMake();
  return (
    <section aria-label="Routines to begin with" className="mb-8">
      <p className="mb-3">There is no routine yet. Begin with one of these, or do it once on the Bench and press “Keep as routine”.</p>
      <ul className="grid gap-3 sm:grid-cols-2">
        {starters.data?.map((row) => (
          <li key={row.name}>
            <button type="button" className="h-full w-full border border-base-300 p-3 text-left hover:border-base-content" onClick={() => make({ starter: row.name })}>
              <span className="block font-semibold">{row.title}</span>
              <span className="text-sm">{row.note}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What ran lately. */
function Runs() {
  const runs = useRuns();
  const now = useNow();
  if (!runs.data?.length) return null;
  return (
    <section className="mt-10" aria-label="Runs">
      <h2 className="mb-1 font-semibold">Runs</h2>
      <ul className="text-sm">
        {runs.data.slice(0, 12).map((run) => (
          <li key={run.id} className="flex items-center gap-4 border-t border-base-300 py-1.5">
            <Link className="min-w-0 flex-1 truncate hover:underline" to={`/runs/${run.id}`}>
              <Eye size={14} className="mr-1.5 inline" aria-hidden />
              {run.routine} over {run.subject}
            </Link>
            <span className="figure">
              {run.counts.done} of {run.counts.all}
            </span>
            <span className="w-28">{run.finished ? "ended" : run.mode === "pause" ? "paused" : "goes on"}</span>
            <span className="w-24 text-right">{formatWhen(run.created_at, now)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
