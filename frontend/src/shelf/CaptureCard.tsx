import { Pencil, RotateCcw, Trash2, TriangleAlert } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";

import { isPending, useCaptureAction, useRenameCapture } from "../api/captures";
import { soFarUrl } from "../api/pictures";
import type { Capture } from "../api/types";
import { useNotices } from "../app/notices";
import { showProblem } from "../app/showProblem";
import { screenWords } from "../parts/figures";
import { JobProgress } from "../parts/JobProgress";
import { ProblemNote } from "../parts/ProblemNote";
import { TallThumb } from "../parts/TallThumb";
import { StopButtons } from "./StopButtons";
import { When } from "./When";

/** One capture on Gather or on the shelf: arriving, ready, or failed. */
export function CaptureCard({ capture }: { capture: Capture }) {
  const ready = capture.picture_key !== "";
  return (
    <article className="group flex flex-col" aria-label={capture.name} data-capture={capture.id} data-state={capture.job.state}>
      {ready ? (
        <Link to={`/captures/${capture.id}`} className="block">
          <TallThumb capture={capture} />
        </Link>
      ) : (
        <NotReady capture={capture} />
      )}
      <NameLine capture={capture} />
      {capture.passage && <p className="line-clamp-3 border-l-2 border-accent pl-2 text-sm">{capture.passage}</p>}
      <p className="truncate text-sm" title={capture.host}>
        {capture.host || "dropped picture"}
      </p>
      <p className="flex items-center justify-between gap-2 text-sm">
        <span className="truncate">
          {capture.screen && <span className="figure">{screenWords(capture.screen)} · </span>}
          <When capture={capture} />
        </span>
        <CardActions capture={capture} />
      </p>
      <WhatIsMissing capture={capture} />
    </article>
  );
}

/** What the picture does not hold of the page, with the way to more about it. */
function WhatIsMissing({ capture }: { capture: Capture }) {
  const leftOut = capture.left_out.length;
  if (capture.whole && leftOut === 0) return null;
  return (
    <p className="flex flex-wrap items-center gap-x-2 text-sm">
      {!capture.whole && (
        <Link to={`/captures/${capture.id}?report`} className="inline-flex items-center gap-1 bg-accent px-1.5 text-accent-content" title={capture.warnings.join("\n")}>
          <TriangleAlert size={14} aria-hidden /> Not whole
        </Link>
      )}
      {leftOut > 0 && (
        <Link to={`/captures/${capture.id}?report`} className="link" title={capture.left_out.join("\n")}>
          <span className="figure">{leftOut}</span> left out
        </Link>
      )}
    </p>
  );
}

function NotReady({ capture }: { capture: Capture }) {
  const action = useCaptureAction();
  const { job } = capture;
  const again = capture.source === "page" && (
    <button
      type="button"
      className="btn btn-sm mt-2"
      onClick={() => action.mutate({ captureId: capture.id, action: "again" })}
    >
      <RotateCcw size={16} aria-hidden /> Take again
    </button>
  );
  return (
    <div className="flex aspect-[4/5] flex-col justify-end border border-dashed border-base-300 p-3">
      {isPending(capture) && (
        <>
          {job.stage === "taking" && job.done > 0 && (
            <Link to={`/captures/${capture.id}`} className="mb-2 min-h-0 flex-1 overflow-hidden" title="Look at what there is">
              <img src={soFarUrl(capture)} alt="The page so far" className="torn block max-h-36 w-full object-cover object-top" />
            </Link>
          )}
          <JobProgress job={job} />
          <StopButtons capture={capture} />
        </>
      )}
      {job.state === "failed" && (
        <ProblemNote sentence={job.error?.sentence ?? "It failed."} hint={job.error?.hint ?? ""}>
          {again}
        </ProblemNote>
      )}
      {job.state === "stopped" && (
        <div className="text-sm">
          <p>Stopped before it was taken.</p>
          {again}
        </div>
      )}
    </div>
  );
}

function NameLine({ capture }: { capture: Capture }) {
  const [typed, setTyped] = useState<string | null>(null);
  const rename = useRenameCapture();
  const save = () => {
    const name = typed?.trim();
    setTyped(null);
    if (!name || name === capture.name) return;
    rename.mutate(
      { captureId: capture.id, name },
      { onError: showProblem },
    );
  };
  if (typed !== null)
    return (
      <input
        autoFocus
        aria-label="Name"
        className="input input-sm mt-2 w-full"
        maxLength={160}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={save}
        onKeyDown={(event) => {
          if (event.key === "Enter") save();
          if (event.key === "Escape") setTyped(null);
        }}
      />
    );
  return (
    <div className="mt-2 flex items-start gap-1">
      <h3 className="line-clamp-2 min-w-0 flex-1 text-[15px] leading-snug font-medium break-words" title={capture.name}>
        {capture.picture_key ? <Link to={`/captures/${capture.id}`}>{capture.name}</Link> : capture.name}
      </h3>
      <button
        type="button"
        aria-label={`Rename ${capture.name}`}
        title="Rename"
        className="btn btn-square btn-ghost btn-xs"
        onClick={() => setTyped(capture.name)}
      >
        <Pencil size={14} aria-hidden />
      </button>
    </div>
  );
}

function CardActions({ capture }: { capture: Capture }) {
  const action = useCaptureAction();
  const show = useNotices((state) => state.show);
  // The card is gone by the time it is deleted: only a promise tells it then.
  const remove = () =>
    void action.mutateAsync({ captureId: capture.id, action: "delete" }).then(
      () =>
        show({
          tone: "info",
          text: `Deleted “${capture.name}”.`,
          action: { label: "Undo", run: () => action.mutate({ captureId: capture.id, action: "restore" }) },
        }),
      showProblem,
    );
  return (
    <span className="flex items-center gap-1">
      {capture.warnings.length > 0 && (
        <span className="flex items-center gap-1 text-sm" title={capture.warnings.join("\n")}>
          <TriangleAlert size={15} className="text-accent" aria-hidden />
          <span className="sr-only">Warnings: {capture.warnings.join(" ")}</span>
          <span aria-hidden>{capture.warnings.length}</span>
        </span>
      )}
      <button type="button" aria-label={`Delete ${capture.name}`} title="Delete" className="btn btn-square btn-ghost btn-xs" onClick={remove}>
        <Trash2 size={15} aria-hidden />
      </button>
    </span>
  );
}
