import type { HiddenArea } from "../../../api/types";

export type HidingWay = HiddenArea["how"];

/** How an area is hidden, in words, and what that does. */
export const WAYS: Record<HidingWay, { words: string; does: string }> = {
  solid: { words: "Solid", does: "A colour over it: nothing of it is in any file" },
  pixelate: { words: "Squares", does: "Squares of its mean colour" },
  blur: { words: "Blur", does: "A blur, too strong to be read" },
  patch: { words: "Patch over", does: "What surrounds it, as if it had not been there" },
};
