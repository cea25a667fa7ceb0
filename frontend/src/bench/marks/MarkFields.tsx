import { NumberInput } from "../../parts/fields/NumberInput";
import { ColourPick } from "./ColourPick";
import { type HidingWay, WAYS } from "./hiding/hidingWays";
import { colourField, colourOf, INK, placeOf } from "./numbers";

interface MarkFieldsProps {
  name: string;
  mark: { kind: string };
  onChange: (more: object) => void;
}

/** Words, colour and place of a mark, to be typed. */
export function MarkFields({ name, mark, onChange }: MarkFieldsProps) {
  const text = "text" in mark && typeof mark.text === "string" ? mark.text : null;
  return (
    <>
      <div className="flex items-center gap-2">
        {text !== null && <WordsField key={text} name={`Words of ${name}`} text={text} onPut={(put) => onChange({ text: put })} />}
        <ColourPick name={`Colour of ${name}`} value={colourOf(mark)} onPick={(colour) => colour && onChange({ [colourField(mark)]: colour })} />
      </div>
      <PlaceFields name={name} what={mark} onPut={(field, value) => onChange({ [field]: value })} />
    </>
  );
}

interface AreaFieldsProps {
  name: string;
  area: { how?: HidingWay; colour?: string | null };
  onChange: (more: object) => void;
}

/** How and where an area is hidden. */
export function AreaFields({ name, area, onChange }: AreaFieldsProps) {
  const how = area.how ?? "solid";
  return (
    <>
      <div className="flex items-center gap-2">
        <select className="select select-xs w-32" aria-label={`How ${name} is hidden`} value={how} onChange={(event) => onChange({ how: event.target.value })}>
          {Object.entries(WAYS).map(([way, { words }]) => (
            <option key={way} value={way}>
              {words}
            </option>
          ))}
        </select>
        {how === "solid" && <ColourPick name={`Colour of ${name}`} value={area.colour ?? INK} onPick={(colour) => colour && onChange({ colour })} />}
      </div>
      <PlaceFields name={name} what={area} onPut={(field, value) => onChange({ [field]: Math.round(value) })} />
    </>
  );
}

/** Where something lies, in px. */
export function PlaceFields({ name, what, onPut }: { name: string; what: object; onPut: (field: string, value: number) => void }) {
  return (
    <div className="flex flex-wrap items-center gap-1">
      {placeOf(what).map(([field, words, value]) => (
        <span key={field} className="flex items-center gap-1">
          {words}
          <NumberInput name={`${field.replace(/_px$/, "").replaceAll("_", " ")} of ${name}`} size="w-14" value={Math.round(value)} onCommit={(put) => put !== null && onPut(field, put)} />
        </span>
      ))}
    </div>
  );
}

function WordsField({ name, text, onPut }: { name: string; text: string; onPut: (text: string) => void }) {
  return (
    <input
      className="input input-xs w-full"
      aria-label={name}
      defaultValue={text}
      onBlur={(event) => event.target.value !== text && onPut(event.target.value)}
      onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
    />
  );
}
