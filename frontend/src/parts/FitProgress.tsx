import { Square } from "lucide-react";

import type { Job } from "../api/types";
import { formatBytes } from "./figures";
import { JobProgress } from "./JobProgress";
import { expectedWords, tryingWords } from "./fitWords";

interface Props {
  job: Job;
  limit_bytes: number | null;
  onStop: () => void;
}

/** A search under way: what is expected, what is being tried, the best so far; and a way to end it with that. */
export function FitProgress({ job, limit_bytes, onStop }: Props) {
  const { told } = job;
  return (
    <div className="my-2 text-sm" data-fitting>
      {told?.expected && (
        <p className="mb-1 border-l-2 border-base-300 pl-2" data-verdict={told.expected.met ? "fits" : "does not"}>
          {expectedWords(told.expected, limit_bytes)}
        </p>
      )}
      {told?.best && (
        <p className="mb-1 border-l-2 border-base-300 pl-2" data-best-so-far>
          Best so far: {told.best.recipe}, <span className="figure">{formatBytes(told.best.bytes)}</span>, fidelity{" "}
          <span className="figure">{told.best.fidelity.toFixed(0)}</span>
        </p>
      )}
      <JobProgress job={job} words={tryingWords(job)} />
      <button type="button" className="btn btn-xs mt-2" onClick={onStop}>
        <Square size={12} aria-hidden /> {told?.best ? "Stop and keep this" : "Stop"}
      </button>
    </div>
  );
}
