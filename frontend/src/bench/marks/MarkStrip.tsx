import { ArrowDownToLine, ArrowUpToLine, Copy, Lock, LockOpen, Trash2 } from "lucide-react";

import { keepSticker, useSigns, useUsualLooks } from "../../api/marks";
import { asProblem } from "../../api/client";
import type { Mark, MarkKind } from "../../api/types";
import { titled } from "../../app/actions/registry";
import { useNotices } from "../../app/notices";
import { NumberInput } from "../../parts/fields/NumberInput";
import { Panel } from "../../parts/Panel";
import { useBench, useCut } from "../benchContext";
import { ColourPick } from "./ColourPick";
import { KIND_WORDS } from "./geometry";
import { lookOf, type Look, rememberLook, shownValue } from "./looks";
import { changeMarks, duplicateSelected, removeAllMarks, removeSelected, reorderSelected } from "./markSteps";
import { useShownMarks } from "./useShownMarks";

type Control =
  | { kind: "colour"; optional?: boolean }
  | { kind: "number"; least: number; greatest: number; step?: number; times?: number }
  | { kind: "choice"; options: Record<string, string> }
  | { kind: "switch" };

/** The settings of a mark, in the order in which they are shown; each kind has some of them. */
const FIELDS: { name: string; words: string; control: Control }[] = [
  { name: "filling", words: "Filling", control: { kind: "colour", optional: true } },
  { name: "colour", words: "Colour", control: { kind: "colour" } },
  { name: "outline_colour", words: "Outline colour", control: { kind: "colour" } },
  { name: "plate", words: "Plate behind the text", control: { kind: "colour", optional: true } },
  { name: "thickness_px", words: "thick", control: { kind: "number", least: 0.5, greatest: 500 } },
  { name: "outline_px", words: "outline", control: { kind: "number", least: 0, greatest: 500 } },
  { name: "size_px", words: "size", control: { kind: "number", least: 4, greatest: 1_000 } },
  { name: "weight", words: "Weight", control: { kind: "choice", options: { "400": "regular", "600": "strong", "700": "bold" } } },
  { name: "align", words: "Alignment", control: { kind: "choice", options: { left: "left", centre: "centre", right: "right" } } },
  { name: "heads", words: "Head", control: { kind: "choice", options: { end: "head at the end", start: "at the start", both: "at both ends" } } },
  { name: "dashes", words: "Line", control: { kind: "choice", options: { none: "unbroken", dashes: "dashes", dots: "dots" } } },
  { name: "shape", words: "Shape of what is seen", control: { kind: "choice", options: { box: "box", ellipse: "ellipse" } } },
  { name: "how", words: "How the rest is dimmed", control: { kind: "choice", options: { darken: "darken", blur: "blur" } } },
  { name: "strength", words: "strength %", control: { kind: "number", least: 0, greatest: 100, step: 5, times: 100 } },
  { name: "corner_px", words: "corners", control: { kind: "number", least: 0, greatest: 500 } },
  { name: "sequence", words: "sequence", control: { kind: "number", least: 1, greatest: 2_000 } },
  { name: "letters", words: "letters", control: { kind: "switch" } },
  { name: "opacity", words: "opacity %", control: { kind: "number", least: 0, greatest: 100, step: 5, times: 100 } },
  { name: "angle_deg", words: "angle °", control: { kind: "number", least: -360, greatest: 360 } },
];

/** The settings that are wanted most often stand in the strip, the others behind *More*. */
const AT_HAND: Record<MarkKind, readonly string[]> = {
  arrow: ["filling", "outline_colour", "thickness_px", "heads"],
  line: ["colour", "thickness_px", "dashes"],
  box: ["filling", "outline_colour", "outline_px", "dashes"],
  ellipse: ["filling", "outline_colour", "outline_px", "dashes"],
  pen: ["colour", "thickness_px"],
  highlighter: ["colour", "thickness_px"],
  text: ["colour", "plate", "outline_colour", "size_px", "weight"],
  badge: ["filling", "colour", "size_px"],
  sticker: ["colour"],
  dim: ["how", "strength", "shape"],
};

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

function Looks({ marks, first, atHand }: { marks: Mark[]; first: Mark; atHand: boolean }) {
  const { store } = useBench();
  const usual = useUsualLooks();
  const styles = useCut((state) => state.document.styles) as unknown as Record<string, Look>;
  const fields = FIELDS.filter(
    ({ name }) => marks.every((mark) => name in (usual[mark.kind] ?? {})) && AT_HAND[first.kind].includes(name) === atHand,
  );
  const set = (name: string, words: string, value: unknown) => {
    const ids = marks.map((mark) => mark.id);
    changeMarks(store, `${words.toLowerCase()} changed`, ids, (mark) => ({ ...mark, [name]: value }), `look ${name} ${ids.join()}`);
    const changed = store.getState().document.marks.find((mark) => mark.id === first.id);
    if (changed && Object.keys(lookOf(changed, usual)).length > 0) rememberLook(changed, usual);
  };
  return fields.map(({ name, words, control }) => (
    <Setting key={name} words={words} named={!atHand} control={control} value={shownValue(first, name, styles, usual)} onSet={(value) => set(name, words, value)} />
  ));
}

