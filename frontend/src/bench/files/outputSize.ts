import type { Output } from "../../api/types";
import type { PageSize } from "../page/geometry/boxes";

/** What a row's rules make of a frame, before anything is fitted: as the core plans it. Without dressing. */

type Rules = Pick<Output, "way" | "width_px" | "height_px" | "percent" | "enlarge">;

export interface OutputSize extends PageSize {
  /** Px of the file for each px of the page. */
  scale: number;
  /** Whether the file has more px than the page has for it. */
  enlarged: boolean;
  /** Whether it wanted more than there are, and stays smaller. */
  keptSmall: boolean;
}

export function outputSize(frame: PageSize, rules: Rules): OutputSize {
  const across = rules.width_px / frame.width_px;
  const down = rules.height_px / frame.height_px;
  const wanted = { width: across, height: down, share: rules.percent / 100, fill: Math.max(across, down), pad: Math.min(across, down) }[rules.way];
  const mayEnlarge = rules.enlarge || rules.way === "share";
  const scale = mayEnlarge ? wanted : Math.min(wanted, 1);
  const whole = (px: number) => Math.max(1, Math.round(px));
  const fixed = rules.way === "pad" || (rules.way === "fill" && (wanted <= 1 || mayEnlarge));
  const piece = rules.way === "fill" ? filled(frame, rules) : frame;
  const size = fixed ? { width_px: rules.width_px, height_px: rules.height_px } : { width_px: whole(piece.width_px * scale), height_px: whole(piece.height_px * scale) };
  return { ...size, scale, enlarged: scale > 1, keptSmall: wanted > 1 && !mayEnlarge };
}

/** The largest piece of a frame that has the shape of a file. */
function filled({ width_px, height_px }: PageSize, rules: Rules): PageSize {
  const shape = rules.width_px / rules.height_px;
  return width_px / height_px > shape ? { width_px: height_px * shape, height_px } : { width_px, height_px: width_px / shape };
}
