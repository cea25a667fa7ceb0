import { X } from "lucide-react";
import { useEffect, useRef } from "react";
import { Link } from "react-router";

import { stripUrl, thumbnailUrl } from "../api/pictures";
import { useCapture } from "../api/captures";
import type { Shot, SweepRow } from "../api/types";
import { formatSize } from "../parts/figures";

const MARK_WORDS = { keep: "kept", retake: "to be retaken" } as const;

interface LargeViewProps {
  row: SweepRow;
  shot: Shot;
  onClose: () => void;
}

/** One picture as large as the window, from its strips; the arrow keys of the proofs go on working. */
export function LargeView({ row, shot, onClose }: LargeViewProps) {
  const scroller = useRef<HTMLDivElement>(null);
  useEffect(() => {
    scroller.current?.scrollTo({ top: 0 });
  }, [shot.id]);
  return (
    <section className="absolute inset-0 z-20 flex flex-col bg-base-100" aria-label="Large view">
      <div className="flex items-center gap-3 border-b border-base-300 px-4 py-2 text-sm">
        <span className="figure">{row.number}</span>
        <span className="min-w-0 flex-1 truncate">
          <span className="font-semibold">{row.title || row.address}</span> {row.title && row.address}
        </span>
        {(shot.mark || shot.dropped) && (
          <span className="rounded-selector border border-base-content px-2">{shot.dropped ? "dropped" : MARK_WORDS[shot.mark || "keep"]}</span>
        )}
        {shot.width_px > 0 && <span className="figure">{formatSize(shot.width_px, shot.height_px)}</span>}
        {shot.capture_id !== null && shot.picture_key && (
          <Link className="btn btn-sm" to={`/captures/${shot.capture_id}`}>
            Open on the Bench
          </Link>
        )}
        <button type="button" className="btn btn-square btn-ghost btn-sm" aria-label="Close" title="Close (Esc)" onClick={onClose}>
          <X size={18} aria-hidden />
        </button>
      </div>
      {[...shot.warnings, shot.job?.error?.sentence ?? ""].filter(Boolean).map((words) => (
        <p key={words} className="border-b border-base-300 bg-base-200 px-4 py-1 text-sm">
          {words}
        </p>
      ))}
      <div ref={scroller} className="min-h-0 flex-1 overflow-y-auto bg-base-200">
        {shot.capture_id !== null && shot.picture_key ? (
          <Strips captureId={shot.capture_id} pictureKey={shot.picture_key} />
        ) : (
          <p className="p-10 text-center">There is no picture yet.</p>
        )}
      </div>
      <p className="border-t border-base-300 px-4 py-1 text-xs">
        ← → ↑ ↓ next · K keep · R retake · D drop · U neither · Esc back to the proofs
      </p>
    </section>
  );
}

function Strips({ captureId, pictureKey }: { captureId: number; pictureKey: string }) {
  const capture = useCapture(captureId);
  const size = capture.data;
  const picture = { id: captureId, picture_key: pictureKey };
  if (!size) return <img src={thumbnailUrl(picture)} alt="" className="mx-auto block w-full max-w-3xl" />;
  const widthPx = Math.min(size.width_px / size.scale, 1_000);
  return (
    <div className="mx-auto" style={{ width: widthPx }}>
      {size.strips.map((strip) => (
        <img
          key={strip.number}
          src={stripUrl(picture, strip.number, size.width_px / widthPx >= 2 ? 2 : 1)}
          alt=""
          loading="lazy"
          className="block w-full"
          style={{ height: (strip.height_px * widthPx) / size.width_px }}
        />
      ))}
    </div>
  );
}
