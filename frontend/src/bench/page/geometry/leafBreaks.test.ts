import { describe, expect, it } from "vitest";

import type { Output } from "../../../api/types";
import { breaksOf, movedBreak } from "./leafBreaks";

const FRAME = { y_px: 100, height_px: 1_000 };

function output(parts: Partial<Output>): Output {
  return { leaves: [], ...parts } as unknown as Output;
}

describe("breaks", () => {
  it("are where every leaf but the first begins", () => {
    const leaves = [{ top_px: 100 }, { top_px: 420 }, { top_px: 800 }];
    expect(breaksOf(output({ leaves } as Partial<Output>))).toEqual([420, 800]);
  });

  it("are moved between their neighbours, never past them", () => {
    expect(movedBreak([420, 800], 0, 500.4, FRAME)).toEqual([500, 800]);
    expect(movedBreak([420, 800], 0, 2_000, FRAME)).toEqual([784, 800]);
    expect(movedBreak([420, 800], 0, -5, FRAME)).toEqual([116, 800]);
    expect(movedBreak([420, 800], 1, 5_000, FRAME)).toEqual([420, 1_084]);
  });
});
