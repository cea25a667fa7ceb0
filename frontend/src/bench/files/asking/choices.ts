import type { Choice, FormatName, Output } from "../../../api/types";

export interface Expected {
  format: FormatName;
  choice: Choice;
  fidelity: number;
}

/** Below this nobody would choose it: the server's least acceptable fidelity, and some room. */
const WORTH_NAMING = 30;

/** The best expected choice under the limit for each format that no file was made in; the best first. */
export function expectedChoices(output: Output): Expected[] {
  const made = new Set(output.candidates.map((row) => row.choice.format));
  if (output.least_fidelity != null) return []; // what was not made there is expected to be heavier
  const best = new Map<FormatName, Expected>();
  for (const point of output.tradeoffs.flatMap((row) => row.points)) {
    const { format } = point.choice;
    if (made.has(format) || point.bytes > (output.limit_bytes ?? Infinity) || point.fidelity < WORTH_NAMING) continue;
    const known = best.get(format);
    if (!known || point.fidelity > known.fidelity) best.set(format, { format, choice: point.choice, fidelity: point.fidelity });
  }
  return [...best.values()].sort((first, second) => second.fidelity - first.fidelity);
}

/** The same choice with another setting; what does not apply to its format goes. */
export function changedChoice(choice: Choice, change: Partial<Choice>): Choice {
  const next = { ...choice, ...change };
  if (change.sharpened) next.softened = false;
  if (change.softened) next.sharpened = false;
  return {
    ...next,
    subsampled: next.format === "jpeg" && next.subsampled,
    softened: next.quality != null && next.softened,
    deblocked: next.format === "webp" && next.quality != null && next.deblocked,
    patient: next.format === "avif" && next.patient,
  };
}

/** Number, from 1, of the leaf with the lowest fidelity: the one that the row's figures are of. */
export function weakestLeaf(output: Output): number {
  const looks = output.leaves.map((leaf) => leaf.fidelity);
  return looks.indexOf(Math.min(...looks)) + 1;
}
