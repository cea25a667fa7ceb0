export const MODES = [
  { name: "split", words: "Split", hint: "One over the other, with a line between them" },
  { name: "beside", words: "Side by side", hint: "Both whole, scrolled together" },
  { name: "difference", words: "Difference", hint: "Only what differs, six times as strong" },
] as const;

export type Mode = (typeof MODES)[number]["name"];

export const ZOOMS = [1, 2, 4] as const;
export type Zoom = (typeof ZOOMS)[number];

interface Scrolled {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** The point of the picture in the middle of the view, as shares of its width and height. */
export function middleOf(view: Scrolled, picture: { width: number; height: number }): { x: number; y: number } {
  return { x: (view.left + view.width / 2) / picture.width, y: (view.top + view.height / 2) / picture.height };
}

/** Where to scroll so that a point is in the middle of the view. */
export function scrolledTo(
  point: { x: number; y: number },
  picture: { width: number; height: number },
  view: { width: number; height: number },
): { left: number; top: number } {
  return {
    left: Math.max(0, point.x * picture.width - view.width / 2),
    top: Math.max(0, point.y * picture.height - view.height / 2),
  };
}
