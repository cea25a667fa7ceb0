import { useState } from "react";

import { formatBytes, formatSize } from "../../../parts/figures";
import { useBench, useCut } from "../../benchContext";
import { shownFrame } from "../../cut/frameSteps";
import { shownSize } from "../../page/geometry/folds";
import { outputSize } from "../outputSize";
import { expectedBytes, type MadeFile } from "../tradeoff/expectedBytes";

/** What the row in hand makes of the frame, also while that is dragged; enlarging is said before it happens. */
export function FrameSizes() {
  const { inHand } = useBench();
  const width_px = useCut((state) => shownSize(shownFrame(state)).width_px);
  const height_px = useCut((state) => shownSize(shownFrame(state)).height_px);
  if (!inHand || width_px < 1 || height_px < 1) return null;
  const size = outputSize({ width_px, height_px }, inHand);
  const words = size.enlarged ? "enlarged" : size.keptSmall ? "smaller than asked" : `${Math.round(size.scale * 100)} %`;
  return (
    <div className="shrink-0 border-b border-base-300 px-4 py-1.5 whitespace-nowrap" title={`What “${inHand.label}” makes of this frame`} data-frame-sizes>
      <p className="flex items-baseline justify-between gap-2">
        <span className="figure text-xs">
          {formatSize(width_px, height_px)} → {formatSize(size.width_px, size.height_px)}
        </span>
        <span className={`text-xs ${size.enlarged || size.keptSmall ? "font-semibold text-error" : "text-info"}`}>{words}</span>
      </p>
      <Expected />
    </div>
  );
}

/** While the frame is another than that of the file: what it would cost, encoded as the file is. */
function Expected() {
  const made = useMadeFile();
  const bytes = useCut((state) => (made && shownFrame(state) !== made.frame ? expectedBytes(shownFrame(state), made) : null));
  if (!made || bytes === null) return null;
  const limit = made.output.limit_bytes ?? null;
  const over = limit !== null && bytes > limit;
  return (
    <p className="flex items-baseline justify-between gap-2 text-xs" data-expected-bytes={bytes}>
      <span className={over ? "text-error" : ""}>
        about <span className="figure">{formatBytes(bytes)}</span> as it is encoded now
      </span>
      {over && <span className="text-error">over {formatBytes(limit)}</span>}
    </p>
  );
}

/** The file of the row in hand with the frame that it shows; while the frame is changed, the last such file. */
function useMadeFile(): MadeFile | null {
  const { inHand, saveState } = useBench();
  const frame = useCut((state) => (state.preview ? null : state.document.frame));
  const [made, setMade] = useState<MadeFile | null>(null);
  // A file that was there before the frame changed says nothing of the new one.
  const isNew = inHand?.file_key && (made?.output.file_key !== inHand.file_key || made.output.id !== inHand.id);
  if (isNew && !inHand.stale && saveState.kind === "saved" && frame) setMade({ frame, output: inHand });
  return made?.output.id === inHand?.id ? made : null;
}
