import { Ratio as RatioIcon, X } from "lucide-react";
import { useState } from "react";

import { NumberInput } from "../../parts/fields/NumberInput";
import { Panel } from "../../parts/Panel";
import { useBench, useCut } from "../benchContext";
import { shownFrame } from "../cut/frameSteps";
import { CORNER_WORDS, type Corner } from "../page/geometry/shapes";
import { frameFullWidth, holdTo } from "./shapeSteps";
import { forgetShape, keepShape, MOST_SIDE, type NamedShape, SHAPES, useShape } from "./shape";

const FIRST = { width: 1_200, height: 630 };

/** What frames are held to while they are drawn, dragged and typed. */
export function ShapePanel() {
  const { store } = useBench();
  const { held, own, corner } = useShape();
  const take = (shape: NamedShape | null) => holdTo(store, shape);
  return (
    <Panel
      name="Shape of the frame"
      side="left"
      size="w-80"
      button={`btn-xs ${held ? "btn-neutral" : ""}`}
      label={
        <>
          <RatioIcon size={14} aria-hidden /> Shape
        </>
      }
    >
      <div className="flex flex-wrap gap-1" role="group" aria-label="Shapes">
        <Choice words="free" chosen={held === null} onChoose={() => take(null)} />
        {SHAPES.map((shape) => (
          <Choice key={shape.name} words={shape.name} chosen={held?.name === shape.name} onChoose={() => take(shape)} />
        ))}
        {own.map((shape) => (
          <span key={shape.name} className="flex items-center">
            <Choice words={shape.name} chosen={held?.name === shape.name} onChoose={() => take(shape)} />
            <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Forget ${shape.name}`} title="Forget it" onClick={() => forgetShape(shape.name)}>
              <X size={12} aria-hidden />
            </button>
          </span>
        ))}
      </div>
      <OwnShape onKeep={take} />
      {held?.exact && <Enlarged shape={held} />}
      <button type="button" className="btn btn-sm mt-3 w-full" onClick={() => frameFullWidth(store)}>
        Full width of the page
      </button>
      <label className="mt-3 flex items-center justify-between gap-2 border-t border-base-300 pt-3">
        x and y count from
        <select className="select select-sm w-36" value={corner} onChange={(event) => useShape.setState({ corner: event.target.value as Corner })}>
          {Object.entries(CORNER_WORDS).map(([name, words]) => (
            <option key={name} value={name}>
              {words}
            </option>
          ))}
        </select>
      </label>
    </Panel>
  );
}

function Choice({ words, chosen, onChoose }: { words: string; chosen: boolean; onChoose: () => void }) {
  return (
    <button type="button" className={`btn btn-xs ${chosen ? "btn-neutral" : ""}`} aria-pressed={chosen} onClick={onChoose}>
      {words}
    </button>
  );
}

/** A shape by two numbers: as a ratio, or as px of the file. */
function OwnShape({ onKeep }: { onKeep: (shape: NamedShape) => void }) {
  const [{ width, height }, setSides] = useState(FIRST);
  const [exact, setExact] = useState(true);
  const keep = () => {
    const shape = { name: exact ? `${width} × ${height} px` : `${width} : ${height}`, width, height, exact };
    keepShape(shape);
    onKeep(shape);
  };
  return (
    <div className="mt-3 border-t border-base-300 pt-3">
      <div className="flex items-center gap-2">
        <NumberInput name="Width of the shape" size="w-20" value={width} least={1} greatest={MOST_SIDE} onChange={(number) => number && setSides({ width: Math.round(number), height })} />
        <span aria-hidden>{exact ? "×" : ":"}</span>
        <NumberInput name="Height of the shape" size="w-20" value={height} least={1} greatest={MOST_SIDE} onChange={(number) => number && setSides({ width, height: Math.round(number) })} />
        <button type="button" className="btn btn-sm ml-auto" onClick={keep}>
          Use
        </button>
      </div>
      <label className="mt-2 flex items-center gap-2">
        <input type="checkbox" className="checkbox checkbox-sm" checked={exact} onChange={(event) => setExact(event.target.checked)} />
        These are px of the file
      </label>
    </div>
  );
}

/** A frame with fewer px than its file has would have to be enlarged: said before it happens. */
function Enlarged({ shape }: { shape: NamedShape }) {
  const width = useCut((state) => shownFrame(state).width_px);
  if (width >= shape.width) return <p className="mt-2 text-info">Give a slot or rules of {shape.name}, and the file has exactly these px.</p>;
  return (
    <p className="mt-2 text-error" role="status">
      The frame has {width} px across: a file of {shape.width} would be enlarged.
    </p>
  );
}
