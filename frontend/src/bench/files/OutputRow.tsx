import { Columns2, Download, RefreshCw, Trash2 } from "lucide-react";
import { Link } from "react-router";

import { isFitting, useDeleteOutput, useFitAgain, useStopOutput } from "../../api/outlets";
import { outputFileUrl } from "../../api/pictures";
import type { Output } from "../../api/types";
import { titled } from "../../app/actions/registry";
import { showProblem } from "../../app/showProblem";
import { HandOverPanel } from "../../handover/HandOverPanel";
import { divisible } from "../../parts/fields/sizing";
import { wantedWords } from "../../parts/fields/wanted";
import { formatBytes, formatSize, formatsOf } from "../../parts/figures";
import { FitProgress } from "../../parts/FitProgress";
import { expectedShortly } from "../../parts/fitWords";
import { LimitBar } from "../../parts/LimitBar";
import { ProblemNote } from "../../parts/ProblemNote";
import { askedFirst } from "../../rights/askedFirst";
import { useBench } from "../benchContext";
import { ByHand } from "./asking/ByHand";
import { draggedOut } from "./draggedOut";
import { Leaves } from "./Leaves";
import { Legible } from "./Legible";
import { NotMet } from "./tradeoff/NotMet";

interface Props {
  output: Output;
  open: boolean;
  onToggle: () => void;
}

/** One file of the ledger. Closed: the figures. Open: why, the settings, what to do with it. */
export function OutputRow({ output, open, onToggle }: Props) {
  return (
    <li className={`border-b border-base-300 ${open ? "bg-base-200/60" : ""}`} data-output={output.id} data-state={output.job.state}>
      <button type="button" className="block w-full px-4 pt-3 pb-2 text-left" aria-expanded={open} onClick={onToggle}>
        <span className="flex items-baseline justify-between gap-2">
          <span className="truncate font-medium" title={output.label}>
            {output.label}
          </span>
          {output.format && <span className="figure shrink-0 text-sm">{formatsOf(output)}</span>}
        </span>
        <Figures output={output} open={open} />
      </button>
      {open && <Opened output={output} />}
    </li>
  );
}

function Figures({ output, open }: { output: Output; open: boolean }) {
  if (!output.file_key)
    return (
      <span className="mt-1 block text-sm">
        <span className="figure">{output.size_words}</span>,{output.least_fidelity == null && " at most"}{" "}
        <span className="figure">{wantedWords(output)}</span>
        {!open && isFitting(output) && output.job.told?.expected && (
          <span className="block">{expectedShortly(output.job.told.expected)}</span>
        )}
      </span>
    );
  const limit_bytes = output.limit_bytes ?? null;
  return (
    <span className="mt-1 block text-sm">
      <span className="flex justify-between gap-2">
        <span className="figure">
          {formatSize(output.made_width_px, output.made_height_px)}
          {output.leaves.length > 0 && ` in ${output.leaves.length}`}
        </span>
        <span className="figure" data-fidelity title={`Fidelity: ${output.looks}`}>
          fidelity {output.fidelity?.toFixed(0)}
          {output.least_fidelity != null && `, ${output.least_fidelity} wanted`}
        </span>
      </span>
      {limit_bytes != null && <LimitBar bytes={output.bytes} limit_bytes={limit_bytes} met={output.met} />}
      <span className="figure flex justify-between">
        <span data-bytes={output.bytes} className={limit_bytes != null && output.bytes > limit_bytes ? "font-medium text-error" : ""}>
          {output.leaves.length > 0 && "heaviest "}
          {formatBytes(output.bytes)}
        </span>
        <span>{limit_bytes == null ? "as light as it can be" : `of ${formatBytes(limit_bytes)}`}</span>
      </span>
    </span>
  );
}

function Opened({ output }: { output: Output }) {
  const { capture, cut, saver } = useBench();
  const again = useFitAgain(cut.id);
  const remove = useDeleteOutput(cut.id);
  const stop = useStopOutput(cut.id);
  const refit = async (followSlot: boolean) => {
    await saver.flush();
    again.mutate(
      { outputId: output.id, choice: null, followSlot },
      { onError: showProblem },
    );
  };
  const fitting = isFitting(output);
  const worthFittingAgain = !fitting && (output.stale || !output.file_key || output.job.state !== "done");
  return (
    <div className="px-4 pb-4">
      {fitting && <FitProgress job={output.job} limit_bytes={output.least_fidelity == null ? (output.limit_bytes ?? null) : null} onStop={() => stop.mutate(output.id)} />}
      {output.job.state === "stopped" && !output.file_key && <p className="my-2 text-sm">Stopped before there was a file.</p>}
      {output.job.state === "failed" && output.job.error && (
        <ProblemNote sentence={output.job.error.sentence} hint={output.job.error.hint} />
      )}
      {!output.met && (output.job.state === "done" || output.job.told?.advising) && <NotMet output={output} />}
      {output.stale && !fitting && (
        <p className="my-2 border-l-2 border-accent pl-2 text-sm">The cut has changed since this file was made.</p>
      )}
      {output.slot_changed && !fitting && (
        <p className="my-2 border-l-2 border-accent pl-2 text-sm" data-slot-changed>
          The slot’s rules have changed since.{" "}
          <button type="button" className="btn btn-xs" onClick={() => void refit(true)}>
            Fit to the slot
          </button>
        </p>
      )}
      {output.kept_small && (
        <p className="my-2 border-l-2 border-base-300 pl-2 text-sm" data-kept-small>
          Not enlarged to {output.size_words}: the cut has no more pixels.{capture.screen && " Take the page at a higher scale for more."}
        </p>
      )}
      <Legible output={output} />
      <div className="my-3 flex flex-wrap gap-2">
        {output.file_key && (
          <>
            <a className="btn btn-primary btn-sm" href={outputFileUrl(output)} download onClick={askedFirst(capture)} title={titled("saveFile", "Save file: press, or drag it to where it is needed")} onDragStart={capture.rights.cleared ? draggedOut(output) : askedFirst(capture)}>
              <Download size={16} aria-hidden /> {output.leaves.length > 0 ? "Save all" : "Save file"}
            </a>
            <Link className="btn btn-sm" to={`/captures/${capture.id}/cuts/${cut.id}/compare/${output.id}`} title={titled("compare", "Compare")}>
              <Columns2 size={16} aria-hidden /> Compare
            </Link>
            <HandOverPanel handed={{ what: { outputs: [output.id] }, name: output.label, output, address: capture.final_address || capture.address }} />
          </>
        )}
        {worthFittingAgain && (
          <button type="button" className="btn btn-sm" onClick={() => void refit(false)}>
            <RefreshCw size={15} aria-hidden /> Fit again
          </button>
        )}
        <button type="button" className="btn btn-square btn-ghost btn-sm ml-auto" aria-label={`Remove ${output.label}`} title="Remove this row" onClick={() => remove.mutate(output.id)}>
          <Trash2 size={15} aria-hidden />
        </button>
      </div>
      {output.file_key && output.made_choice && (
        <>
          <p className="mb-3 text-sm" data-why>
            {output.by_hand ? `Chosen by hand: ${output.looks}.` : output.why}
          </p>
          {divisible(output.way) && <Leaves output={output} />}
          <ByHand output={output} />
        </>
      )}
    </div>
  );
}
