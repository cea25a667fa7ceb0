import type { FileTold, Job } from "../api/types";
import { formatBytes } from "./figures";

/** What a sample tells of the best file, before there is one. */
export function expectedWords({ recipe, bytes, fidelity, met }: FileTold, limit_bytes: number | null): string {
  const limit = limit_bytes === null ? "" : formatBytes(limit_bytes);
  if (!recipe) return `No file is expected to fit ${limit}.`;
  const file = `${recipe}, about ${formatBytes(bytes)}, fidelity about ${fidelity.toFixed(0)}`;
  if (!limit) return `Expected: ${file}.`;
  return met ? `Expected to fit ${limit}: ${file}.` : `Not expected to look acceptable under ${limit}. At best: ${file}.`;
}

/** The same in a few words, for a row that is not looked at. */
export function expectedShortly({ recipe, bytes, fidelity, met }: FileTold): string {
  if (!recipe) return "No file is expected to fit";
  const file = `about ${formatBytes(bytes)}, fidelity about ${fidelity.toFixed(0)}`;
  return met ? `Expected: ${file}` : `Expected not to look acceptable: ${file}`;
}

/** What is being done, and how much of it may be left; undefined before it is known. */
export function tryingWords({ state, told }: Job): string | undefined {
  if (!told?.trying || state === "queued") return undefined;
  if (told.tries_left > 1) return `Trying ${told.trying}, ${told.tries_left} more files at most`;
  return told.advising || told.tries_left === 0 ? `Looking at ${told.trying}` : `Trying ${told.trying}, the last file`;
}
