import type { Job } from "../api/types";

const STAGES: Record<string, string> = {
  opening: "Opening the page",
  scrolling: "Scrolling to the end",
  settling: "Letting it settle",
  taking: "Taking strips",
  fitting: "Looking at a sample",
};

/** A stage, and a bar with counts where something is counted. */
export function JobProgress({ job, words: given }: { job: Job; words?: string | undefined }) {
  const words = given ?? (job.state === "queued" ? "Waiting for its turn" : (STAGES[job.stage] ?? "Starting"));
  const counted = job.expected > 0;
  const share = counted ? Math.min(1, job.done / job.expected) : 0;
  return (
    <div className="text-sm">
      <div className="flex justify-between gap-2">
        <span>{words}</span>
        {counted && (
          <span className="figure">
            {job.done.toLocaleString("en-GB")} / {job.expected.toLocaleString("en-GB")}
          </span>
        )}
      </div>
      <progress
        className="progress mt-1 h-1 w-full text-primary"
        aria-label={words}
        {...(counted ? { value: share, max: 1 } : {})}
      />
    </div>
  );
}
