import { Download, Trash2 } from "lucide-react";
import { type SyntheticEvent, useState } from "react";

import { clipFileUrl, useDeleteClipFile, useStopClipFile } from "../../api/clips";
import type { Clip, ClipOutput } from "../../api/types";
import { showProblem } from "../../app/showProblem";
import { formatBytes, formatSize } from "../../parts/figures";
import { JobProgress } from "../../parts/JobProgress";
import { LimitBar } from "../../parts/LimitBar";
import { ProblemNote } from "../../parts/ProblemNote";
import { expectedBytes } from "../playing";

const WORDS = { gif: "GIF", webp: "WebP", avif: "AVIF", mp4: "MP4", webm: "WebM" } as const;

interface ClipFileRowProps {
  clip: Clip;
  output: ClipOutput;
  /** How many pictures would be seen as the clip is now. */
  pictures: number;
  isCompared: boolean;
  onCompare: (isCompared: boolean) => void;
}

/** One file of a clip: its figures, what was given up for the limit, what would help where it cannot be met. */
export function ClipFileRow({ clip, output, pictures, isCompared, onCompare }: ClipFileRowProps) {
  const [isSeen, setIsSeen] = useState(false);
  const stop = useStopClipFile(clip.id);
  const remove = useDeleteClipFile(clip.id);
  const isMade = output.bytes > 0;
  const isUnderWay = output.job.state === "queued" || output.job.state === "running";
  const isOlder = JSON.stringify(output.document) !== JSON.stringify(clip.document);
  return (
    <li className="border-b border-base-300 py-3 text-sm" data-clip-file={output.id} data-state={output.job.state}>
      <div className="flex items-baseline justify-between gap-2">
        <span className="font-medium">{WORDS[output.format]}</span>
        {isMade && <span className="figure">{formatSize(output.width_px, output.height_px)}</span>}
      </div>
      {isMade && (
        <>
          <div className="my-1">
            <LimitBar bytes={output.bytes} limit_bytes={output.limit_bytes} met={output.met} />
          </div>
          <p className="figure">
            {formatBytes(output.bytes)} of {formatBytes(output.limit_bytes)} · fidelity {output.fidelity.toFixed(0)} · {(output.duration_ms / 1_000).toFixed(1)} s
          </p>
          <ul className="mt-1 list-disc pl-4" aria-label="What was given up">
            {output.given_up.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
          {!output.met && (
            <div className="mt-2">
              <ProblemNote sentence={output.bytes > output.limit_bytes ? "It cannot be made so light." : "Under this limit damage is seen."} hint={output.advice.map((row) => row.sentence).join(" ")} />
            </div>
          )}
          {isOlder && (
            <p className="mt-1" data-expected>
              The clip has changed since: as it is now about {formatBytes(expectedBytes(output.bytes, output.pictures_wanted, pictures))} made like this.
            </p>
          )}
          <div className="mt-2 flex flex-wrap gap-2">
            <button type="button" className="btn btn-xs" aria-expanded={isSeen} onClick={() => setIsSeen(!isSeen)}>
              {isSeen ? "Hide it" : "Show it"}
            </button>
            <button type="button" className="btn btn-xs" aria-pressed={isCompared} onClick={() => onCompare(!isCompared)}>
              {isCompared ? "Stop comparing" : "Compare"}
            </button>
            <a className="btn btn-xs" href={clipFileUrl(output.id, true)} download>
              <Download size={14} aria-hidden />
              Save file
            </a>
            <Remove onRemove={() => remove.mutate(output.id, { onError: showProblem })} />
          </div>
          {isSeen && <Seen clip={clip} output={output} />}
        </>
      )}
      {!isMade && (
        <div className="mt-1 grid gap-2">
          {output.job.error && <ProblemNote sentence={output.job.error.sentence} hint={output.job.error.hint} />}
          {output.job.state === "stopped" && <p>Stopped.</p>}
          {isUnderWay && <JobProgress job={output.job} words={output.job.stage === "fitting" ? `Trying file ${output.job.done}` : undefined} />}
          <div className="flex gap-2">
            {isUnderWay ? (
              <button type="button" className="btn btn-xs" onClick={() => stop.mutate(output.id, { onError: showProblem })}>
                Stop
              </button>
            ) : (
              <Remove onRemove={() => remove.mutate(output.id, { onError: showProblem })} />
            )}
          </div>
        </div>
      )}
    </li>
  );
}

function Remove({ onRemove }: { onRemove: () => void }) {
  return (
    <button type="button" className="btn btn-ghost btn-xs" onClick={onRemove}>
      <Trash2 size={14} aria-hidden />
      Delete
    </button>
  );
}

/** The file itself, as a page plays it, brought into the window: a film begins only where it is seen. */
function Seen({ clip, output }: { clip: Clip; output: ClipOutput }) {
  const name = `${clip.name} as ${WORDS[output.format]}`;
  const show = (event: SyntheticEvent) => event.currentTarget.scrollIntoView({ block: "nearest" });
  if (output.format === "mp4" || output.format === "webm")
    return <video src={clipFileUrl(output.id)} className="mt-2 max-w-full border border-base-300" aria-label={name} onLoadedData={show} controls loop muted autoPlay playsInline />;
  return <img src={clipFileUrl(output.id)} className="mt-2 max-w-full border border-base-300" alt={name} onLoad={show} />;
}
