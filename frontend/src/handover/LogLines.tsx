import { RotateCcw } from "lucide-react";

import { asProblem } from "../api/client";
import { useLineAction, useLog } from "../api/handover";
import type { HandOver } from "../api/types";
import { useNotices } from "../app/notices";
import { showProblem } from "../app/showProblem";
import { formatBytes, formatWhen } from "../parts/figures";
import { ProblemNote } from "../parts/ProblemNote";
import { useNow } from "../parts/useNow";
import { Shared } from "./ways/LinkWay";

/** The lines of a capture's log, the latest first. */
export function LogLines({ captureId }: { captureId: number }) {
  const log = useLog(captureId);
  if (log.isError) return <ProblemNote sentence={asProblem(log.error).sentence} hint={asProblem(log.error).hint} />;
  if (!log.data) return <p>Looking at the log…</p>;
  if (log.data.length === 0) return <p>Nothing has left yet. What is saved, sent, shared or uploaded is noted here.</p>;
  return (
    <ul className="-mb-3">
      {log.data.map((line) => (
        <Line key={line.id} line={line} />
      ))}
    </ul>
  );
}

function Line({ line }: { line: HandOver }) {
  const now = useNow();
  const act = useLineAction();
  const again = (uncleared = false) =>
    act.mutate(
      { lineId: line.id, action: "again", uncleared },
      {
        onSuccess: (made) => {
          if (made.way === "file" || made.way === "zip") window.location.assign(made.file_url);
        },
        onError: (error) => {
          const { code, sentence } = asProblem(error);
          if (code !== "not_cleared") showProblem(error);
          else useNotices.getState().show({ tone: "error", text: sentence, action: { label: "Hand over all the same", run: () => again(true) } });
        },
      },
    );
  return (
    <li className="grid grid-cols-[minmax(0,1fr)] gap-1 border-b border-base-300 py-3 last:border-b-0" data-log-line={line.way}>
      <span className="flex items-baseline gap-2">
        <span className="font-medium">{line.way_words}</span>
        <span className="min-w-0 truncate" title={line.where}>
          {line.where && `to ${line.where}`}
        </span>
        <time className="ml-auto shrink-0 text-info" dateTime={line.created_at}>
          {formatWhen(line.created_at, now)}
          {line.person && `, ${line.person}`}
        </time>
      </span>
      <Outcome line={line} />
      {line.uncleared && <span className="border-l-2 border-accent pl-2">Its rights were not cleared.</span>}
      {line.files.slice(0, 3).map((file) => (
        <span key={file.name} className="flex gap-2 font-mono text-xs">
          <span className="min-w-0 truncate" title={file.name}>
            {file.name}
          </span>
          {file.bytes > 0 && <span className="shrink-0">{formatBytes(file.bytes)}</span>}
        </span>
      ))}
      {line.files.length > 3 && <span className="text-xs">and {line.files.length - 3} more files</span>}
      {line.link && <Shared line={line} />}
      {line.way !== "copied" && (
        <button type="button" className="btn btn-xs justify-self-start" disabled={act.isPending} onClick={() => again()}>
          <RotateCcw size={13} aria-hidden /> Again, with the newest files
        </button>
      )}
    </li>
  );
}

function Outcome({ line }: { line: HandOver }) {
  const { job } = line;
  if (job?.error)
    return (
      <span className="text-error">
        {job.error.sentence} {job.error.hint}
      </span>
    );
  if (job?.state === "stopped") return <span>It was stopped.</span>;
  if (job && job.state !== "done") return <span>On its way.</span>;
  return <span>{line.answer}</span>;
}
