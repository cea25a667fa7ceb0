import { useState, type ReactNode } from "react";

import type { FormatName, Slot, SlotIn } from "../api/types";
import { formatName, parsePx } from "../parts/figures";
import { SizeFields } from "../parts/fields/SizeFields";
import { asTyped, divisible, readSize } from "../parts/fields/sizing";
import { asTypedWanted, readWanted } from "../parts/fields/wanted";
import { WantedFields } from "../parts/fields/WantedFields";

const FORMATS: FormatName[] = ["jpeg", "png", "webp", "avif", "gif"];
const ANCHORS = { start: "upper or left part", middle: "middle", end: "lower or right part" } as const;
type Anchor = keyof typeof ANCHORS;

interface Props {
  slot?: Slot;
  onSave: (slot: SlotIn) => void;
  onCancel: () => void;
}

/** A slot's rules, typed: what every slot has in the first line, what few need below. */
export function SlotForm({ slot, onSave, onCancel }: Props) {
  const [name, setName] = useState(slot?.name ?? "");
  const [size, setSize] = useState(asTyped(slot));
  const [wanted, setWanted] = useState(asTypedWanted(slot));
  const [formats, setFormats] = useState<FormatName[]>(slot?.formats ?? ["jpeg", "png", "webp"]);
  const [height, setHeight] = useState(slot?.greatest_height_px ? String(slot.greatest_height_px) : "");
  const [overlap, setOverlap] = useState(slot?.overlap_px ? String(slot.overlap_px) : "");
  const [numbered, setNumbered] = useState(slot?.numbered ?? false);
  const [anchor, setAnchor] = useState<Anchor>(slot?.anchor ?? "start");
  const [enlarge, setEnlarge] = useState(slot?.enlarge ?? false);
  const [background, setBackground] = useState(slot?.background ?? "#ffffff");
  const [problem, setProblem] = useState("");

  const save = () => {
    const read = readSize(size);
    const aim = readWanted(wanted);
    const inLeaves = divisible(size.way);
    const greatest_height_px = inLeaves && height.trim() ? parsePx(height) : null;
    const overlap_px = inLeaves && overlap.trim() ? parsePx(overlap) : 0;
    if (!name.trim()) setProblem("Give the slot a name.");
    else if ("problem" in read) setProblem(read.problem);
    else if ("problem" in aim) setProblem(aim.problem);
    else if (inLeaves && height.trim() && !greatest_height_px) setProblem("The greatest height is a number of px, or empty.");
    else if (overlap_px === null) setProblem("The overlap is a number of px, or empty.");
    else if (formats.length === 0) setProblem("Accept at least one format.");
    else onSave({ name: name.trim(), ...read, ...aim, formats, greatest_height_px, overlap_px, numbered, anchor, enlarge, background });
  };
  const toggle = (format: FormatName) =>
    setFormats((current) => (current.includes(format) ? current.filter((row) => row !== format) : [...current, format]));
  return (
    <form
      className="flex flex-wrap items-end gap-x-4 gap-y-3 border-b border-base-300 bg-base-200/60 p-3 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <label className="w-44">
        Name
        <input autoFocus className="input input-sm w-full" maxLength={80} value={name} onChange={(event) => setName(event.target.value)} />
      </label>
      <div className="flex w-80 items-end gap-2">
        <SizeFields size={size} onChange={setSize} />
      </div>
      <div className="flex w-96 items-end gap-2">
        <WantedFields wanted={wanted} onChange={setWanted} />
      </div>
      <fieldset className="flex gap-3 pb-1.5">
        <legend className="mb-1.5">Formats</legend>
        {FORMATS.map((format) => (
          <Check key={format} checked={formats.includes(format)} onToggle={() => toggle(format)}>
            {formatName(format)}
          </Check>
        ))}
      </fieldset>
      {divisible(size.way) && (
        <>
          <label className="w-32">
            Greatest height
            <input className="input input-sm figure w-full" inputMode="numeric" placeholder="any" value={height} onChange={(event) => setHeight(event.target.value)} />
          </label>
          <label className="w-32">
            Leaves overlap, px
            <input className="input input-sm figure w-full" inputMode="numeric" placeholder="0" value={overlap} onChange={(event) => setOverlap(event.target.value)} />
          </label>
        </>
      )}
      {size.way === "fill" && (
        <label className="flex flex-col">
          Keep the
          <select className="select select-sm w-44" value={anchor} onChange={(event) => setAnchor(event.target.value as Anchor)}>
            {Object.entries(ANCHORS).map(([value, words]) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </select>
        </label>
      )}
      <label>
        Background
        <input type="color" className="input input-sm block w-16 p-1" title="Around a padded picture, and behind a transparent one" value={background} onChange={(event) => setBackground(event.target.value)} />
      </label>
      <span className="flex gap-4 pb-1.5">
        {divisible(size.way) && (
          <Check checked={numbered} onToggle={() => setNumbered(!numbered)}>
            Number the leaves
          </Check>
        )}
        <Check checked={enlarge} onToggle={() => setEnlarge(!enlarge)}>
          Enlarge small cuts
        </Check>
      </span>
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

function Check({ checked, onToggle, children }: { checked: boolean; onToggle: () => void; children: ReactNode }) {
  return (
    <label className="flex items-center gap-1.5">
      <input type="checkbox" className="checkbox checkbox-sm" checked={checked} onChange={onToggle} />
      {children}
    </label>
  );
}
