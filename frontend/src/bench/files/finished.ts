import type { Output } from "../../api/types";
import { formatBytes, formatName } from "../../parts/figures";
import { wantedWords } from "../../parts/fields/wanted";

/** Which file each row had, and how its work stood. */
export type Seen = ReadonlyMap<number, string>;

export function seenOf(outputs: Output[]): Seen {
  return new Map(outputs.map((row) => [row.id, `${row.job.state} ${row.file_key}`]));
}

/** The rows that are new or have changed since; also those that were too quick to be seen under way. */
export function finishedSince(seen: Seen, outputs: Output[]): Output[] {
  const now = seenOf(outputs);
  return outputs.filter((row) => seen.get(row.id) !== now.get(row.id));
}

/** What is said of a file that was just made, or could not be. */
export function finishedWords(output: Output): string {
  if (output.job.state === "failed") return `${output.label}: ${output.job.error?.sentence ?? "It failed."}`;
  if (!output.file_key || !output.format) return `${output.label}: no file keeps to ${wantedWords(output)}.`;
  const fits = output.met ? "" : output.least_fidelity == null ? " It does not look acceptable." : " It does not look as good as was asked for.";
  const of = output.limit_bytes == null ? "" : ` of ${formatBytes(output.limit_bytes)}`;
  return `${output.label} is made: ${formatName(output.format)}, ${formatBytes(output.bytes)}${of}, fidelity ${output.fidelity?.toFixed(0) ?? "unknown"}.${fits}`;
}
