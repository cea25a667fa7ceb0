import type { TakeChanges } from "../../api/types";
import { counted } from "../../parts/figures";
import { STEP_KINDS } from "./takeSteps";

const EXTENT_WORDS = { full: "the full page", view: "the first screen only", element: "one element", panel: "a scrolling panel" };

/** How pages are taken otherwise than is right for most, each thing in a few words. */
export function takeWords(said: TakeChanges): string[] {
  const words: string[] = [];
  if (said.extent === "between") words.push(`from ${said.element ?? ""} to ${said.to_element ?? ""}`);
  else if (said.extent) words.push([EXTENT_WORDS[said.extent], said.element].filter(Boolean).join(" "));
  if (said.from_px) words.push(`from ${said.from_px} px down`);
  if (said.max_height_px) words.push(`at most ${said.max_height_px} px high`);
  if (said.max_screens) words.push(`at most ${counted(said.max_screens, "screen")}`);
  if (said.page_width) words.push(said.page_width === "all" ? "also what is wider than the screen" : "as wide as the screen");
  if (said.scheme) words.push(`${said.scheme} colours`);
  if (said.language) words.push(`language ${said.language}`);
  for (const step of said.steps ?? []) words.push([STEP_KINDS[step.kind].words, step.target, step.text].filter(Boolean).join(" "));
  if (said.wait_ms !== undefined) words.push(`wait ${said.wait_ms / 1_000} s`);
  if (said.busy_s !== undefined) words.push(`busy pages up to ${said.busy_s} s`);
  if (said.leave_out) words.push(said.leave_out.length > 0 ? `hide ${said.leave_out.join(", ")}` : "hide nothing by selector");
  if (said.fixed_overlays) words.push(said.fixed_overlays === "keep" ? "show cookie notices" : "hide cookie notices");
  if (said.signed_in !== undefined) words.push(said.signed_in ? "signed in where that is saved" : "never signed in");
  return words;
}
