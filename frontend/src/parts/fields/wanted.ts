import type { Rules } from "../../api/types";
import { formatBytes, parseLimit } from "../figures";

/** Fidelity from which each of the words is true, as the server says them. */
export const BANDS = [
  { least: 88, words: "same to the eye" },
  { least: 75, words: "very close" },
  { least: 62, words: "close, small traces" },
  { least: 50, words: "traces show" },
] as const;
const LOWEST = 50;

/** What a file is to be, as it is typed: `aim` is "limit", a band's fidelity, or "number". */
export interface TypedWanted {
  aim: string;
  fidelity: string;
  limit: string;
}

export type Wanted = Pick<Rules, "limit_bytes" | "least_fidelity">;

export function asTypedWanted(rules?: Wanted): TypedWanted {
  const least = rules?.least_fidelity ?? null;
  const limit = rules?.limit_bytes == null ? "" : formatBytes(rules.limit_bytes);
  if (least === null) return { aim: "limit", fidelity: "", limit };
  const isBand = BANDS.some((band) => band.least === least);
  return { aim: isBand ? String(least) : "number", fidelity: String(least), limit };
}

export function readWanted({ aim, fidelity, limit }: TypedWanted): { limit_bytes: number | null; least_fidelity: number | null } | { problem: string } {
  const limit_bytes = limit.trim() ? parseLimit(limit) : null;
  if (limit_bytes === null && (aim === "limit" || limit.trim())) return { problem: "The limit is a size above 0, like 90 kB." };
  if (aim === "limit") return { limit_bytes, least_fidelity: null };
  const typed = aim === "number" ? fidelity.trim() : aim;
  const least_fidelity = /^\d{1,3}$/.test(typed) ? Number(typed) : NaN;
  if (!(least_fidelity >= LOWEST && least_fidelity <= 100)) return { problem: "The fidelity is a number from 50, traces show, to 100, same pixels." };
  return { limit_bytes, least_fidelity };
}

/** Like “90.0 kB”, “lightest at fidelity 85”, “lightest at fidelity 85, 90.0 kB”. */
export function wantedWords({ limit_bytes, least_fidelity }: Wanted): string {
  const limit = limit_bytes == null ? "" : formatBytes(limit_bytes);
  if (least_fidelity == null) return limit;
  return `lightest at fidelity ${least_fidelity}${limit && `, ${limit}`}`;
}
