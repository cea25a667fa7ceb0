import type { Tradeoff } from "../../../api/types";

export interface Scale {
  /** Left to right, in the chart's own units. */
  x: (bytes: number) => number;
  /** Top to bottom. */
  y: (fidelity: number) => number;
  /** The fidelity at the chart's lower edge. */
  floor: number;
}

const ROOM = 1.15;

/**
 * Bytes on a scale of equal ratios, since one step of quality changes a file by a share of itself;
 * fidelity on an even one, from the tens below the worst up to 100.
 */
export function chartScale(tradeoffs: Tradeoff[], limit_bytes: number | null, width: number, height: number): Scale {
  const made = tradeoffs.flatMap((row) => row.points.map((point) => point.bytes));
  const all = limit_bytes === null ? made : [limit_bytes, ...made];
  const worst = Math.min(...tradeoffs.flatMap((row) => row.points.map((point) => point.fidelity)));
  const floor = Math.max(0, Math.floor(worst / 10) * 10 - 10);
  const low = Math.log(Math.min(...all) / ROOM);
  const high = Math.log(Math.max(...all) * ROOM);
  return {
    x: (bytes) => ((Math.log(bytes) - low) / (high - low)) * width,
    y: (fidelity) => ((100 - Math.min(100, Math.max(floor, fidelity))) / (100 - floor)) * height,
    floor,
  };
}
