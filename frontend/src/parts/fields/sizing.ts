import type { Rules } from "../../api/types";
import { parsePx } from "../figures";

export type Way = Rules["way"];
export type Sized = Pick<Rules, "way" | "width_px" | "height_px" | "percent">;

export const WAYS: { way: Way; words: string }[] = [
  { way: "width", words: "By width" },
  { way: "height", words: "By height" },
  { way: "fill", words: "Fill a box" },
  { way: "pad", words: "Pad to a box" },
  { way: "share", words: "By percent" },
];

/** A size as it is being typed. */
export interface TypedSize {
  way: Way;
  width: string;
  height: string;
  percent: string;
}

export function asTyped(size?: Sized): TypedSize {
  const text = (value?: number) => (value ? String(value) : "");
  return {
    way: size?.way ?? "width",
    width: text(size?.width_px),
    height: text(size?.height_px),
    percent: text(size?.percent),
  };
}

export const wantsWidth = (way: Way) => way === "width" || way === "fill" || way === "pad";
export const wantsHeight = (way: Way) => way === "height" || way === "fill" || way === "pad";

/** Whether a cut that comes out too high can be divided: its height is not fixed. */
export const divisible = (way: Way) => way === "width" || way === "share";

/** The size that was typed, with nothing but what its way needs; or what is wrong with it. */
export function readSize(typed: TypedSize): Sized | { problem: string } {
  const { way } = typed;
  const width_px = wantsWidth(way) ? parsePx(typed.width) : 0;
  const height_px = wantsHeight(way) ? parsePx(typed.height) : 0;
  const percent = way === "share" ? parsePx(typed.percent.replace("%", "")) : 0;
  if (width_px === null) return { problem: "The width is not a number of px. Type it like 720." };
  if (height_px === null) return { problem: "The height is not a number of px. Type it like 480." };
  if (percent === null) return { problem: "The share is not a number. Type it like 50." };
  return { way, width_px, height_px, percent };
}

/** The same rules with the picture brought to another width, in the same shape. */
export function atWidth(rules: Rules, width_px: number, made: { width_px: number; height_px: number }): Sized {
  if (rules.way !== "fill" && rules.way !== "pad") return { way: "width", width_px, height_px: 0, percent: 0 };
  return { way: rules.way, width_px, height_px: Math.max(1, Math.round((made.height_px * width_px) / made.width_px)), percent: 0 };
}

/** The rules that an output was made for, alone. */
export function rulesOf(output: Rules): Rules {
  const { way, width_px, height_px, percent, anchor, enlarge, background } = output;
  const { limit_bytes, least_fidelity, formats, greatest_height_px, overlap_px, numbered } = output;
  return {
    way, width_px, height_px, percent, anchor, enlarge, background,
    limit_bytes: limit_bytes ?? null, least_fidelity: least_fidelity ?? null,
    formats, greatest_height_px: greatest_height_px ?? null, overlap_px, numbered,
  };
}
