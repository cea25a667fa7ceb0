import type { Setting } from "../api/types";

/** The words by which a setting is found. */
export function wordsOf(setting: Setting): string[] {
  return [setting.words, setting.effect, setting.group, setting.variable, ...setting.options.map((option) => option.words)];
}

/** Whether every word that is sought begins a word of these. */
export function isFound(sought: string, words: readonly string[]): boolean {
  const there = words.join(" ").toLowerCase().split(/[^\p{L}\p{N}_]+/u);
  return sought
    .toLowerCase()
    .split(/[^\p{L}\p{N}_]+/u)
    .every((part) => there.some((word) => word.startsWith(part)));
}
