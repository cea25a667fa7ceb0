import { LayoutList } from "lucide-react";
import { useState } from "react";

import { usePageMap } from "../../api/cuts";
import type { Block } from "../../api/types";
import { formatSize } from "../../parts/figures";
import { Panel } from "../../parts/Panel";
import { useBench, useOrientation } from "../benchContext";
import { blockWords } from "../page/geometry/blocks";
import { pick } from "./picking";

const MOST_SHOWN = 150;

/** The blocks of the page as a list: searched, walked by keys, framed. */
export function BlocksPanel({ scroller, zoom }: { scroller: HTMLElement | null; zoom: number }) {
  return (
    <Panel
      name="Blocks of the page"
      side="left"
      size="w-96"
      button="btn-xs"
      label={
        <>
          <LayoutList size={14} aria-hidden /> Blocks
        </>
      }
    >
      <BlockList scroller={scroller} zoom={zoom} />
    </Panel>
  );
}

function BlockList({ scroller, zoom }: { scroller: HTMLElement | null; zoom: number }) {
  const { store, capture } = useBench();
  const { data: blocks = [] } = usePageMap(capture.id, useOrientation());
  const [words, setWords] = useState("");
  const found = blocksWith(blocks, words);
  const take = (block: Block, joining: boolean) => {
    pick(store, block, joining);
    scroller?.scrollTo({ top: Math.max(0, block.y_px * zoom - 40) });
  };
  if (blocks.length === 0) return <p>Nothing is known of what stands on this page.</p>;
  return (
    <>
      <input type="search" className="input input-sm w-full" aria-label="Find a block" placeholder="Find a block: heading, table, its words" value={words} onChange={(event) => setWords(event.target.value)} />
      <p className="mt-2 text-xs text-info">Enter frames one; with Shift, the frame goes around it as well.</p>
      <ul className="mt-2 max-h-80 overflow-y-auto" aria-label="Blocks">
        {found.slice(0, MOST_SHOWN).map((block, index) => (
          <li key={index}>
            <button
              type="button"
              className="flex w-full items-baseline gap-2 rounded-field px-2 py-1 text-left hover:bg-base-200"
              onClick={(event) => take(block, event.shiftKey)}
              onKeyDown={(event) => {
                if (event.key === "Enter" && event.shiftKey) {
                  event.preventDefault();
                  take(block, true);
                } else walk(event);
              }}
            >
              <span className="min-w-0 flex-1 truncate">{blockWords(block)}</span>
              <span className="figure shrink-0 text-xs text-info">{formatSize(block.width_px, block.height_px)}</span>
            </button>
          </li>
        ))}
      </ul>
      {found.length === 0 && <p className="mt-2">No block is like this.</p>}
      {found.length > MOST_SHOWN && <p className="mt-2 text-xs text-info">And {found.length - MOST_SHOWN} more: type what is wanted.</p>}
    </>
  );
}

/** Blocks that hold all words, from the top of the page down, then from left to right; of those that begin together, the larger first. */
export function blocksWith(blocks: readonly Block[], words: string): Block[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const said = (block: Block) => `${block.role} ${block.text} ${block.alt}`.toLowerCase();
  return blocks
    .filter((block) => wanted.every((word) => said(block).includes(word)))
    .sort((first, second) => first.y_px - second.y_px || first.x_px - second.x_px || second.width_px * second.height_px - first.width_px * first.height_px);
}

/** Arrow keys go from one row to the next. */
function walk(event: React.KeyboardEvent<HTMLButtonElement>): void {
  const towards = event.key === "ArrowDown" ? "nextElementSibling" : event.key === "ArrowUp" ? "previousElementSibling" : null;
  if (!towards) return;
  event.preventDefault();
  event.currentTarget.closest("li")?.[towards]?.querySelector("button")?.focus();
}
