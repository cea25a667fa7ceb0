import { formatBytes, formatPx } from "../../parts/figures";
import { useBench } from "../benchContext";

const WIDTH = 11;

/** Which stretch of the page costs most in the file in hand: bytes for each row, as bars. */
export function WeightLine({ perPagePixel }: { perPagePixel: number }) {
  const { inHand } = useBench();
  if (!inHand?.file_key || inHand.stale) return null;
  const perRow = inHand.weights.map((band) => band.bytes / band.height_px);
  const costliest = Math.max(...perRow, 1e-9);
  return (
    <div data-weight-line className="absolute top-0 left-full ml-0.5" style={{ width: WIDTH }}>
      {inHand.weights.map((band, index) => (
        <div
          key={band.top_px}
          className="absolute left-0 bg-accent/80 hover:bg-accent"
          style={{
            top: band.top_px * perPagePixel,
            height: Math.max(1, band.height_px * perPagePixel - 0.5),
            width: Math.max(1, ((perRow[index] ?? 0) / costliest) * WIDTH),
          }}
          title={`${formatBytes(band.bytes)} from ${formatPx(Math.round(band.top_px))} to ${formatPx(Math.round(band.top_px + band.height_px))} px`}
        />
      ))}
    </div>
  );
}
