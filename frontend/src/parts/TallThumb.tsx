import { thumbnailUrl } from "../api/pictures";
import type { Capture } from "../api/types";
import { formatSize } from "./figures";

/** Height of a thumbnail at most, in multiples of its width; below that it is torn off. */
const GREATEST_SHAPE = 1.6;

/** The page in true proportion, torn off where it is too tall, its pixels beneath. */
export function TallThumb({ capture }: { capture: Capture }) {
  const shape = capture.height_px / capture.width_px;
  const torn = shape > GREATEST_SHAPE;
  return (
    <div>
      <div className={`seethrough overflow-hidden border border-base-300 hover:border-base-content ${torn ? "torn" : ""}`} style={{ aspectRatio: `1 / ${Math.min(shape, GREATEST_SHAPE)}` }}>
        <img
          src={thumbnailUrl(capture)}
          alt=""
          loading="lazy"
          className="block w-full"
          style={{ aspectRatio: `1 / ${Math.min(shape, 2.5)}` }}
        />
      </div>
      <p className="figure mt-1.5 text-center text-sm">{formatSize(capture.width_px, capture.height_px)}</p>
    </div>
  );
}
