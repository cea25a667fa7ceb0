interface SeveralProps {
  /** Id of what it is called. */
  label: string;
  options: readonly { value: string; words: string }[];
  chosen: readonly string[];
  onChoose: (chosen: string[]) => void;
}

/** Any of a few; the last one stays. */
export function Several({ label, options, chosen, onChoose }: SeveralProps) {
  return (
    <div role="group" aria-labelledby={label} className="flex flex-wrap gap-x-5 gap-y-1">
      {options.map(({ value, words }) => {
        const on = chosen.includes(value);
        return (
          <label key={value} className="flex items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={on}
              disabled={on && chosen.length === 1}
              onChange={() => onChoose(options.map((row) => row.value).filter((row) => (row === value ? !on : chosen.includes(row))))}
            />
            {words}
          </label>
        );
      })}
    </div>
  );
}
