import { Check, Clock, RotateCcw, TriangleAlert } from "lucide-react";

import { thumbnailUrlFor } from "../../api/pictures";
import type { Shot } from "../../api/types";
import { formatSize, percent } from "../../parts/figures";

interface ProofCellProps {
  shot: Shot;
  title: string;
  widthPx: number;
  heightPx: number;
  here: boolean;
  onOpen: () => void;
}

/** One page on one screen: its picture, torn off at the row's height, or what there is to say instead. */
export function ProofCell({ shot, title, widthPx, heightPx, here, onOpen }: ProofCellProps) {
  const ready = shot.picture_key !== "" && shot.capture_id !== null;
  const natural = ready ? (widthPx * shot.height_px) / shot.width_px : heightPx;
  const shownPx = Math.min(heightPx, natural);
  const badges = [shot.blank ? "blank?" : "", shot.whole ? "" : "not whole", changeWords(shot)].filter(Boolean);
  return (
    <button
      type="button"
      data-shot={shot.id}
      data-state={ready ? "done" : (shot.job?.state ?? "waiting")}
      className={`relative block shrink-0 self-start text-left ${here ? "outline-3 outline-offset-2 outline-focus" : ""} ${shot.dropped ? "opacity-40" : ""}`}
      style={{ width: widthPx }}
      onClick={onOpen}
    >
      <span className="sr-only">{title}: </span>
      {ready ? (
        <span className={`seethrough block overflow-hidden border border-base-300 ${natural > heightPx ? "torn" : ""}`} style={{ height: shownPx }}>
          <img src={thumbnailUrlFor({ id: shot.capture_id ?? 0, picture_key: shot.picture_key }, widthPx)} alt="" loading="lazy" decoding="async" className="block w-full" />
        </span>
      ) : (
        <span className="grid place-items-center border border-dashed border-base-300 p-2 text-center text-xs" style={{ height: Math.min(heightPx, 120) }}>
          <Instead shot={shot} />
        </span>
      )}
      {badges.length > 0 && (
        <span className="absolute top-0 right-0 bg-accent px-1.5 text-xs text-accent-content" data-change={shot.change}>
          {badges.join(", ")}
        </span>
      )}
      <span className="figure mt-1 flex items-center gap-1 text-xs">
        {shot.mark === "keep" && <Check size={14} role="img" aria-label="kept" className="text-success" />}
        {shot.mark === "retake" && <RotateCcw size={14} role="img" aria-label="to be retaken" className="text-secondary" />}
        {shot.warnings.length > 0 && (
          <span title={shot.warnings.join(" ")}>
            <TriangleAlert size={14} role="img" aria-label="with warnings" className="text-accent" />
          </span>
        )}
        {ready && formatSize(shot.width_px, shot.height_px)}
        {shot.dropped && " dropped"}
      </span>
    </button>
  );
}

const CHANGES: Partial<Record<Shot["change"], string>> = { changed: "changed", new: "new", gone: "gone" };

function changeWords(shot: Shot): string {
  const words = CHANGES[shot.change] ?? "";
  return shot.change === "changed" ? `${words} ${percent(shot.changed_share)}` : words;
}

function Instead({ shot }: { shot: Shot }) {
  if (shot.job?.error) return <span className="line-clamp-5 text-error">{shot.job.error.sentence}</span>;
  if (shot.job?.state === "running")
    return <span>{shot.job.expected ? `${shot.job.stage}: ${shot.job.done} of ${shot.job.expected}` : shot.job.stage || "begun"}</span>;
  if (shot.job?.state === "stopped") return <span>stopped</span>;
  return (
    <span className="flex items-center gap-1">
      <Clock size={14} aria-hidden /> waiting
    </span>
  );
}
