import { EyeOff, Trash2 } from "lucide-react";
import { useState } from "react";

import { asProblem } from "../../../api/client";
import { useFound } from "../../../api/marks";
import type { HiddenArea, SoughtWords } from "../../../api/types";
import { ProblemNote } from "../../../parts/ProblemNote";
import { useBench, useCut, useOrientation } from "../../benchContext";
import { newId } from "../markSteps";
import { hideFound, KINDS, showFound, soughtWords } from "./hideSteps";

/** Hide what the page says, wherever it says it: words, names, addresses, numbers, amounts. */
export function HideByWords({ how }: { how: HiddenArea["how"] }) {
  const { capture, store } = useBench();
  const [kind, setKind] = useState<SoughtWords["kind"]>("words");
  const [words, setWords] = useState("");
  const asked = { kind, words: kind === "words" ? words : "" };
  const found = useFound(capture.id, asked, useOrientation());
  const places = found.data?.places ?? [];
  const sought = useCut((state) => state.document.sought);
  const hide = () => {
    hideFound(store, { id: newId(), how, ...asked }, places);
    setWords("");
  };
  if (found.data && !found.data.known) {
    const again = capture.source === "page" ? "Take the page again: its words are kept then." : "A dropped picture has no words. Drag over what must not be seen.";
    return <p>Where the words of this capture stand is not known. {again}</p>;
  }
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap gap-1" role="group" aria-label="What is hidden">
        {(Object.keys(KINDS) as SoughtWords["kind"][]).map((row) => (
          <button key={row} type="button" className={`btn btn-xs ${kind === row ? "btn-neutral" : ""}`} aria-pressed={kind === row} onClick={() => setKind(row)}>
            {KINDS[row]}
          </button>
        ))}
      </div>
      {kind === "words" && (
        <label className="flex flex-col gap-1">
          Words or names, one on each line
          <textarea className="textarea textarea-sm w-full" rows={3} value={words} onChange={(event) => setWords(event.target.value)} />
        </label>
      )}
      {found.isError && <ProblemNote sentence={asProblem(found.error).sentence} hint={asProblem(found.error).hint} />}
      <p role="status" data-found={places.length}>
        {places.length === 0 ? "Nothing on the page says so." : `${places.length} ${places.length === 1 ? "place" : "places"} on the page:`}
      </p>
      {places.length > 0 && (
        <ul className="max-h-32 list-disc overflow-y-auto pl-5 break-words">
          {[...new Set(places.map((place) => place.text))].map((text) => (
            <li key={text}>{text}</li>
          ))}
        </ul>
      )}
      <button type="button" className="btn btn-primary btn-sm self-start" disabled={places.length === 0} onClick={hide}>
        <EyeOff size={15} aria-hidden /> {places.length === 1 ? "Hide it" : `Hide all ${places.length || ""}`}
      </button>
      {sought.length > 0 && (
        <ul aria-label="Hidden by words" className="flex flex-col gap-1 border-t border-base-300 pt-2">
          {sought.map((row) => (
            <li key={row.id} className="flex items-center gap-2">
              <span className="min-w-0 flex-1 truncate">{soughtWords(row)}</span>
              <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Show again: ${soughtWords(row)}`} onClick={() => showFound(store, row.id)}>
                <Trash2 size={14} aria-hidden />
              </button>
            </li>
          ))}
        </ul>
      )}
      <p className="text-info">When the page is taken again, they are looked for again, new ones too.</p>
    </div>
  );
}
