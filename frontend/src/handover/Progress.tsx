import { Square } from "lucide-react";
import type { ReactNode } from "react";

import { isOnItsWay, useLine, useLineAction } from "../api/handover";
import { asProblem } from "../api/client";
import type { HandOver } from "../api/types";
import { JobProgress } from "../parts/JobProgress";
import { ProblemNote } from "../parts/ProblemNote";

const STAGES: Record<string, string> = {
  saving: "Writing the files",
  drawing: "Drawing the pages",
  sending: "Sending",
  "waiting to try again": "The place does not answer; it is tried again shortly",
};

/** How far something is that was handed over, and what came back. */
export function Progress({ first, error, children }: { first: HandOver | undefined; error: unknown; children?: (line: HandOver) => ReactNode }) {
  const { data: line } = useLine(first);
  const act = useLineAction();
  if (error) return <ProblemNote sentence={asProblem(error).sentence} hint={asProblem(error).hint} />;
  if (!line) return null;
  if (isOnItsWay(line) && line.job)
    return (
      <div role="status" data-on-its-way>
        <JobProgress job={line.job} words={line.job.state === "queued" ? "Waiting for its turn" : STAGES[line.job.stage]} />
        <button type="button" className="btn btn-sm mt-2" onClick={() => act.mutate({ lineId: line.id, action: "stop" })}>
          <Square size={14} aria-hidden /> Stop
        </button>
      </div>
    );
  if (line.job?.error) return <ProblemNote sentence={line.job.error.sentence} hint={line.job.error.hint} />;
  if (line.job?.state === "stopped") return <p role="status">It was stopped.</p>;
  return (
    <div role="status" className="grid gap-2" data-handed-over={line.id}>
      <p className={`border-l-2 pl-2 ${line.met ? "border-base-content" : "border-accent"}`}>{line.answer}</p>
      {children?.(line)}
    </div>
  );
}
