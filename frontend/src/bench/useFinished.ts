import { useState } from "react";

import { isFitting } from "../api/outlets";
import type { Output } from "../api/types";
import { finishedWords } from "./finished";

/** What the file said when it was finished last, for those who do not see it; empty before the first. */
export function useFinished(outputs: Output[]): string {
  const [fitting, setFitting] = useState<ReadonlySet<number>>(new Set());
  const [words, setWords] = useState("");
  const now = new Set(outputs.filter(isFitting).map((row) => row.id));
  const ended = outputs.filter((row) => fitting.has(row.id) && !now.has(row.id));
  if (now.size !== fitting.size || ended.length > 0) setFitting(now);
  if (ended.length > 0) setWords(ended.map(finishedWords).join(" "));
  return words;
}
