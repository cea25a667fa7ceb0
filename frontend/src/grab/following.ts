const MOVED = 3;
const AT_REST = 0.8;
/** A page that never rests is looked at so often. */
const MOST_WAIT_MS = 700;

/** Mean difference of two glimpses, 0–255. */
export function apart(one: Uint8Array, other: Uint8Array): number {
  if (one.length !== other.length) return 255;
  let sum = 0;
  for (let at = 0; at < one.length; at += 1) sum += Math.abs((one[at] ?? 0) - (other[at] ?? 0));
  return one.length ? sum / one.length : 0;
}

/** Tells when a window that is scrolled is worth another picture: it has moved, and rests or goes on for long. */
export class Follower {
  private kept: Uint8Array | null = null;
  private last: Uint8Array | null = null;
  private keptAtMs = 0;

  /** Whether to take a picture now. */
  isDue(seen: Uint8Array, nowMs: number): boolean {
    const rests = this.last !== null && apart(seen, this.last) < AT_REST;
    this.last = seen;
    const moved = this.kept === null || apart(seen, this.kept) > MOVED;
    if (!moved || !(this.kept === null || rests || nowMs - this.keptAtMs >= MOST_WAIT_MS)) return false;
    this.kept = seen;
    this.keptAtMs = nowMs;
    return true;
  }
}
