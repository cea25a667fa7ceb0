import { stripUrl } from "../../api/pictures";
import { TILE_PX, tileUrl } from "../../api/prepared";
import type { Strip } from "../../api/types";
import { useBench, useCut, usePage, usePreparation } from "../benchContext";
import { shownCut } from "../cut/cutStore";
import { filterOf } from "../tone/toneSteps";
import type { PageSize } from "./geometry/boxes";
import { shrinkFor } from "./geometry/zoom";

/** A stretch of the page, in px of it. */
export interface Stretch {
  left_px: number;
  top_px: number;
  right_px: number;
  bottom_px: number;
}

interface Picture {
  name: string;
  url: string;
  left_px: number;
  top_px: number;
  width_px: number;
  height_px: number;
}

/** Names of the pictures of a page that reach into a stretch: strips of one as it was taken, else squares. */
export function picturesNear(near: Stretch, strips: readonly Strip[], page: PageSize, prepared: boolean, shrink: number): string[] {
  if (!prepared)
    return strips.flatMap((strip, index) => (strip.top_px < near.bottom_px && strip.top_px + strip.height_px > near.top_px ? [`${index}`] : []));
  const side = TILE_PX * shrink;
  const range = (first: number, last: number, length: number) => {
    const [from, to] = [Math.max(0, Math.floor(first / side)), Math.min(Math.ceil(length / side) - 1, Math.floor(last / side))];
    return Array.from({ length: Math.max(0, to - from + 1) }, (_, at) => from + at);
  };
  return range(near.top_px, near.bottom_px, page.height_px).flatMap((row) => range(near.left_px, near.right_px, page.width_px).map((column) => `${column}/${row}`));
}

/** The pixels of the page at a zoom: only the pictures that are named are there at all. */
export function PagePictures({ names, zoom }: { names: readonly string[]; zoom: number }) {
  const { capture } = useBench();
  const page = usePage();
  const preparation = usePreparation();
  const tone = useCut((state) => shownCut(state).tone);
  const shrink = shrinkFor(zoom, window.devicePixelRatio);
  const pictures = names.flatMap((name): Picture[] => {
    const [column, row] = name.split("/").map(Number);
    if (column === undefined) return [];
    if (row === undefined) {
      const strip = capture.strips[column];
      return strip && !preparation ? [{ name, url: stripUrl(capture, strip.number, shrink), left_px: 0, top_px: strip.top_px, width_px: page.width_px, height_px: strip.height_px }] : [];
    }
    const side = TILE_PX * shrink;
    const [left_px, top_px] = [column * side, row * side];
    const size = { width_px: Math.min(side, page.width_px - left_px), height_px: Math.min(side, page.height_px - top_px) };
    return size.width_px > 0 && size.height_px > 0 ? [{ name, url: tileUrl(capture, { column, row }, shrink, preparation), left_px, top_px, ...size }] : [];
  });
  return pictures.map((picture) => {
    // Whole CSS px, so that neighbours meet without a seam.
    const [left, top] = [Math.round(picture.left_px * zoom), Math.round(picture.top_px * zoom)];
    const width = Math.round((picture.left_px + picture.width_px) * zoom) - left;
    const height = Math.round((picture.top_px + picture.height_px) * zoom) - top;
    return (
      <img
        key={picture.name}
        src={picture.url}
        alt=""
        draggable={false}
        data-strip={picture.name}
        data-at={`${picture.left_px} ${picture.top_px} ${shrink}`}
        className="absolute max-w-none select-none"
        style={{ left, top, width, height, filter: filterOf(tone), imageRendering: zoom * window.devicePixelRatio > 1 ? "pixelated" : "auto" }}
      />
    );
  });
}
