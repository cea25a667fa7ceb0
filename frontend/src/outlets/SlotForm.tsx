import { useState } from "react";

import type { FormatName, Slot, SlotIn } from "../api/types";
import { formatBytes, formatName, parseLimit, parsePx } from "../parts/figures";

const FORMATS: FormatName[] = ["jpeg", "png", "webp", "avif", "gif"];

interface Props {
  slot?: Slot;
  onSave: (slot: SlotIn) => void;
  onCancel: () => void;
}

/** A slot's rules, typed. */
export function SlotForm({ slot, onSave, onCancel }: Props) {
  const [name, setName] = useState(slot?.name ?? "");
  const [width, setWidth] = useState(slot ? String(slot.width_px) : "");
  const [limit, setLimit] = useState(slot ? formatBytes(slot.limit_bytes) : "");
  const [height, setHeight] = useState(slot?.greatest_height_px ? String(slot.greatest_height_px) : "");
  const [formats, setFormats] = useState<FormatName[]>(slot?.formats ?? ["jpeg", "png", "webp"]);
  const [problem, setProblem] = useState("");

  const save = () => {
    const width_px = parsePx(width);
    const limit_bytes = parseLimit(limit);
    const greatest_height_px = height.trim() ? parsePx(height) : null;
    if (!name.trim()) setProblem("Give the slot a name.");
    else if (!width_px) setProblem("The width is a number of px, like 720.");
    else if (limit_bytes === null) setProblem("The limit is a size above 0, like 90 kB.");
    else if (height.trim() && !greatest_height_px) setProblem("The greatest height is a number of px, or empty.");
    else if (formats.length === 0) setProblem("Accept at least one format.");
    else onSave({ name: name.trim(), width_px, limit_bytes, formats, greatest_height_px });
  };
  const toggle = (format: FormatName) =>
    setFormats((current) => (current.includes(format) ? current.filter((row) => row !== format) : [...current, format]));
  return (
    <form
      className="flex flex-wrap items-end gap-3 border-b border-base-300 bg-base-200/60 p-3 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <label className="w-44">
        Name
        <input autoFocus className="input input-sm w-full" maxLength={80} value={name} onChange={(event) => setName(event.target.value)} />
      </label>
      <label className="w-24">
        Width, px
        <input className="input input-sm figure w-full" inputMode="numeric" value={width} onChange={(event) => setWidth(event.target.value)} />
      </label>
      <label className="w-28">
        Limit, kB
        <input className="input input-sm figure w-full" value={limit} onChange={(event) => setLimit(event.target.value)} />
      </label>
      <label className="w-32">
        Greatest height
        <input className="input input-sm figure w-full" inputMode="numeric" placeholder="any" value={height} onChange={(event) => setHeight(event.target.value)} />
      </label>
      <fieldset className="flex gap-3 pb-1.5">
        <legend className="mb-1.5">Formats</legend>
        {FORMATS.map((format) => (
          <label key={format} className="flex items-center gap-1.5">
            <input type="checkbox" className="checkbox checkbox-sm" checked={formats.includes(format)} onChange={() => toggle(format)} />
            {formatName(format)}
          </label>
        ))}
      </fieldset>
      <span className="ml-auto flex gap-2">
        <button type="button" className="btn btn-sm" onClick={onCancel}>
          Cancel
        </button>
        <button type="submit" className="btn btn-primary btn-sm">
          Save slot
        </button>
      </span>
      {problem && (
        <p role="alert" className="w-full text-error">
          {problem}
        </p>
      )}
    </form>
  );
}
