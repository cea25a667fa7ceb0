import type { Mark, MarkKind } from "../../../api/types";
import { NumberInput } from "../../../parts/fields/NumberInput";
import { useBench, useCut } from "../../benchContext";
import { ColourPick } from "../ColourPick";
import { lookOf, type Look, rememberLook, shownValue } from "../drawing/looks";
import { useUsualLooks } from "../drawing/markStyles";
import { changeMarks } from "../markSteps";

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
  { name: "heads", words: "Head", control: { kind: "choice", options: { end: "one head", start: "at the start", both: "two heads" } } },
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

/** The settings of the marks in hand: those at hand in the strip, or the others. */
export function Looks({ marks, first, atHand }: { marks: Mark[]; first: Mark; atHand: boolean }) {
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
    if (changed && Object.keys(lookOf(changed, usual)).length > 0) rememberLook(changed, usual, store.getState().page.scale ?? 1);
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
