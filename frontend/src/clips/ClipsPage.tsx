import { Trash2 } from "lucide-react";
import { Link } from "react-router";

import { asProblem } from "../api/client";
import { frameUrl, useClips, useDeleteClip } from "../api/clips";
import type { ClipRow } from "../api/types";
import { showProblem } from "../app/showProblem";
import { counted, formatWhen } from "../parts/figures";
import { JobProgress } from "../parts/JobProgress";
import { ProblemNote } from "../parts/ProblemNote";
import { useNow } from "../parts/useNow";
import { useTitle } from "../parts/useTitle";
import { TakeClip } from "./TakeClip";

/** A few seconds of pages: taken here, and all that were. */
export function ClipsPage() {
  useTitle("Clips");
  const clips = useClips();
  return (
    <main className="mx-auto max-w-5xl px-6 pt-6 pb-16">
      <h1 className="text-xl font-semibold">Clips</h1>
      <p className="mb-5">A few seconds of a page: scrolled through, used, or as it moves by itself.</p>
      <TakeClip />
      <h2 className="mt-10 border-b border-base-300 pb-2 font-semibold">Taken so far</h2>
      {clips.isPending && <p className="py-4">Fetching the clips…</p>}
      {clips.isError && <ProblemNote sentence={asProblem(clips.error).sentence} hint={asProblem(clips.error).hint} />}
      {clips.data?.length === 0 && <p className="py-4">None yet. Each that you take appears here.</p>}
      <ul>{clips.data?.map((clip) => <Row key={clip.id} clip={clip} />)}</ul>
    </main>
  );
}

function Row({ clip }: { clip: ClipRow }) {
  const now = useNow();
  const remove = useDeleteClip();
  const isThere = clip.frame_count > 0;
  return (
    <li className="flex items-center gap-4 border-b border-base-300 py-3" data-clip={clip.id} data-state={clip.job.state}>
      <div className="h-16 w-28 shrink-0 overflow-hidden bg-base-200">{isThere && <img src={frameUrl(clip, 0, 120, false)} alt="" className="h-full w-full object-contain" />}</div>
      <div className="min-w-0 flex-1">
        <Link to={`/clips/${clip.id}`} className="font-semibold break-words hover:underline">
          {clip.name}
        </Link>
        <p className="truncate text-sm text-info">{clip.address}</p>
        {isThere ? (
          <p className="figure text-sm">
            {counted(clip.frame_count, "frame")}, {(clip.frame_count / clip.rate_fps).toFixed(1)} s
          </p>
        ) : clip.job.error ? (
          <p className="text-sm text-error">{clip.job.error.sentence}</p>
        ) : clip.job.state === "stopped" ? (
          <p className="text-sm">Stopped.</p>
        ) : (
          <JobProgress job={clip.job} words={clip.job.stage === "taking" ? "Taking frames" : undefined} />
        )}
      </div>
      <span className="text-sm whitespace-nowrap">{formatWhen(clip.created_at, now)}</span>
      <button type="button" className="btn btn-square btn-ghost btn-sm" aria-label={`Delete the clip ${clip.name}`} title="Delete" onClick={() => remove.mutate(clip.id, { onError: showProblem })}>
        <Trash2 size={16} aria-hidden />
      </button>
    </li>
  );
}
