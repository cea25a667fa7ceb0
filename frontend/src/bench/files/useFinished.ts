import { useState } from "react";

import { isFitting } from "../../api/outlets";
import type { Output } from "../../api/types";
import { finishedSince, finishedWords, type Seen, seenOf } from "./finished";

/** What the file said that was finished last, for those who do not see it; empty before the first. */
export function useFinished(outputs: Output[] | undefined): string {
  const [seen, setSeen] = useState<Seen | null>(null);
  const [words, setWords] = useState("");
  if (outputs) {
    const now = seenOf(outputs);
    if (!seen || now.size !== seen.size || [...now].some(([id, state]) => seen.get(id) !== state)) {
      setSeen(now);
      // What was there when the Bench was opened is no news.
      const ended = seen ? finishedSince(seen, outputs).filter((row) => !isFitting(row)) : [];
      if (ended.length > 0) setWords(ended.map(finishedWords).join(" "));
    }
  }
  return words;
}
