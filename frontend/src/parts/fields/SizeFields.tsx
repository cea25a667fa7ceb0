import { WAYS, wantsHeight, wantsWidth, type TypedSize, type Way } from "./sizing";

interface Props {
  size: TypedSize;
  onChange: (size: TypedSize) => void;
}

/** How large a file is to be: the way of saying it, and the numbers that it needs. */
export function SizeFields({ size, onChange }: Props) {
  const field = (label: string, name: "width" | "height" | "percent", placeholder: string) => (
    <label className="min-w-16 flex-1 text-sm">
      {label}
      <input
        className="input input-sm figure w-full"
        inputMode="numeric"
        value={size[name]}
        placeholder={placeholder}
        onChange={(event) => onChange({ ...size, [name]: event.target.value })}
      />
    </label>
  );
  return (
    <>
      <label className="flex flex-col text-sm">
        Size
        <select className="select select-sm w-32" value={size.way} onChange={(event) => onChange({ ...size, way: event.target.value as Way })}>
          {WAYS.map(({ way, words }) => (
            <option key={way} value={way}>
              {words}
            </option>
          ))}
        </select>
      </label>
      {wantsWidth(size.way) && field("Width, px", "width", "720")}
      {wantsHeight(size.way) && field("Height, px", "height", "480")}
      {size.way === "share" && field("Percent", "percent", "50")}
    </>
  );
}
