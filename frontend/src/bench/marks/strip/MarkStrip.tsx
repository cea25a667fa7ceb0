import { ArrowDownToLine, ArrowUpToLine, Copy, Lock, LockOpen, Trash2 } from "lucide-react";

import { titled } from "../../../app/actions/registry";
import { Panel } from "../../../parts/Panel";
import { useBench, useCut } from "../../benchContext";
import { useShownMarks } from "../drawing/useShownMarks";
import { KIND_WORDS } from "../handling/geometry";
import { changeMarks, duplicateSelected, removeAllMarks, removeSelected, reorderSelected } from "../markSteps";
import { Arrange } from "./Arrange";
import { Looks } from "./Looks";
import { BadgeFields, NewSequence } from "./NumberFields";
import { PlaceFields } from "./PlaceFields";
import { StickerPick } from "./StickerPick";
import { Styles } from "./Styles";

/** The marks in hand: how they look, and what can be done with them. */
export function MarkStrip() {
  const { store } = useBench();
  const marks = useCut((state) => state.document.marks);
  const selected = useCut((state) => state.selected);
  const tool = useCut((state) => state.tool);
  const inHand = marks.filter((mark) => selected.includes(mark.id));
  const [first] = inHand;
  if (!first) return <Hint drawing={tool.kind === "mark"} none={marks.length === 0} />;
  const locked = inHand.every((mark) => mark.locked);
  return (
    <div className="flex h-9 shrink-0 items-center gap-2 overflow-hidden border-b border-base-300 px-3 text-sm whitespace-nowrap" role="group" aria-label="The mark in hand">
      <span className="font-semibold">{inHand.length > 1 ? `${inHand.length} marks` : KIND_WORDS[first.kind]}</span>
      <Looks marks={inHand} first={first} atHand />
      {first.kind === "text" && <LettersMissing id={first.id} />}
      {first.kind === "badge" && inHand.length === 1 && <BadgeFields />}
      {first.kind === "sticker" && inHand.length === 1 && <StickerPick id={first.id} />}
      <span className="ml-auto flex items-center gap-0.5">
        {inHand.length > 1 && <Arrange ids={selected} />}
        <Styles marks={inHand} first={first} />
        <Panel label="More" name="More settings of the mark" button="btn-ghost btn-xs" size="w-64">
          <div className="flex flex-col items-start gap-2 text-sm">
            <Looks marks={inHand} first={first} atHand={false} />
            {first.kind === "badge" && inHand.length === 1 && <NewSequence id={first.id} />}
          </div>
          <PlaceFields marks={inHand} />
        </Panel>
        <Do words="Duplicate" action="duplicate" icon={<Copy size={14} />} run={() => duplicateSelected(store)} />
        <Do words="Above all others" icon={<ArrowUpToLine size={14} />} run={() => reorderSelected(store, "front")} />
        <Do words="Below all others" icon={<ArrowDownToLine size={14} />} run={() => reorderSelected(store, "back")} />
        <Do
          words={locked ? "Unlock" : "Lock in its place"}
          icon={locked ? <Lock size={14} /> : <LockOpen size={14} />}
          run={() => changeMarks(store, locked ? "unlocked" : "locked", selected, (mark) => ({ ...mark, locked: !locked }))}
        />
        <Do words="Remove" action="removeMark" icon={<Trash2 size={14} />} run={() => removeSelected(store)} />
      </span>
    </div>
  );
}

function Hint({ drawing, none }: { drawing: boolean; none: boolean }) {
  const { store } = useBench();
  const words = drawing ? "Drag on the page to draw it; Esc lays it aside." : none ? "Take an arrow, a text or a number from the row above, and draw on the page." : "Press a mark to change it, or drag around several.";
  return (
    <div className="flex h-9 shrink-0 items-center justify-between border-b border-base-300 px-3 text-sm text-info">
      <p>{words}</p>
      {!none && (
        <button type="button" className="btn btn-ghost btn-xs" onClick={() => removeAllMarks(store)}>
          Remove all marks
        </button>
      )}
    </div>
  );
}

/** Letters that none of the fonts has are left out, and that is said. */
function LettersMissing({ id }: { id: string }) {
  const missing = useShownMarks().find((row) => row.mark.id === id)?.drawn?.missing ?? [];
  if (missing.length === 0) return null;
  return (
    <span role="alert" className="max-w-24 truncate text-error" title="No font that ships has these letters">
      Left out: {missing.join("")}
    </span>
  );
}

function Do({ words, action, icon, run }: { words: string; action?: "duplicate" | "removeMark"; icon: React.ReactNode; run: () => void }) {
  return (
    <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={words} title={action ? titled(action, words) : words} onClick={run}>
      {icon}
    </button>
  );
}
