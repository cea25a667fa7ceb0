import { type ReactNode, useState } from "react";

export function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <>
      <span className="pt-0.5 text-info">{label}</span>
      <div>{children}</div>
    </>
  );
}

interface NumberFieldProps {
  label: string;
  before: string;
  after: string;
  placeholder: string;
  value: number | null;
  /** The number that was typed; null for an empty field, undefined for what is none. */
  parse: (text: string) => number | null | undefined;
  wrong: string;
  onChange: (value: number | null) => void;
}

/** A number within a sentence. What is half typed stays in the field, and is not taken over. */
export function NumberField({ label, before, after, placeholder, value, parse, wrong, onChange }: NumberFieldProps) {
  const [text, setText] = useState(value === null ? "" : String(value));
  const isWrong = parse(text) === undefined;
  return (
    <label className="flex items-center gap-2">
      {before}
      <input
        className="input input-xs figure w-20 text-right"
        inputMode="decimal"
        placeholder={placeholder}
        aria-label={label}
        aria-invalid={isWrong}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          const parsed = parse(event.target.value);
          if (parsed !== undefined) onChange(parsed);
        }}
      />
      {after}
      {isWrong && <span className="text-error">{wrong}</span>}
    </label>
  );
}

interface TargetFieldProps {
  label: string;
  value: string;
  onChange: (value: string) => void;
}

/** Where on a page: a CSS selector, or words that it shows. */
export function TargetField({ label, value, onChange }: TargetFieldProps) {
  return (
    <input
      className="input input-xs figure min-w-0 flex-1"
      aria-label={label}
      placeholder={'#main, or "words it shows"'}
      spellCheck={false}
      value={value}
      onChange={(event) => onChange(event.target.value)}
    />
  );
}
