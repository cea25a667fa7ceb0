import { expect, test } from "vitest";

import { CLIP_RATE_FPS, MOST_CLIP_S, Recording } from "./recording";

const FRAME_MS = 1_000 / CLIP_RATE_FPS;

function recorded() {
  const sent: [number, number][] = [];
  const pending: (() => void)[] = [];
  const draw = () => new Promise<Blob>((resolve) => pending.push(() => resolve(new Blob())));
  const recording = new Recording({ draw, send: (number, seen) => Promise.resolve(sent.push([number, seen])) }, 0);
  const drawn = async () => {
    pending.shift()?.();
    await Promise.resolve().then(() => undefined);
    await Promise.resolve();
  };
  return { sent, recording, drawn, pending };
}

test("each frame is sent with how long it was seen, and together they last as long as it did", async () => {
  const { sent, recording, drawn } = recorded();
  for (const frame of [0, 1, 2]) {
    recording.tick(frame * FRAME_MS + 1);
    await drawn();
  }
  await recording.finish(4 * FRAME_MS + 1);
  expect(sent).toEqual([[0, 1], [1, 1], [2, 3]]);
});

test("a frame that takes long to be drawn stays for those that were missed", async () => {
  const { sent, recording, drawn, pending } = recorded();
  recording.tick(1);
  for (const frame of [1, 2, 3]) recording.tick(frame * FRAME_MS + 1);
  expect(pending).toHaveLength(1);
  await drawn();
  recording.tick(4 * FRAME_MS + 1);
  await drawn();
  await recording.finish(4 * FRAME_MS + 2);
  expect(sent).toEqual([[0, 4], [4, 1]]);
});

test("a clip ends where it may be no longer", async () => {
  const { sent, recording, drawn } = recorded();
  recording.tick(1);
  await drawn();
  await recording.finish(1_000_000_000);
  expect(sent).toEqual([[0, CLIP_RATE_FPS * MOST_CLIP_S]]);
});

test("a frame that did not arrive is told of at the end", async () => {
  const recording = new Recording({ draw: () => Promise.resolve(new Blob()), send: () => Promise.reject(new Error("no room")) }, 0);
  recording.tick(1);
  await expect(recording.finish(200)).rejects.toThrow("no room");
});
