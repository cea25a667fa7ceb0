import { useId } from "react";

import type { RoutineStep } from "../../api/types";
import { NumberInput } from "../../parts/fields/NumberInput";
import { formatBytes, formatName, parseLimit } from "../../parts/figures";
import { BlockFields } from "./BlockFields";
import type { Field } from "./stepKinds";
import { valueAt } from "./steps";

const FORMATS = ["jpeg", "png", "webp", "avif", "gif"] as const;
const SIDES = ["top", "right", "bottom", "left"];

interface Props {
  field: Field;
  step: RoutineStep;
  onChange: (value: unknown) => void;
}

/** One field of a step, typed as suits what it holds. */
export function FieldInput({ field, step, onChange }: Props) {
  const value = valueAt(step, field.path) ?? field.usual;
  const id = useId();
  switch (field.kind) {
    case "block":
      return <BlockFields words={field.words} rule={value as Record<string, unknown> | undefined} optional={field.optional ?? false} onChange={onChange} />;
    case "check":
      return (
        <label className="flex items-center gap-2 self-end pb-1">
          <input type="checkbox" className="checkbox checkbox-sm" checked={value === true} onChange={(event) => onChange(event.target.checked)} />
          {field.words}
        </label>
      );
    case "formats":
      return <Several field={field} options={FORMATS} named={(format) => formatName(format as (typeof FORMATS)[number])} value={value} onChange={onChange} />;
    case "sides":
      return <Several field={field} options={SIDES} named={(side) => side} value={value ?? SIDES} onChange={onChange} />;
    default:
      return (
        <div className="grid gap-0.5">
          <label htmlFor={id}>{field.words}</label>
          <Typed id={id} field={field} value={value} onChange={onChange} />
        </div>
      );
  }
}

function Typed({ id, field, value, onChange }: { id: string; field: Field; value: unknown; onChange: (value: unknown) => void }) {
  const emptied = field.optional ? undefined : field.usual;
  switch (field.kind) {
    case "choice":
      return (
        <select id={id} className="select select-sm w-full" value={String(value)} onChange={(event) => onChange(typeof value === "number" ? Number(event.target.value) : event.target.value)}>
          {Object.entries(field.choices ?? {}).map(([option, words]) => (
            <option key={option} value={option}>
              {words}
            </option>
          ))}
        </select>
      );
    case "px":
    case "number":
      return (
        <NumberInput name={field.words} size="h-8 w-28 text-sm" value={typeof value === "number" ? value : null} least={0} step={field.kind === "px" || Number.isInteger(field.usual ?? value ?? 1) ? 1 : 0.1} placeholder={field.placeholder ?? ""} onCommit={(number) => (number !== null || field.optional || field.usual !== undefined) && onChange(number ?? emptied)} />
      );
    case "colour":
      return <input id={id} type="color" className="input input-sm w-16 p-1" value={typeof value === "string" ? value.slice(0, 7) : "#ffffff"} onChange={(event) => onChange(event.target.value)} />;
    case "lines":
      return (
        <textarea id={id} className="textarea min-h-0 w-full" rows={2} placeholder={field.placeholder} spellCheck={false} defaultValue={Array.isArray(value) ? value.join("\n") : ""} onBlur={(event) => onChange(event.target.value.split("\n").map((line) => line.trim()).filter(Boolean))} />
      );
    case "bytes":
      return <Bytes id={id} field={field} value={typeof value === "number" ? value : null} onChange={onChange} />;
    default:
      return (
        <input id={id} key={String(value)} className="input input-sm w-full" placeholder={field.placeholder} defaultValue={typeof value === "string" ? value : ""} onBlur={(event) => event.target.value !== value && onChange(event.target.value || emptied || "")} onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()} />
      );
  }
}

function Bytes({ id, field, value, onChange }: { id: string; field: Field; value: number | null; onChange: (value: unknown) => void }) {
  return (
    <input
      id={id}
      key={value}
      className="input input-sm figure w-28"
      placeholder={field.placeholder}
      defaultValue={value === null ? "" : formatBytes(value).replace(".0 ", " ")}
      onBlur={(event) => {
        const typed = event.target.value.trim();
        const bytes = parseLimit(typed);
        if (bytes !== null) onChange(bytes);
        else if (!typed) onChange(undefined);
        else event.target.value = value === null ? "" : formatBytes(value);
      }}
      onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
    />
  );
}

function Several({ field, options, named, value, onChange }: { field: Field; options: readonly string[]; named: (option: string) => string; value: unknown; onChange: (value: unknown) => void }) {
  const chosen = Array.isArray(value) ? (value as string[]) : [];
  const toggled = (option: string) => options.filter((row) => (row === option) !== chosen.includes(row));
  return (
    <fieldset className="flex flex-wrap gap-x-4 gap-y-1 sm:col-span-2">
      <legend>{field.words}</legend>
      {options.map((option) => (
        <label key={option} className="flex items-center gap-1.5">
          <input type="checkbox" className="checkbox checkbox-sm" checked={chosen.includes(option)} onChange={() => toggled(option).length > 0 && onChange(toggled(option))} />
          {named(option)}
        </label>
      ))}
    </fieldset>
  );
}
