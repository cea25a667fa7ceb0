import { formatSize } from "../../parts/figures";
import type { Block } from "../../api/types";
import { blockWords } from "./geometry/blocks";

/** The block under the pointer, lit, with what it is. */
export function BlockLight({ block, zoom }: { block: Block; zoom: number }) {
  return (
    <div
      data-block={block.role}
      className="pointer-events-none absolute bg-secondary/10 outline-2 outline-secondary outline-dashed"
      style={{
        left: block.x_px * zoom,
        top: block.y_px * zoom,
        width: block.width_px * zoom,
        height: block.height_px * zoom,
      }}
    >
      <span className={`absolute ${block.y_px * zoom > 24 ? "bottom-full -left-0.5" : "top-0 left-0"} flex max-w-96 gap-2 bg-secondary px-1.5 text-xs leading-5 text-secondary-content`}>
        <span className="truncate">{blockWords(block)}</span>
        <span className="figure shrink-0">{formatSize(block.width_px, block.height_px)}</span>
      </span>
    </div>
  );
}
