import { formatSize } from "../../parts/figures";
import { useBench, useCut } from "../benchContext";
import { shownFrame } from "../cut/frameSteps";
import { shownSize } from "../page/geometry/folds";
import { outputSize } from "./outputSize";

/** What the row in hand makes of the frame, also while that is dragged; enlarging is said before it happens. */
export function FrameSizes() {
  const { inHand } = useBench();
  const width_px = useCut((state) => shownSize(shownFrame(state)).width_px);
  const height_px = useCut((state) => shownSize(shownFrame(state)).height_px);
  if (!inHand || width_px < 1 || height_px < 1) return null;
  const size = outputSize({ width_px, height_px }, inHand);
  const words = size.enlarged ? "enlarged" : size.keptSmall ? "smaller than asked" : `${Math.round(size.scale * 100)} %`;
  return (
    <p className="flex shrink-0 items-baseline justify-between gap-2 border-b border-base-300 px-4 py-1.5 whitespace-nowrap" title={`What “${inHand.label}” makes of this frame`} data-frame-sizes>
      <span className="figure text-xs">
        {formatSize(width_px, height_px)} → {formatSize(size.width_px, size.height_px)}
      </span>
      <span className={`text-xs ${size.enlarged || size.keptSmall ? "font-semibold text-error" : "text-info"}`}>{words}</span>
    </p>
  );
}
