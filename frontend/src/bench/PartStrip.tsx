import { Puzzle, FoldVertical } from "lucide-react";

import { titled } from "../app/actions/registry";
import { NumberInput } from "../parts/fields/NumberInput";
import { useBench, useCut } from "./benchContext";
import { BlocksPanel } from "./blocks/BlocksPanel";
import { MOST_MARGIN_PX, setMargin, usePicking } from "./blocks/picking";
import { ClearPanel } from "./clearing/ClearPanel";
import { FoldsPanel } from "./folding/FoldsPanel";
import { SnapButton } from "./marks/handling/SnapButton";
import { RulerButton } from "./measuring/RulerButton";
import { OutlinePanel } from "./outline/OutlinePanel";
import { ShapePanel } from "./shape/ShapePanel";
import { TonePanel } from "./tone/TonePanel";
import { TrimPanel } from "./TrimPanel";
import { TurnPanel } from "./turning/TurnPanel";

/** What is done to the page and its frame besides drawing it. */
export function PartStrip({ scroller, zoom }: { scroller: HTMLElement | null; zoom: number }) {
  const { store } = useBench();
  const folding = useCut((state) => state.tool.kind === "fold" && state.tool.axis === "across");
  const mending = useCut((state) => state.tool.kind === "mend");
  const margin_px = usePicking((state) => state.margin_px);
  return (
    <div className="@container flex min-h-9 shrink-0 flex-wrap items-center gap-x-1 gap-y-1 py-1 border-b border-base-300 px-3 text-sm whitespace-nowrap" role="group" aria-label="The page and its frame">
      <BlocksPanel scroller={scroller} zoom={zoom} />
      <label className="flex items-center gap-1" title="Margin around a block that is framed, in px">
        <span className="text-info @max-[56rem]:sr-only">margin</span>
        <NumberInput name="Margin around a block in px" size="w-14" value={margin_px} least={0} greatest={MOST_MARGIN_PX} onCommit={(px) => px !== null && setMargin(store, Math.round(px))} />
      </label>
      <button type="button" className={`btn btn-xs ${folding ? "btn-neutral" : ""}`} aria-pressed={folding} title={titled("fold", "Fold a band away: drag over the rows that are not wanted")} onClick={() => store.setTool(folding ? { kind: "frame" } : { kind: "fold", axis: "across" })}>
        <FoldVertical size={14} aria-hidden /> Fold
      </button>
      <FoldsPanel />
      <ShapePanel />
      <OutlinePanel />
      <SnapButton words="The frame snaps to the edges of blocks; not while Alt is held" />
      <RulerButton />
      <span className="h-4 border-l border-base-300" aria-hidden />
      <TurnPanel />
      <ClearPanel />
      <button type="button" className={`btn btn-xs ${mending ? "btn-neutral" : ""}`} aria-pressed={mending} title="Drag over a small thing that should not be there: its surroundings go on over it" onClick={() => store.setTool({ kind: mending ? "frame" : "mend" })}>
        <Puzzle size={14} aria-hidden /> Mend
      </button>
      <TrimPanel />
      <TonePanel />
    </div>
  );
}
