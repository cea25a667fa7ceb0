import type { Lacking, TakeSettings } from "../../api/types";

/** What keeps words from the picture, for a person. */
export const WHY: Record<Lacking["why"], string> = {
  panel: "A panel scrolls by itself",
  frame: "A frame scrolls by itself",
  locked: "A box cuts off what is in it",
  layer: "A layer over the page was left out",
  see_through: "Laid out, but not visible",
  outside: "Below the picture",
  beside: "A part is scrolled sideways",
  blank: "Nothing was drawn where they belong",
  scripts: "The page is blank, because its scripts failed",
};

export interface MissingHelp {
  label: string;
  /** Another address to take instead of the page's. */
  address?: string;
  change: Partial<TakeSettings>;
}

/** What would bring the missing words, where one press can. */
export function helpFor({ why, target }: Pick<Lacking, "why" | "target">): MissingHelp | null {
  if ((why === "panel" || why === "locked") && target) return { label: "Take this panel in its whole length", change: { extent: "panel", element: target } };
  if (why === "frame" && /^https?:/.test(target)) return { label: "Take this frame as a page", address: target, change: {} };
  if (why === "layer" && target) return { label: "Take this layer", change: { extent: "panel", element: target } };
  if (why === "see_through" || why === "scripts") return { label: "Take again with 5 more seconds", change: { wait_ms: 5_000 } };
  return null;
}
