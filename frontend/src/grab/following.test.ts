import { describe, expect, it } from "vitest";

import { apart, Follower } from "./following";

const all = (level: number) => new Uint8Array(100).fill(level);

describe("Follower", () => {
  it("takes the first look, and another once the window has moved and rests", () => {
    const follower = new Follower();
    expect(follower.isDue(all(10), 0)).toBe(true);
    expect(follower.isDue(all(10), 100)).toBe(false);
    expect(follower.isDue(all(60), 200)).toBe(false);
    expect(follower.isDue(all(60), 300)).toBe(true);
    expect(follower.isDue(all(60), 400)).toBe(false);
  });

  it("does not wait for ever for a window that goes on moving", () => {
    const follower = new Follower();
    follower.isDue(all(0), 0);
    const due = [100, 200, 300, 400, 500, 600, 700, 800].filter((ms) => follower.isDue(all(ms / 10), ms));
    expect(due).toEqual([700]);
  });

  it("counts windows of other sizes as moved", () => {
    expect(apart(all(1), new Uint8Array(4))).toBe(255);
  });
});
