import type { Capture } from "../api/types";
import { formatWhen } from "../parts/figures";
import { useNow } from "../parts/useNow";

/** When a capture was taken, or before that when it was asked for. */
export function When({ capture }: { capture: Capture }) {
  const now = useNow();
  return <time dateTime={capture.created_at}>{formatWhen(capture.taken_at ?? capture.created_at, now)}</time>;
}
