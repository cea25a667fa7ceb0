import { useState } from "react";

import { isFitting, useFitAgain } from "../api/outlets";
import { asProblem } from "../api/client";
import type { Choice, Output } from "../api/types";
import { useNotices } from "../app/notices";
import { changedChoice } from "./choices";
import { Formats } from "./Formats";
import { TradeoffChart } from "./TradeoffChart";

const LEAST_QUALITY = 2;
const GREATEST_QUALITY = 98;
const PALETTES = [2, 4, 16, 256] as const;

/** What was tried, side by side, and the choice by hand. Letting go of a knob makes the file. */
export function Knobs({ output }: { output: Output }) {
  const again = useFitAgain(output.cut_id);
  const show = useNotices((state) => state.show);
  const made = output.made_choice;
  if (!made) return null;
  const choose = (choice: Choice | null) => {
    again.mutate(
      { outputId: output.id, choice },
      { onError: (error) => show({ tone: "error", text: asProblem(error).sentence, hint: asProblem(error).hint }) },
    );
  };
  return (
    <div className="text-sm">
      <Quality made={made} disabled={isFitting(output)} onChoose={choose} />
      <Settings made={made} disabled={isFitting(output)} onChoose={choose} />
      {output.by_hand && (
        <button type="button" className="btn btn-xs mb-3" onClick={() => choose(null)}>
          Back to automatic
        </button>
      )}
      {output.candidates.length > 0 && <Formats output={output} onChoose={choose} />}
      <TradeoffChart output={output} onChoose={choose} />
    </div>
  );
}

interface KnobProps {
  made: Choice;
  disabled: boolean;
  onChoose: (choice: Choice) => void;
}

function Quality({ made, disabled, onChoose }: KnobProps) {
  const [quality, setQuality] = useState(made.quality ?? GREATEST_QUALITY);
  if (made.quality == null) return null;
  const settle = () => {
    if (quality !== made.quality) onChoose({ ...made, quality });
  };
  return (
    <label className="mb-3 block">
      <span className="flex justify-between">
        <span>Quality</span>
        <span className="figure">{quality}</span>
      </span>
      <input
        type="range"
        aria-label="Quality"
        className="range range-primary range-xs w-full"
        min={LEAST_QUALITY}
        max={GREATEST_QUALITY}
        value={quality}
        disabled={disabled}
        onChange={(event) => setQuality(Number(event.target.value))}
        onPointerUp={settle}
        onKeyUp={settle}
        onBlur={settle}
      />
    </label>
  );
}

function Settings({ made, disabled, onChoose }: KnobProps) {
  return (
    <div className="mb-3 flex flex-wrap gap-x-4 gap-y-1">
      {made.colours != null && (
        <label className="flex items-center gap-2">
          Colours
          <select
            className="select select-xs w-20"
            value={made.colours}
            disabled={disabled}
            onChange={(event) => onChoose(changedChoice(made, { colours: Number(event.target.value) as (typeof PALETTES)[number] }))}
          >
            {PALETTES.map((count) => (
              <option key={count}>{count}</option>
            ))}
          </select>
        </label>
      )}
      {made.format === "jpeg" && (
        <Switch words="Half colour detail" title="Colour at half the resolution: lighter; seen on coloured letters" on={made.subsampled} disabled={disabled} onSet={(subsampled) => onChoose(changedChoice(made, { subsampled }))} />
      )}
      {made.quality != null && (
        <Switch words="Soften" title="Soften by a hair before encoding: lighter; edges lose a little" on={made.softened} disabled={disabled} onSet={(softened) => onChoose(changedChoice(made, { softened }))} />
      )}
      <Switch words="Sharpen" title="Sharpen a little before encoding: letters are crisper, the file is heavier" on={made.sharpened} disabled={disabled} onSet={(sharpened) => onChoose(changedChoice(made, { sharpened }))} />
    </div>
  );
}

interface SwitchProps {
  words: string;
  title: string;
  on: boolean;
  disabled: boolean;
  onSet: (on: boolean) => void;
}

function Switch({ words, title, on, disabled, onSet }: SwitchProps) {
  return (
    <label className="flex items-center gap-1.5" title={title}>
      <input type="checkbox" className="checkbox checkbox-xs" checked={on} disabled={disabled} onChange={(event) => onSet(event.target.checked)} />
      {words}
    </label>
  );
}
