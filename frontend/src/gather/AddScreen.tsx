import { useState } from "react";

import { asProblem } from "../api/client";
import { useAddScreen } from "../api/screens";
import { parsePx } from "../parts/figures";
import { useChosenScreens, useScreenChoice } from "./screenChoice";

/** A display of one's own: its size in CSS px, and its pixel scale. */
export function AddScreen({ onClose }: { onClose: () => void }) {
  const add = useAddScreen();
  const chosen = useChosenScreens();
  const toggle = useScreenChoice((state) => state.toggle);
  const [name, setName] = useState("");
  const [width, setWidth] = useState("");
  const [height, setHeight] = useState("");
  const [scale, setScale] = useState(1);
  const [touch, setTouch] = useState(false);
  const [problem, setProblem] = useState("");
  const save = () => {
    const width_px = parsePx(width);
    const height_px = parsePx(height);
    if (!name.trim()) setProblem("Give the screen a name.");
    else if (!width_px || !height_px) setProblem("Width and height are numbers of px, like 1440 and 900.");
    else
      add.mutate(
        { name: name.trim(), width_px, height_px, scale, touch },
        {
          onSuccess: (made) => {
            if (!chosen.includes(made.name)) toggle(made.name);
            onClose();
          },
          onError: (error) => setProblem(`${asProblem(error).sentence} ${asProblem(error).hint}`),
        },
      );
  };
  return (
    <form
      className="mt-3 flex flex-wrap items-end gap-3 border-l-2 border-base-300 pl-4 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <label className="w-32">
        Name
        <input autoFocus className="input input-sm w-full" maxLength={40} value={name} onChange={(event) => setName(event.target.value)} />
      </label>
      <label className="w-20">
        Width, px
        <input className="input input-sm figure w-full" inputMode="numeric" placeholder="1440" value={width} onChange={(event) => setWidth(event.target.value)} />
      </label>
      <label className="w-20">
        Height, px
        <input className="input input-sm figure w-full" inputMode="numeric" placeholder="900" value={height} onChange={(event) => setHeight(event.target.value)} />
      </label>
      <label className="w-20">
        Pixel scale
        <select className="select select-sm w-full" value={scale} onChange={(event) => setScale(Number(event.target.value))}>
          {[1, 2, 3].map((step) => (
            <option key={step}>{step}</option>
          ))}
        </select>
      </label>
      <label className="flex items-center gap-2 pb-1.5">
        <input type="checkbox" className="checkbox checkbox-sm" checked={touch} onChange={(event) => setTouch(event.target.checked)} />
        touch
      </label>
      <span className="flex gap-2">
        <button type="submit" className="btn btn-primary btn-sm">
          Add screen
        </button>
        <button type="button" className="btn btn-sm" onClick={onClose}>
          Cancel
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
