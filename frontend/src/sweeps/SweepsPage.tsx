import { Plus } from "lucide-react";
import { Link } from "react-router";

import { asProblem } from "../api/client";
import { useSweeps } from "../api/sweeps";
import { counted, formatTime, formatWhen, screenWords } from "../parts/figures";
import { ProblemNote } from "../parts/ProblemNote";
import { useNow } from "../parts/useNow";
import { useTitle } from "../parts/useTitle";

/** All sweeps, the latest first. */
export function SweepsPage() {
  useTitle("Sweeps");
  const sweeps = useSweeps();
  const now = useNow();
  return (
    <main className="mx-auto max-w-5xl px-4 pt-8 pb-16 sm:px-6">
      <div className="mb-4 flex items-center justify-between">
        <h1 className="text-2xl font-semibold">Sweeps</h1>
        <Link to="/sweeps/new" className="btn btn-primary btn-sm">
          <Plus size={16} aria-hidden /> Many pages
        </Link>
      </div>
      {sweeps.isError && <ProblemNote sentence={asProblem(sweeps.error).sentence} hint={asProblem(sweeps.error).hint} />}
      {sweeps.data?.length === 0 && (
        <p className="py-10 text-center">
          No sweep yet. A sweep takes a whole list of pages, on several screens, while you do something else.
        </p>
      )}
      <ul>
        {sweeps.data?.map((sweep) => (
          <li key={sweep.id} className="border-b border-base-300">
            <Link to={`/sweeps/${sweep.id}`} className="flex flex-wrap items-baseline gap-x-4 py-3 hover:bg-base-200">
              <span className="w-full min-w-0 truncate font-medium sm:w-auto sm:flex-1">{sweep.name}</span>
              <span className="figure text-sm">{sweep.screens.map(screenWords).join(" · ")}</span>
              <span className="text-sm">
                <span className="figure">{sweep.count.taken}</span> of {counted(sweep.count.all, "picture")}
                {sweep.count.failed > 0 && <span className="text-error">, {sweep.count.failed} failed</span>}
              </span>
              {sweep.schedule && <span className="text-sm">again {formatTime(sweep.schedule.next_at)}</span>}
              <span className="text-sm sm:w-28 sm:text-right">{sweep.finished_at ? formatWhen(sweep.created_at, now) : sweep.stop_mode === "pause" ? "paused" : "going on"}</span>
            </Link>
          </li>
        ))}
      </ul>
    </main>
  );
}
