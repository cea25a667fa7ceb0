import { Link, useNavigate } from "react-router";

import { useJoinCaptures } from "../api/joins";
import type { Join } from "../api/types";
import { showProblem } from "../app/showProblem";
import { counted } from "../parts/figures";
import { useLiveJoin, useThere } from "./useLiveJoin";

const SHOWN = 12;

/** What was grabbed since the screen was opened: it is on the shelf already. */
export function GrabbedList({ ids, isScrolled }: { ids: readonly number[]; isScrolled: boolean }) {
  const join = useJoinCaptures();
  const navigate = useNavigate();
  const there = useThere(ids);
  const soFar = useLiveJoin(there, isScrolled);
  if (ids.length === 0) return null;
  return (
    <section className="mt-8" aria-label="Grabbed" data-grabbed={there.length}>
      <div className="mb-3 flex flex-wrap items-baseline gap-3 border-b border-base-300 pb-2">
        <h2 className="font-semibold">{counted(ids.length, "picture")} grabbed, on the shelf</h2>
        {isScrolled && soFar && (
          <p role="status" className={soFar.state === "missing" ? "font-semibold text-error" : ""}>
            {saidOf(soFar, there)}
          </p>
        )}
        {there.length > 1 && (
          <button
            type="button"
            className="btn btn-primary btn-sm ml-auto"
            disabled={join.isPending}
            onClick={() => join.mutate({ captures: [...there], in_order: true }, { onError: showProblem, onSuccess: ({ id }) => void navigate(`/joins/${id}`) })}
          >
            Join into one tall picture
          </button>
        )}
      </div>
      <ul className="flex flex-wrap gap-3">
        {there.slice(-SHOWN).map((id, place) => (
          <li key={id}>
            <Link to={`/captures/${id}`} aria-label={`Open picture ${Math.max(0, there.length - SHOWN) + place + 1}`}>
              <img src={`/api/captures/${id}/thumbnail`} alt="" className="h-28 w-36 border border-base-300 bg-base-200 object-cover object-top" />
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

function saidOf(join: Join, there: readonly number[]): string {
  const gap = join.missing[0];
  const after = gap && join.pieces[gap.below];
  if (after) return `A piece is missing below picture ${there.indexOf(after.capture) + 1}: scroll back to it, and on again more slowly.`;
  return join.height_px === null ? "" : `Joined so far: ${join.height_px.toLocaleString("en-GB")} px high.`;
}
