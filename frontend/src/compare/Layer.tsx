import { bandUrl, type BandSide } from "../api/pictures";
import type { Output } from "../api/types";
import type { Band } from "./bands";

interface Props {
  output: Output;
  side: BandSide;
  bands: Band[];
  /** CSS px for each px of the file. */
  scale: number;
}

/** One side of the comparison: the bands of it that are near the view. */
export function Layer({ output, side, bands, scale }: Props) {
  const magnified = scale * window.devicePixelRatio > 1;
  return (
    <>
      {bands.map((band) => (
        <img
          key={`${output.file_key} ${side} ${band.number}`}
          src={bandUrl(output, side, band.number)}
          alt=""
          draggable={false}
          data-side={side}
          className="absolute left-0 w-full"
          style={{
            top: band.top_px * scale,
            height: band.height_px * scale,
            imageRendering: magnified ? "pixelated" : "auto",
          }}
        />
      ))}
    </>
  );
}
