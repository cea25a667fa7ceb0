import { expect, test } from "vitest";

import { CLIP_RATE_FPS, MOST_CLIP_S, Recording } from "./recording";

const FRAME_MS = 1_000 / CLIP_RATE_FPS;
const settled = () => new Promise((resolve) => setTimeout(resolve));

function recorded(arrives: (number: number) => boolean = () => true) {
  const sent: number[] = [];
  const pending: (() => void)[] = [];
  const draw = () => new Promise<Blob>((resolve) => pending.push(() => resolve(new Blob())));
  const send = (number: number) => (arrives(number) ? Promise.resolve(sent.push(number)) : Promise.reject(new Error("no room")));
  const recording = new Recording({ draw, send }, 0);
  const drawn = () => {
    pending.shift()?.();
    return settled();
  };
  return { sent, recording, drawn, pending };
}

test("a frame is sent whenever one is due, and the clip lasts as long as it did", async () => {
  const { sent, recording, drawn } = recorded();
  for (const frame of [0, 0.5, 1, 2]) {
    recording.tick(frame * FRAME_MS + 1);
    await drawn();
  }
  expect(await recording.finish(4 * FRAME_MS + 1)).toBe(5);
  expect(sent).toEqual([0, 1, 2]);
});

test("while a frame is drawn those that are due are left to it", async () => {
  const { sent, recording, drawn, pending } = recorded();
  for (const frame of [0, 1, 2, 3]) recording.tick(frame * FRAME_MS + 1);
  expect(pending).toHaveLength(1);
  await drawn();
  recording.tick(4 * FRAME_MS + 1);
  await drawn();
  await recording.finish(4 * FRAME_MS + 2);
  expect(sent).toEqual([0, 4]);
});

test("a clip ends where it may be no longer", async () => {
  const { recording, drawn } = recorded();
  recording.tick(1);
  await drawn();
  expect(await recording.finish(1_000_000_000)).toBe(CLIP_RATE_FPS * MOST_CLIP_S);
});

test("a frame that does not arrive is told of, and those after it are sent all the same", async () => {
  const { sent, recording, drawn } = recorded((number) => number !== 1);
  for (const frame of [0, 1, 2]) {
    recording.tick(frame * FRAME_MS + 1);
    await drawn();
  }
  await recording.finish(3 * FRAME_MS);
  expect(sent).toEqual([0, 2]);
  expect(recording.failure).toEqual(new Error("no room"));
});
