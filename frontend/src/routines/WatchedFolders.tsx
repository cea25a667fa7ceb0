import { useState } from "react";

import { useLeaveFolder, useWatchedFolders, useWatchFolder } from "../api/routines";
import type { Routine } from "../api/types";
import { showProblem } from "../app/showProblem";

/** Folders of the data folder: each picture that is put there is taken in, and a routine run over it. */
export function WatchedFolders({ routines }: { routines: readonly Routine[] }) {
  const folders = useWatchedFolders();
  const watch = useWatchFolder();
  const leave = useLeaveFolder();
  const [name, setName] = useState("");
  const [routineId, setRoutineId] = useState<number | null>(null);
  const chosen = routineId ?? routines[0]?.id ?? null;
  return (
    <section className="mt-10 text-sm" aria-label="Watched folders">
      <h2 className="mb-1 text-base font-semibold">Watched folders</h2>
      <p className="mb-2">A picture that is put into one of these folders is taken in, and its routine run over it.</p>
      <ul>
        {folders.data?.map((row) => (
          <li key={row.id} className="flex flex-wrap items-center gap-x-4 border-t border-base-300 py-2">
            <span className="font-semibold">{row.name}</span>
            <span className="min-w-0 flex-1 truncate font-mono" title={row.path}>
              {row.path}
            </span>
            <span>{row.routine}</span>
            <button type="button" className="btn btn-ghost btn-sm" onClick={() => leave.mutate(row.id, { onError: showProblem })}>
              Leave it alone
            </button>
            {row.problem && <p className="w-full text-error">{row.problem}</p>}
          </li>
        ))}
      </ul>
      <form
        className="mt-2 flex flex-wrap items-end gap-3 border-t border-base-300 pt-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim() && chosen !== null) watch.mutate({ name: name.trim(), routine_id: chosen }, { onError: showProblem, onSuccess: () => setName("") });
        }}
      >
        <label className="grid gap-0.5">
          Name of the folder
          <input className="input input-sm w-56" maxLength={60} value={name} onChange={(event) => setName(event.target.value)} />
        </label>
        <label className="grid gap-0.5">
          Routine
          <select className="select select-sm w-56" value={chosen ?? ""} onChange={(event) => setRoutineId(Number(event.target.value))}>
            {routines.map((row) => (
              <option key={row.id} value={row.id}>
                {row.name}
              </option>
            ))}
          </select>
        </label>
        <button type="submit" className="btn btn-sm" disabled={!name.trim() || watch.isPending}>
          Watch a folder
        </button>
      </form>
    </section>
  );
}
