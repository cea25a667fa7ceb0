import type { Tone } from "../../api/types";
import type { CutStore } from "../cut/cutStore";

/** What a person does to the colours of a cut: each a step of its history. */

/** What a tone is where it does not say otherwise. */
export const PLAIN = { brightness: 1, contrast: 1, grey: false, threshold: null, invert: false } satisfies Required<Tone>;

/** Change some of the tone; what is plain is not kept. Steps of one gesture are one. */
export function tone(store: CutStore, change: Tone, words: string, gesture?: string): void {
  store.commit(
    words,
    (cut) => {
      const said = Object.entries({ ...cut.tone, ...change }).filter(([name, value]) => value !== PLAIN[name as keyof Tone]);
      if (said.length > 0) cut.tone = Object.fromEntries(said);
      else delete cut.tone;
    },
    gesture,
  );
}

/** The tone as a browser's filter, in the order in which the files have it; nothing where it is plain. */
export function filterOf(given: Tone | null | undefined): string | undefined {
  const { brightness, contrast, grey, threshold, invert } = { ...PLAIN, ...given };
  const steps = [
    brightness !== 1 && `brightness(${brightness})`,
    contrast !== 1 && `contrast(${contrast})`,
    threshold != null ? `grayscale(1) url(#${THRESHOLD_ID})` : grey && "grayscale(1)",
    invert && "invert(1)",
  ].filter(Boolean);
  return steps.length > 0 ? steps.join(" ") : undefined;
}

export const THRESHOLD_ID = "tone-threshold";
