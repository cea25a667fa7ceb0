import { NumberField } from "@base-ui/react/number-field";
import { useRef } from "react";

interface NumberInputProps {
  name: string;
  value: number | null;
  least?: number;
  greatest?: number;
  step?: number;
  placeholder?: string;
  /** Classes of the field besides its own: its width. */
  size?: string;
  field?: string;
  /** Whether a typed number out of range is handed on as it is; else the nearest in range is taken. */
  unclamped?: boolean;
  /** Each number on its way; null while the field is empty. */
  onChange?: (value: number | null) => void;
  /** A number was typed and left or confirmed, or stepped to; null when the field was emptied. */
  onCommit?: (value: number | null) => void;
  /** Escape: what was typed is forgotten. */
  onForget?: () => void;
}

const PLAIN: Intl.NumberFormatOptions = { useGrouping: false, maximumFractionDigits: 3 };

/** A number to be typed, or stepped with the arrow keys (Shift: ten times as far). */
export function NumberInput({ name, value, least, greatest, step = 1, placeholder, size = "w-16", field, unclamped = false, onChange, onCommit, onForget }: NumberInputProps) {
  const typed = useRef<number | null>(undefined);
  const forgotten = useRef(false);
  return (
    <NumberField.Root
      className="contents"
      value={value}
      min={least}
      max={greatest}
      step={step}
      largeStep={step * 10}
      locale="en"
      format={PLAIN}
      allowOutOfRange={unclamped}
      onValueChange={(number, details) => {
        if (forgotten.current) {
          details.cancel();
          return;
        }
        onChange?.(number);
        if (details.reason.startsWith("input-")) typed.current = number;
      }}
      onValueCommitted={(number) => !forgotten.current && onCommit?.(number)}
    >
      <NumberField.Input
        aria-label={name}
        data-field={field}
        placeholder={placeholder}
        className={`input input-xs figure ${size}`}
        onFocus={(event) => {
          typed.current = undefined;
          forgotten.current = false;
          event.currentTarget.select();
        }}
        onKeyDown={(event) => {
          if (event.key === "Enter" && typed.current !== undefined) onCommit?.(typed.current);
          if (event.key === "Escape") {
            forgotten.current = true;
            event.currentTarget.blur();
            onForget?.();
          }
        }}
      />
    </NumberField.Root>
  );
}
