import type { Output } from "../api/types";
import { formatBytes, formatName } from "../parts/figures";

/** What is said of a file that was just made, or could not be. */
export function finishedWords(output: Output): string {
  if (output.job.state === "failed") return `${output.label}: ${output.job.error?.sentence ?? "It failed."}`;
  if (!output.file_key || !output.format) return `${output.label}: no file keeps to ${formatBytes(output.limit_bytes)}.`;
  const fits = output.met ? "" : " It does not look acceptable.";
  return `${output.label} is made: ${formatName(output.format)}, ${formatBytes(output.bytes)} of ${formatBytes(output.limit_bytes)}, fidelity ${output.fidelity?.toFixed(0) ?? "unknown"}.${fits}`;
}
