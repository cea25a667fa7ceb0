import { Contrast } from "lucide-react";

import { NumberInput } from "../../parts/fields/NumberInput";
import { Panel } from "../../parts/Panel";
import { useBench, useCut } from "../benchContext";
import { PLAIN, tone } from "./toneSteps";

const MIDDLE = 128;

/** The colours of the page; marks and what is put around keep theirs. */
export function TonePanel() {
  const { store } = useBench();
  const given = useCut((state) => state.document.tone);
  const now = { ...PLAIN, ...given };
  const changed = given != null;
  const switched = (name: "grey" | "invert", words: string) => (event: { target: { checked: boolean } }) => tone(store, { [name]: event.target.checked }, words);
  return (
    <Panel
      name="Tone of the page"
      side="left"
      size="w-80"
      button={`btn-xs ${changed ? "btn-neutral" : ""}`}
      label={
        <>
          <Contrast size={14} aria-hidden /> Tone
        </>
      }
    >
      <Level name="brightness" words="Brightness" value={now.brightness} />
      <Level name="contrast" words="Contrast" value={now.contrast} />
      <label className="mt-3 flex items-center gap-2">
        <input type="checkbox" className="checkbox checkbox-sm" checked={now.grey || now.threshold !== null} disabled={now.threshold !== null} onChange={switched("grey", "turned grey")} />
        Grey
      </label>
      <div className="mt-2 flex items-center justify-between gap-2 whitespace-nowrap">
        <label className="flex items-center gap-2">
          <input type="checkbox" className="checkbox checkbox-sm" checked={now.threshold !== null} onChange={(event) => tone(store, { threshold: event.target.checked ? MIDDLE : null }, "black and white")} />
          Black and white
        </label>
        {now.threshold !== null && (
          <label className="flex items-center gap-1">
            <span className="text-info">white from</span>
            <NumberInput name="White from this brightness on" size="w-14" value={now.threshold} least={1} greatest={255} onCommit={(level) => level !== null && tone(store, { threshold: Math.round(level) }, "threshold moved", "tone threshold")} />
          </label>
        )}
      </div>
      <label className="mt-2 flex items-center gap-2">
        <input type="checkbox" className="checkbox checkbox-sm" checked={now.invert} onChange={switched("invert", "inverted")} />
        Inverted
      </label>
      <button type="button" className="btn btn-xs mt-4" disabled={!changed} onClick={() => tone(store, PLAIN, "tone taken off")}>
        As it was taken
      </button>
    </Panel>
  );
}

function Level({ name, words, value }: { name: "brightness" | "contrast"; words: string; value: number }) {
  const { store } = useBench();
  const set = (percent: number) => tone(store, { [name]: Math.round(percent) / 100 }, `${words.toLowerCase()} changed`, `tone ${name}`);
  return (
    <div className="mt-2 first:mt-0">
      <div className="flex items-center justify-between gap-2">
        <span>{words}</span>
        <span className="flex items-center gap-1">
          <NumberInput name={`${words} in percent`} size="w-14" value={Math.round(value * 100)} least={10} greatest={400} onCommit={(percent) => percent !== null && set(percent)} />
          <span className="text-info">%</span>
        </span>
      </div>
      <input type="range" className="range range-xs w-full" aria-label={words} min={10} max={200} value={Math.min(200, Math.round(value * 100))} onChange={(event) => set(Number(event.target.value))} />
    </div>
  );
}
