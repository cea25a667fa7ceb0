import { formatSize } from "../../parts/figures";
import { foldCount } from "./geometry/folds";
import { useBench } from "../benchContext";

/** What another window made of the same frame, while somebody has to choose between the two. */
export function OtherFrame({ zoom }: { zoom: number }) {
  const { saveState } = useBench();
  if (saveState.kind !== "conflict") return null;
  const { frame } = saveState.theirs.document;
  const place = { left: frame.x_px * zoom, top: frame.y_px * zoom, width: frame.width_px * zoom, height: frame.height_px * zoom };
  return (
    <div data-other-frame className="pointer-events-none absolute z-10 outline-3 outline-secondary outline-dashed" style={place}>
      <span className="absolute top-0 right-0 bg-secondary px-2 py-0.5 text-xs text-secondary-content">
        In the other window: {formatSize(frame.width_px, frame.height_px)} px
        {foldCount(frame) > 0 && `, ${foldCount(frame)} folded away`}
      </span>
    </div>
  );
}
