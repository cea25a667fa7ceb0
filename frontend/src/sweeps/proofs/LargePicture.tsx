import { useEffect } from "react";

import { useCapture } from "../../api/captures";
import { stripUrl, thumbnailUrl } from "../../api/pictures";
import { useViewport } from "../../bench/page/useViewport";

const WIDEST_PX = 1_000;
const ABOVE_PX = 90;

/** A rectangle in page pixels that is outlined; the one that is gone to is outlined more strongly. */
export interface Marked {
  x_px: number;
  y_px: number;
  width_px: number;
  height_px: number;
  here: boolean;
}

interface LargePictureProps {
  picture: { id: number; picture_key: string };
  marked: Marked[];
  scroller: HTMLDivElement | null;
}

/** A whole capture from its strips, with outlines over it. */
export function LargePicture({ picture, marked, scroller }: LargePictureProps) {
  const { data: size } = useCapture(picture.id);
  const room = useViewport(scroller);
  const widthPx = size ? Math.min(size.width_px / size.scale, WIDEST_PX, room.width || WIDEST_PX) : 0;
  const by = size ? widthPx / size.width_px : 1;
  const hereTop = marked.find((box) => box.here)?.y_px;
  useEffect(() => {
    if (size && hereTop !== undefined) scroller?.scrollTo({ top: hereTop * by - ABOVE_PX });
  }, [size, hereTop, by, scroller]);
  if (!size) return <img src={thumbnailUrl(picture)} alt="" className="mx-auto block w-full max-w-3xl" />;
  return (
    <div className="relative mx-auto" style={{ width: widthPx }}>
      {size.strips.map((strip) => (
        <img
          key={strip.number}
          src={stripUrl(picture, strip.number, size.width_px / widthPx >= 2 ? 2 : 1)}
          alt=""
          loading="lazy"
          className="block w-full"
          style={{ height: strip.height_px * by }}
        />
      ))}
      {marked.map((box) => (
        <span
          key={`${box.x_px}-${box.y_px}`}
          data-changed-here
          className={`pointer-events-none absolute border-2 border-accent ${box.here ? "outline-4 outline-accent/50" : ""}`}
          style={{ left: box.x_px * by - 3, top: box.y_px * by - 3, width: box.width_px * by + 6, height: box.height_px * by + 6 }}
        />
      ))}
    </div>
  );
}
