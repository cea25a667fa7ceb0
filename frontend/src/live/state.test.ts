import { describe, expect, it } from "vitest";

import { after, atFirst } from "./state";

const DESK = { width_px: 1280, height_px: 800, scale: 1, touch: false };
const OPEN = { ...atFirst(), link: "on" as const, screen: DESK, lastScreen: DESK, place: { address: "http://a/", title: "A", loading: false } };

describe("after", () => {
  it("finds a page that went on while the connection was lost", () => {
    expect(after({ kind: "hello", open: { address: "http://b/", screen: DESK } }, { ...OPEN, link: "lost" })).toMatchObject({ link: "on", screen: DESK, place: { address: "http://b/" } });
  });

  it("says so when it did not, and keeps its address to open it again", () => {
    const found = after({ kind: "hello", open: null }, { ...OPEN, link: "lost" });
    expect(found).toMatchObject({ link: "on", screen: null, place: { address: "http://a/" } });
    expect(found.ended?.sentence).toMatch(/closed/);
  });

  it("says nothing to somebody who had none open", () => {
    expect(after({ kind: "hello", open: null }, atFirst()).ended).toBeNull();
  });

  it("ends what was under way with the page", () => {
    const busy = { ...OPEN, progress: { stage: "taking", done: 1, expected: 2 }, dialog: { asks: "alert" as const, message: "!", default: "" } };
    expect(after({ kind: "ended", sentence: "The browser has ended." }, busy)).toMatchObject({ screen: null, progress: null, dialog: null, ended: { sentence: "The browser has ended." } });
  });

  it("counts pictures, and forgets what a failure was about with none", () => {
    const taken = { capture: 7, name: "A", width_px: 1, height_px: 1, warnings: [] };
    expect(after({ kind: "taken", ...taken }, OPEN).taken).toHaveLength(1);
    expect(after({ kind: "not_taken", sentence: "No." }, OPEN)).toMatchObject({ progress: null, refusal: { sentence: "No." } });
  });

  it("has no page after an address that could not even be begun, and keeps what was typed", () => {
    const opening = { ...OPEN, place: { address: "a b", title: "", loading: true } };
    expect(after({ kind: "failed", open: false, sentence: "No." }, opening)).toMatchObject({ screen: null, place: { address: "a b", loading: false }, refusal: { sentence: "No." } });
    expect(after({ kind: "failed", open: true, sentence: "No." }, OPEN).screen).toBeUndefined();
  });

  it("closes a dialog that was answered", () => {
    expect(after({ kind: "dialog", asks: null }, OPEN)).toEqual({ dialog: null });
  });
});
