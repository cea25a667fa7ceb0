import type { ClipDocument } from "../api/types";

/** A frame, counted from 0, from when it is seen and for how long. */
export interface Shown {
  frame: number;
  startMs: number;
  durationMs: number;
}

/** What is seen once through, as the server plays it: see core/clip. Empty when every frame is dropped. */
export function played(frameCount: number, rateFps: number, document: ClipDocument): Shown[] {
  const dropped = new Set(document.dropped);
  const kept = [...Array(frameCount).keys()].filter((frame) => !dropped.has(frame));
  const stepMs = 1_000 / rateFps / document.speed;
  const there: { frame: number; durationMs: number }[] = [];
  for (let first = 0; first < kept.length; first += document.keep_every) {
    const group = kept.slice(first, first + document.keep_every);
    there.push({ frame: group[0] ?? 0, durationMs: group.length * stepMs });
  }
  const [start] = there;
  const end = there.at(-1);
  if (!start || !end) return [];
  start.durationMs += document.hold_start_ms;
  end.durationMs += document.hold_end_ms;
  const back = document.there_and_back ? there.slice(1, -1).reverse() : [];
  let startMs = 0;
  return [...there, ...back].map(({ frame, durationMs }) => {
    const row = { frame, startMs, durationMs };
    startMs += durationMs;
    return row;
  });
}

export function lengthMs(shown: readonly Shown[]): number {
  const last = shown.at(-1);
  return last ? last.startMs + last.durationMs : 0;
}

/** The place in what is seen at a moment. */
export function placeAt(shown: readonly Shown[], momentMs: number): number {
  let low = 0;
  let high = shown.length - 1;
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if ((shown[middle]?.startMs ?? 0) <= momentMs) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** The dropped frames after a range was dropped, or restored. */
export function withRange(dropped: readonly number[], from: number, to: number, drop: boolean): number[] {
  const [first, last] = from <= to ? [from, to] : [to, from];
  const rest = dropped.filter((frame) => frame < first || frame > last);
  const range = drop ? Array.from({ length: last - first + 1 }, (_, index) => first + index) : [];
  return [...rest, ...range].sort((one, other) => one - other);
}

/** About how many bytes a file takes after more frames were dropped, by what it took before. */
export function expectedBytes(bytes: number, pictures: number, picturesNow: number): number {
  return pictures > 0 ? Math.round((bytes * picturesNow) / pictures) : bytes;
}
