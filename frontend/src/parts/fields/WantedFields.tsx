import { sizeUnit } from "../figures";
import { BANDS, type TypedWanted } from "./wanted";

interface Props {
  wanted: TypedWanted;
  onChange: (wanted: TypedWanted) => void;
}

/** What a file is to be: the best under a limit, or the lightest that looks so good, with a limit or without. */
export function WantedFields({ wanted, onChange }: Props) {
  const field = (label: string, name: "fidelity" | "limit", placeholder: string) => (
    <label className="min-w-16 flex-1 text-sm">
      {label}
      <input
        className="input input-sm figure w-full"
        value={wanted[name]}
        placeholder={placeholder}
        onChange={(event) => onChange({ ...wanted, [name]: event.target.value })}
      />
    </label>
  );
  return (
    <>
      <label className="flex flex-col text-sm">
        Wanted
        <select className="select select-sm w-full" value={wanted.aim} onChange={(event) => onChange({ ...wanted, aim: event.target.value })}>
          <option value="limit">The best under a limit</option>
          <optgroup label="The lightest that looks">
            {BANDS.map(({ least, words }) => (
              <option key={least} value={String(least)}>
                {words} ({least})
              </option>
            ))}
            <option value="number">as good as a number</option>
          </optgroup>
        </select>
      </label>
      {wanted.aim === "number" && field("Fidelity", "fidelity", "85")}
      {field(`Limit, ${sizeUnit()}`, "limit", wanted.aim === "limit" ? "90" : "none")}
    </>
  );
}