function Setting({ words, control, value, named, onSet }: { words: string; control: Control; value: unknown; named: boolean; onSet: (value: unknown) => void }) {
  switch (control.kind) {
    case "colour":
      return (
        <span className="flex items-center gap-1">
          {named && <span className="text-info">{words}</span>}
          <ColourPick name={words} value={(value as string | null) ?? null} optional={control.optional ?? false} onPick={onSet} />
        </span>
      );
    case "switch":
      return (
        <label className="flex items-center gap-1">
          <input type="checkbox" className="checkbox checkbox-xs" checked={value === true} onChange={(event) => onSet(event.target.checked)} />
          {words}
        </label>
      );
    case "choice":
      return (
        <select className="select select-xs w-25 shrink-0" aria-label={words} title={words} value={String(value)} onChange={(event) => onSet(/^\d+$/.test(event.target.value) ? Number(event.target.value) : event.target.value)}>
          {Object.entries(control.options).map(([option, says]) => (
            <option key={option} value={option}>
              {says}
            </option>
          ))}
        </select>
      );
    case "number": {
      const times = control.times ?? 1;
      return (
        <label className="flex items-center gap-1">
          <span className="text-info">{words}</span>
          <NumberInput name={words} size="w-13" value={Math.round(((value as number | undefined) ?? 0) * times * 10) / 10} least={control.least} greatest={control.greatest} step={control.step ?? 1} onCommit={(number) => number !== null && onSet(number / times)} />
        </label>
      );
    }
  }
}

/** Where the mark stands, to the px. */
function PlaceFields({ marks }: { marks: Mark[] }) {
  const { store } = useBench();
  const [mark] = marks;
  if (!mark || marks.length > 1) return null;
  const names = ["x_px", "y_px", "width_px", "height_px", "from_x_px", "from_y_px", "to_x_px", "to_y_px"].filter((name) => typeof mark[name as keyof Mark] === "number");
  if (names.length === 0) return null;
  const said = (name: string) => name.replace("_px", "").replace("_", " ");
  return (
      <div className="mt-3 grid grid-cols-2 gap-2 border-t border-base-300 pt-3 text-sm">
        {names.map((name) => (
          <label key={name} className="flex items-center justify-between gap-1">
            <span className="text-info">{said(name)}</span>
            <NumberInput name={`${said(name)} in px`} size="w-16" value={mark[name as keyof Mark] as unknown as number} least={name.startsWith("width") || name.startsWith("height") ? 1 : -1_000_000} greatest={1_000_000} onCommit={(number) => number !== null && changeMarks(store, "place typed", [mark.id], (row) => ({ ...row, [name]: number }))} />
          </label>
        ))}
      </div>
  );
}

/** Begin to count again, in a sequence of its own. */
function NewSequence({ id }: { id: string }) {
  const { store } = useBench();
  const begin = () => {
    const next = Math.max(0, ...store.getState().document.marks.map((row) => (row.kind === "badge" ? (row.sequence ?? 1) : 0))) + 1;
    changeMarks(store, "new sequence", [id], (row) => ({ ...row, sequence: next }) as Mark);
  };
  return (
    <button type="button" className="btn btn-xs" title="Begin to count from 1 again, from here on" onClick={begin}>
      New sequence
    </button>
  );
}

/** The caption of a number, which goes into the list beside the picture. */
function BadgeFields() {
  const { store } = useBench();
  const mark = useCut((state) => state.document.marks.find((row) => row.id === state.selected[0]));
  if (mark?.kind !== "badge") return null;
  return (
      <input
        key={mark.id}
        className="input input-xs w-40"
        aria-label="Caption of the number"
        placeholder="Caption, for the list"
        maxLength={500}
        defaultValue={mark.caption ?? ""}
        onBlur={(event) => {
          const caption = event.target.value;
          if (caption !== (mark.caption ?? "")) changeMarks(store, "caption typed", [mark.id], (row) => ({ ...row, caption }) as Mark);
        }}
        onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
      />
  );
}

/** Which sign, or which picture of one's own. */
function StickerPick({ id }: { id: string }) {
  const { store } = useBench();
  const signs = useSigns();
  const show = useNotices((state) => state.show);
  const set = (change: { sign: string | null; picture: string | null }) => changeMarks(store, "sticker chosen", [id], (mark) => ({ ...mark, ...change }));
  const own = async (file: File | undefined) => {
    if (!file) return;
    try {
      set({ sign: null, picture: await keepSticker(file) });
    } catch (error) {
      const { sentence, hint } = asProblem(error);
      show({ tone: "error", text: sentence, hint });
    }
  };
  return (
    <Panel label="Sign" name="Which sign" button="btn-ghost btn-xs" size="w-64">
      <div className="grid grid-cols-6 gap-1">
        {Object.entries(signs).map(([name, path]) => (
          <button key={name} type="button" className="btn btn-square btn-ghost btn-sm" aria-label={name.replaceAll("-", " ")} title={name.replaceAll("-", " ")} onClick={() => set({ sign: name, picture: null })}>
            <svg viewBox="0 0 24 24" className="size-5" fill="none" stroke="currentColor" strokeWidth={2} strokeLinecap="round" strokeLinejoin="round" aria-hidden>
              <path d={path} />
            </svg>
          </button>
        ))}
      </div>
      <label className="mt-3 block">
        A picture of your own (PNG, JPEG, WebP)
        <input type="file" className="file-input file-input-xs mt-1 w-full" accept="image/png,image/jpeg,image/webp" onChange={(event) => void own(event.target.files?.[0])} />
      </label>
    </Panel>
  );
}
