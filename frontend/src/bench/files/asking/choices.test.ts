import { describe, expect, it } from "vitest";

import type { Choice, Output } from "../../../api/types";
import { changedChoice, expectedChoices } from "./choices";

const JPEG: Choice = { format: "jpeg", quality: 60, colours: null, subsampled: false, softened: false, sharpened: false, deblocked: false, patient: false };

function point(format: Choice["format"], bytes: number, fidelity: number) {
  return { choice: { ...JPEG, format }, bytes, fidelity };
}

describe("formats of which no file was made", () => {
  it("are named with the best that is expected under the limit", () => {
    const output = {
      limit_bytes: 1_000,
      candidates: [{ choice: { ...JPEG, format: "avif" } }],
      tradeoffs: [
        { recipe: "JPEG", points: [point("jpeg", 500, 40), point("jpeg", 900, 55), point("jpeg", 1_200, 70)] },
        { recipe: "WebP", points: [point("webp", 800, 61)] },
        { recipe: "AVIF", points: [point("avif", 800, 80)] },
      ],
    } as unknown as Output;
    expect(expectedChoices(output).map((row) => [row.format, row.fidelity])).toEqual([
      ["webp", 61],
      ["jpeg", 55],
    ]);
  });
});

describe("a changed choice", () => {
  it("keeps only what its format knows", () => {
    expect(changedChoice(JPEG, { subsampled: true }).subsampled).toBe(true);
    expect(changedChoice({ ...JPEG, format: "webp" }, { subsampled: true }).subsampled).toBe(false);
    expect(changedChoice({ ...JPEG, format: "png", quality: null, colours: 16 }, { softened: true }).softened).toBe(false);
    expect(changedChoice({ ...JPEG, format: "webp", deblocked: true }, { quality: 40 }).deblocked).toBe(true);
    expect(changedChoice({ ...JPEG, format: "webp", deblocked: true }, { format: "avif" }).deblocked).toBe(false);
  });
});
