interface PickProps<Value extends string> {
  name: string;
  value: Value;
  options: Record<Value, string>;
  onPick: (value: Value) => void;
}

/** One of a few, all of them seen. */
export function Pick<Value extends string>({ name, value, options, onPick }: PickProps<Value>) {
  return (
    <div className="flex flex-wrap gap-x-5 gap-y-1">
      {(Object.entries(options) as [Value, string][]).map(([option, words]) => (
        <label key={option} className="flex items-center gap-2">
          <input type="radio" className="radio radio-xs" name={name} checked={value === option} onChange={() => onPick(option)} />
          {words}
        </label>
      ))}
    </div>
  );
}
