import { useState } from "react";

import { isFitting, useFitAgain } from "../../../api/outlets";
import type { Choice, Output } from "../../../api/types";
import { showProblem } from "../../../app/showProblem";
import { Slide } from "../../../parts/fields/Slide";
import { TradeoffChart } from "../tradeoff/TradeoffChart";
import { changedChoice } from "./choices";
import { Formats } from "./Formats";

const LEAST_QUALITY = 2;
const GREATEST_QUALITY = 98;
const PALETTES = { png: [2, 4, 16, 32, 64, 128, 256], gif: [2, 4, 16, 256] } as const;

/** What was tried, side by side, and the choice by hand. Letting go of a setting makes the file. */
export function ByHand({ output }: { output: Output }) {
  const again = useFitAgain(output.cut_id);
  const [asked, setAsked] = useState<{ of: string; choice: Choice } | null>(null);
  // The settings show the choice that was asked for last, until its file is there.
  const waiting = asked?.of === output.file_key && (again.isPending || isFitting(output));
  const chosen = waiting ? asked.choice : output.made_choice;
  if (!chosen) return null;
  const choose = (choice: Choice | null) => {
    setAsked(choice && { of: output.file_key, choice });
    again.mutate(
      { outputId: output.id, choice },
      {
        onError: (error) => {
          setAsked(null);
          showProblem(error);
        },
      },
    );
  };
  return (
    <div className="text-sm">
      <Quality chosen={chosen} onChoose={choose} />
      <Settings chosen={chosen} onChoose={choose} />
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

interface SettingProps {
  chosen: Choice;
  onChoose: (choice: Choice) => void;
}

function Quality({ chosen, onChoose }: SettingProps) {
  const [held, setHeld] = useState<number | null>(null);
  if (chosen.quality == null) return null;
  const quality = held ?? chosen.quality;
  const settle = (settled: number) => {
    setHeld(null);
    if (settled !== chosen.quality) onChoose({ ...chosen, quality: settled });
  };
  return (
    <div className="mb-3">
      <span className="flex justify-between">
        <span>Quality</span>
        <span className="figure">{quality}</span>
      </span>
      <Slide name="Quality" least={LEAST_QUALITY} greatest={GREATEST_QUALITY} value={quality} onChange={setHeld} onSettle={settle} />
    </div>
  );
}

function Settings({ chosen, onChoose }: SettingProps) {
  return (
    <div className="mb-3 flex flex-wrap gap-x-4 gap-y-1">
      {chosen.colours != null && (
        <label className="flex items-center gap-2">
          Colours
          <select
            className="select select-xs w-20"
            value={chosen.colours}
            onChange={(event) => onChoose(changedChoice(chosen, { colours: Number(event.target.value) as (typeof PALETTES.png)[number] }))}
          >
            {PALETTES[chosen.format === "gif" ? "gif" : "png"].map((count) => (
              <option key={count}>{count}</option>
            ))}
          </select>
        </label>
      )}
      {chosen.format === "jpeg" && (
        <Switch words="Half colour detail" title="Colour at half the resolution: lighter; seen on coloured letters" on={chosen.subsampled} onSet={(subsampled) => onChoose(changedChoice(chosen, { subsampled }))} />
      )}
      {chosen.quality != null && (
        <Switch words="Soften" title="Soften by a hair before encoding: lighter; edges lose a little" on={chosen.softened} onSet={(softened) => onChoose(changedChoice(chosen, { softened }))} />
      )}
      <Switch words="Sharpen" title="Sharpen a little before encoding: letters are crisper, the file is heavier" on={chosen.sharpened} onSet={(sharpened) => onChoose(changedChoice(chosen, { sharpened }))} />
    </div>
  );
}

interface SwitchProps {
  words: string;
  title: string;
  on: boolean;
  onSet: (on: boolean) => void;
}

function Switch({ words, title, on, onSet }: SwitchProps) {
  return (
    <label className="flex items-center gap-1.5" title={title}>
      <input type="checkbox" className="checkbox checkbox-xs" checked={on} onChange={(event) => onSet(event.target.checked)} />
      {words}
    </label>
  );
}
