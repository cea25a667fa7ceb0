import type { ReactNode } from "react";

import type { Clip, ClipDocument } from "../api/types";
import { NumberInput } from "../parts/fields/NumberInput";

interface HowItPlaysProps {
  clip: Clip;
  document: ClipDocument;
  onChange: (more: Partial<ClipDocument>) => void;
}

const SIDES = { x_px: "x", y_px: "y", width_px: "w", height_px: "h" } as const;

/** Speed, direction, pauses, and the part that is seen. */
export function HowItPlays({ clip, document, onChange }: HowItPlaysProps) {
  const box = document.box ?? { x_px: 0, y_px: 0, width_px: clip.width_px, height_px: clip.height_px };
  return (
    <section aria-labelledby="how-it-plays">
      <h2 id="how-it-plays" className="mb-2 border-b border-base-300 pb-1 font-semibold">
        How it plays
      </h2>
      <div className="grid gap-2 text-sm">
        <Line words="Speed">
          <NumberInput name="Speed" value={document.speed} least={0.1} greatest={10} step={0.25} onCommit={(speed) => onChange({ speed: speed ?? 1 })} /> times
        </Line>
        <Line words="Keep every">
          <NumberInput name="Keep every so many-th frame" value={document.keep_every} least={1} greatest={30} onCommit={(keep_every) => onChange({ keep_every: keep_every ?? 1 })} /> {document.keep_every === 1 ? "frame" : "frames, one"}
        </Line>
        <Line words="Hold first">
          <NumberInput name="Hold the first frame, s" value={document.hold_start_ms / 1_000} least={0} greatest={10} step={0.5} onCommit={(seconds) => onChange({ hold_start_ms: Math.round((seconds ?? 0) * 1_000) })} /> s longer
        </Line>
        <Line words="Hold last">
          <NumberInput name="Hold the last frame, s" value={document.hold_end_ms / 1_000} least={0} greatest={10} step={0.5} onCommit={(seconds) => onChange({ hold_end_ms: Math.round((seconds ?? 0) * 1_000) })} /> s longer
        </Line>
        <Line words="Play">
          <NumberInput name="How often it plays, 0 for ever" value={document.repeats} least={0} greatest={100} onCommit={(repeats) => onChange({ repeats: repeats ?? 0 })} /> {document.repeats === 0 ? "for ever (0)" : "times"}
        </Line>
        <label className="flex items-center gap-2">
          <input type="checkbox" className="checkbox checkbox-xs" checked={document.there_and_back} onChange={(event) => onChange({ there_and_back: event.target.checked })} />
          There and back
        </label>
        <label className="flex items-center gap-2">
          <input type="checkbox" className="checkbox checkbox-xs" checked={document.pointer} onChange={(event) => onChange({ pointer: event.target.checked })} />
          Show the pointer, with a ring where it presses
        </label>
        <fieldset className="mt-1">
          <legend className="mb-1">Part that is seen, px</legend>
          <div className="flex items-center gap-1">
            {Object.entries(SIDES).map(([side, letter]) => (
              <span key={side} className="flex items-center gap-1">
                {letter}
                <NumberInput name={`${letter} of the part`} value={box[side as keyof typeof SIDES]} least={side.startsWith("w") || side.startsWith("h") ? 1 : 0} onCommit={(value) => onChange({ box: within({ ...box, [side]: value ?? 0 }, clip) })} />
              </span>
            ))}
          </div>
          {document.box && (
            <button type="button" className="btn btn-ghost btn-xs mt-1" onClick={() => onChange({ box: null })}>
              All of it
            </button>
          )}
        </fieldset>
      </div>
    </section>
  );
}

function Line({ words, children }: { words: string; children: ReactNode }) {
  return (
    <div className="flex items-center gap-2">
      <span className="w-24">{words}</span>
      {children}
    </div>
  );
}

/** The part that lies on the frames. */
function within(box: NonNullable<ClipDocument["box"]>, clip: Clip): NonNullable<ClipDocument["box"]> {
  const x_px = Math.min(Math.max(0, box.x_px), clip.width_px - 1);
  const y_px = Math.min(Math.max(0, box.y_px), clip.height_px - 1);
  return { x_px, y_px, width_px: Math.min(Math.max(1, box.width_px), clip.width_px - x_px), height_px: Math.min(Math.max(1, box.height_px), clip.height_px - y_px) };
}
