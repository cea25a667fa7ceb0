import { ClearPanel } from "./clearing/ClearPanel";
import { TonePanel } from "./tone/TonePanel";
import { TrimPanel } from "./TrimPanel";
import { TurnPanel } from "./turning/TurnPanel";

/** What is done to the page and its frame besides drawing it. */
export function PartStrip() {
  return (
    <div className="@container flex h-9 shrink-0 items-center gap-2 overflow-x-auto border-b border-base-300 px-3 text-sm whitespace-nowrap" role="group" aria-label="The page and its frame">
      <TurnPanel />
      <ClearPanel />
      <TrimPanel />
      <TonePanel />
    </div>
  );
}
