/** Addresses of pictures. The key is in them so that a browser never shows an old one. */
export function thumbnailUrl(capture: { id: number; picture_key: string }): string {
  return `/api/captures/${capture.id}/thumbnail?key=${capture.picture_key}`;
}

const SMALL_THUMBNAIL_PX = 220;

/** The lightest thumbnail that is sharp when shown so wide. */
export function thumbnailUrlFor(capture: { id: number; picture_key: string }, widthPx: number): string {
  const small = widthPx * window.devicePixelRatio <= SMALL_THUMBNAIL_PX;
  return `${thumbnailUrl(capture)}${small ? "&size=small" : ""}`;
}

/** The uppermost square of a thumbnail: rows of a list show no more, and tall pictures take long to decode. */
export const topThumbnailUrl = (capture: { id: number; picture_key: string }) => `${thumbnailUrl(capture)}&size=top`;

/** What there is of a page that is being taken; a new address for every strip that has come. */
export function soFarUrl(capture: { id: number; job: { done: number } }): string {
  return `/api/captures/${capture.id}/so-far?strips=${capture.job.done}`;
}

export function stripSoFarUrl(capture: { id: number }, number: number): string {
  return `/api/captures/${capture.id}/so-far/${number}`;
}

export function spineUrl(capture: { id: number; picture_key: string }, preparation: string): string {
  const said = preparation && `&preparation=${encodeURIComponent(preparation)}`;
  return `/api/captures/${capture.id}/spine?key=${capture.picture_key}${said}`;
}

export function stripUrl(capture: { id: number; picture_key: string }, number: number, shrink: 1 | 2 | 4): string {
  return `/api/captures/${capture.id}/strips/${number}?shrink=${shrink}&key=${capture.picture_key}`;
}

export function outputFileUrl(output: { id: number; file_key: string }): string {
  return `/api/outputs/${output.id}/file?key=${output.file_key}`;
}

export type BandSide = "original" | "result" | "difference";

export function bandUrl(output: { id: number; file_key: string }, side: BandSide, number: number): string {
  return `/api/outputs/${output.id}/${side}/${number}?key=${output.file_key}`;
}

export function leafFileUrl(output: { id: number; file_key: string }, number: number): string {
  return `/api/outputs/${output.id}/leaves/${number}/file?key=${output.file_key}`;
}

/** The worst place of the chosen file: as it was, or as the candidate of that number shows it. */
export function swatchUrl(output: { id: number; swatch_key: string }, name: "original" | number): string {
  return `/api/outputs/${output.id}/swatches/${name}?key=${output.swatch_key}`;
}
