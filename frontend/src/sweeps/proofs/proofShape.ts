/** How proofs are laid out, in CSS px. Pure. */
export interface ProofShape {
  /** Width of the column that says which page a row is; 0 where the words stand above the pictures. */
  labelPx: number;
  thumbPx: number;
  /** The most that a picture takes down its row. */
  heightPx: number;
  rowPx: number;
}

export const HEAD_PX = 26;
export const THUMB = { least: 70, most: 320, first: 150 };
const SHAPE = 1.5;
const ROUND_A_PICTURE_PX = 44;
const LABEL_PX = 216;
const LABEL_ABOVE_PX = 44;

/** On a narrow screen the words stand above, so that all of its width is for pictures. */
export function proofShape(thumbPx: number, narrow: boolean): ProofShape {
  const heightPx = Math.round(thumbPx * SHAPE);
  return {
    labelPx: narrow ? 0 : LABEL_PX,
    thumbPx,
    heightPx,
    rowPx: heightPx + ROUND_A_PICTURE_PX + (narrow ? LABEL_ABOVE_PX : 0),
  };
}
