import { ALargeSmall, Circle, Highlighter, type LucideIcon, MousePointer2, MoveUpRight, Pencil, Slash, Square, Star, SunDim } from "lucide-react";

import { useEffect } from "react";

import type { MarkKind } from "../../api/types";
import { type ActionId, titled } from "../../app/actions/registry";
import { useBench, useCut } from "../benchContext";
import { Captions } from "./Captions";
import { useMarkStyles } from "./drawing/markStyles";
import { KIND_WORDS } from "./handling/geometry";
import { SnapButton } from "./handling/SnapButton";

/** What can be drawn, in the order in which it is wanted most often. */
export const MARK_TOOLS: { kind: MarkKind; action: ActionId; icon: LucideIcon | null }[] = [
  { kind: "arrow", action: "drawArrow", icon: MoveUpRight },
  { kind: "text", action: "drawText", icon: ALargeSmall },
  { kind: "badge", action: "putNumber", icon: null },
  { kind: "box", action: "drawBox", icon: Square },
  { kind: "ellipse", action: "drawEllipse", icon: Circle },
  { kind: "line", action: "drawLine", icon: Slash },
  { kind: "highlighter", action: "drawHighlighter", icon: Highlighter },
  { kind: "pen", action: "drawPen", icon: Pencil },
  { kind: "sticker", action: "putSticker", icon: Star },
  { kind: "dim", action: "dimRest", icon: SunDim },
];

/** The name of the tool in hand is seen where there is room for it. */
const NAMED = "sr-only @min-[46rem]:not-sr-only";

/** What is drawn next; the one in hand is named. */
export function PointTools() {
  const { store } = useBench();
  const tool = useCut((state) => state.tool);
  const load = useMarkStyles((state) => state.load);
  useEffect(() => void load(), [load]);
  return (
    <div className="flex items-center gap-0.5" role="group" aria-label="Draw">
      <button
        type="button"
        className={`btn btn-xs ${tool.kind === "select" ? "btn-neutral" : "btn-ghost"}`}
        aria-pressed={tool.kind === "select"}
        title={titled("layAside", "Take marks: press one, or drag around several")}
        onClick={() => store.setTool({ kind: "select" })}
      >
        <MousePointer2 size={14} aria-hidden /> <span className={tool.kind === "select" ? NAMED : "sr-only"}>Take</span>
      </button>
      {MARK_TOOLS.map(({ kind, action, icon: Icon }) => {
        const inHand = tool.kind === "mark" && tool.mark === kind;
        return (
          <button
            key={kind}
            type="button"
            className={`btn btn-xs px-1 @min-[46rem]:px-1.5 ${inHand ? "btn-neutral" : "btn-ghost"}`}
            aria-pressed={inHand}
            title={titled(action)}
            onClick={() => store.setTool(inHand ? { kind: "select" } : { kind: "mark", mark: kind })}
          >
            {Icon ? <Icon size={16} aria-hidden /> : <span className="figure flex size-4 items-center justify-center rounded-full border border-current text-[10px]" aria-hidden>1</span>}
            <span className={inHand ? NAMED : "sr-only"}>{KIND_WORDS[kind]}</span>
          </button>
        );
      })}
      <SnapButton words="Marks snap to blocks, to other marks and to equal gaps; not while Alt is held" />
      <Captions />
    </div>
  );
}
