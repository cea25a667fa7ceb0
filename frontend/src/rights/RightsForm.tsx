import { useState } from "react";

import { asProblem } from "../api/client";
import { useSayRights } from "../api/rights";
import type { RightsIn, RightsOut } from "../api/types";
import { useNotices } from "../app/notices";
import { counted } from "../parts/figures";
import { ClosingButton } from "../parts/Panel";
import { ProblemNote } from "../parts/ProblemNote";

type State = NonNullable<RightsIn["state"]>;

const STATES: { state: State; words: string }[] = [
  { state: "", words: "Nothing noted" },
  { state: "own", words: "Our own" },
  { state: "licensed", words: "Licensed until" },
  { state: "asked", words: "Asked, no answer yet" },
  { state: "not_cleared", words: "Not cleared" },
];
const MOST_NOTE_CHARS = 500;

/** States what is known of the rights, until when, and a note for those who work on it. */
export function RightsForm({ ids, rights }: { ids: readonly number[]; rights: RightsOut | undefined }) {
  const [said, setSaid] = useState({ state: rights?.state ?? "", until: rights?.until ?? "", note: rights?.note ?? "" });
  const send = useSayRights(ids);
  const show = useNotices((state) => state.show);
  const say = (change: Partial<typeof said>) => setSaid({ ...said, ...change });
  const isComplete = said.state !== "licensed" || said.until !== "";
  const save = () => {
    const until = said.state === "licensed" ? said.until : null;
    // The panel is closed by then: what is said afterwards is said by whoever is still there.
    void send
      .mutateAsync({ state: said.state, until, note: said.note })
      .then(() => show({ tone: "info", text: `Noted the rights of ${counted(ids.length, "capture")}.` }))
      .catch((error: unknown) => show({ tone: "error", text: asProblem(error).sentence, hint: asProblem(error).hint }));
  };
  return (
    <div className="grid gap-3">
      <fieldset className="grid gap-1.5">
        <legend className="mb-1.5 font-semibold">What is known of the rights</legend>
        {STATES.map(({ state, words }) => (
          <span key={state} className="flex min-h-8 items-center gap-2">
            <label className="flex items-center gap-2">
              <input type="radio" name="rights" className="radio radio-xs" checked={said.state === state} onChange={() => say({ state })} /> {words}
            </label>
            {state === "licensed" && said.state === state && (
              <input type="date" className="input input-sm w-36" aria-label="Last day of the licence" value={said.until} onChange={(event) => say({ until: event.target.value })} />
            )}
          </span>
        ))}
      </fieldset>
      <label className="grid gap-1">
        Note, for those who work on it
        <textarea className="textarea textarea-sm w-full" rows={2} maxLength={MOST_NOTE_CHARS} value={said.note} onChange={(event) => say({ note: event.target.value })} />
      </label>
      <p className="text-info">What is asked for, not cleared or run out is handed over after one question. Lists of files say the state; the note stays here.</p>
      {send.isError && <ProblemNote sentence={asProblem(send.error).sentence} hint={asProblem(send.error).hint} />}
      <ClosingButton className="btn btn-primary btn-sm justify-self-start" disabled={!isComplete} onClick={save}>
        Note it
      </ClosingButton>
    </div>
  );
}
