import { Printer } from "lucide-react";
import { useState } from "react";

import { useChooseKeys, useFetchedKeys } from "../api/keys";
import { type Action, ACTIONS, type ActionId, clashes, isOfTheBrowser, keyWords, plainKey, shownKeys, withOwnKeys } from "../app/actions/registry";
import type { OwnKeys } from "../app/actions/ownKeys";
import { showProblem } from "../app/showProblem";
import { useTitle } from "../parts/useTitle";
import { KeyPress } from "./KeyPress";

const IDS = Object.keys(ACTIONS) as ActionId[];
const USUAL: Record<ActionId, Action> = ACTIONS;

interface Asked {
  id: ActionId;
  key: string;
  /** The action that has this key where both are heard. */
  other: ActionId;
}

/** Every action with its key: changed by pressing, given back, printed. */
export function KeysPage() {
  useTitle("Keys");
  const own = useFetchedKeys();
  const choose = useChooseKeys();
  const [listening, setListening] = useState<ActionId | null>(null);
  const [asked, setAsked] = useState<Asked | null>(null);
  const [refused, setRefused] = useState("");
  const actions = withOwnKeys(own);
  const save = (next: OwnKeys) => choose.mutate(next, { onError: showProblem });
  const pressed = (id: ActionId, key: string) => {
    setListening(null);
    setRefused("");
    setAsked(null);
    if (isOfTheBrowser(key)) {
      setRefused(`${keyWords(key)} belongs to the browser. Choose another key.`);
      return;
    }
    const other = clashes(withOwnKeys({ ...own, [id]: [key] })).find((row) => row.first === id || row.second === id);
    if (other) setAsked({ id, key, other: (other.first === id ? other.second : other.first) as ActionId });
    else save({ ...own, [id]: [key] });
  };
  const takenFrom = ({ id, key, other }: Asked) => {
    save({ ...own, [id]: [key], [other]: actions[other].keys.filter((row) => plainKey(row) !== plainKey(key)) });
    setAsked(null);
  };
  const usual = (id: ActionId) => save(Object.fromEntries(Object.entries(own).filter(([name]) => name !== id)));
  const groups = [...new Set(IDS.map((id) => USUAL[id].group))];
  return (
    <main className="mx-auto max-w-5xl px-6 pt-6 pb-16">
      <div className="mb-1 flex items-center gap-2">
        <h1 className="mr-auto text-xl font-semibold">Keys</h1>
        <button type="button" className="btn btn-sm print:hidden" onClick={() => window.print()}>
          <Printer size={15} aria-hidden /> Print
        </button>
        <button type="button" className="btn btn-sm print:hidden" disabled={Object.keys(own).length === 0} onClick={() => save({})}>
          All as usual
        </button>
      </div>
      <p className="mb-5 print:hidden">Press a key to change it, then the new one. Keys rest while you type in a field.</p>
      {refused && (
        <p className="mb-4 text-error" role="alert">
          {refused}
        </p>
      )}
      <div className="gap-x-12 lg:columns-2 print:columns-2">
        {groups.map((group) => (
          <section key={group} className="mb-6 break-inside-avoid" aria-label={group}>
            <h2 className="mb-1 font-semibold text-info">{group}</h2>
            <ul className="text-sm">
              {IDS.filter((id) => USUAL[id].group === group).map((id) => (
                <li key={id} className="border-t border-base-300 py-1" data-action={id}>
                  <div className="flex items-center gap-2">
                    <span className="min-w-0 flex-1">{actions[id].words}</span>
                    {id in own && !actions[id].fixed && (
                      <button type="button" className="btn btn-ghost btn-xs print:hidden" title={`The usual: ${shownKeys(USUAL[id])}`} onClick={() => usual(id)}>
                        As usual
                      </button>
                    )}
                    {actions[id].fixed ? (
                      <span className="figure" title="These keys are not changed">
                        {shownKeys(actions[id])}
                      </span>
                    ) : (
                      <KeyPress words={actions[id].words} shown={shownKeys(actions[id])} isOwn={id in own} listening={listening === id} onListen={(on) => setListening(on ? id : null)} onPressed={(key) => pressed(id, key)} />
                    )}
                  </div>
                  {asked?.id === id && (
                    <p className="mt-1 flex flex-wrap items-center gap-2" role="alert">
                      {keyWords(asked.key)} does “{actions[asked.other].words}” here.
                      {!actions[asked.other].fixed && (
                        <button type="button" className="btn btn-xs" onClick={() => takenFrom(asked)}>
                          Take it from there
                        </button>
                      )}
                      <button type="button" className="btn btn-xs" onClick={() => setAsked(null)}>
                        Leave it
                      </button>
                    </p>
                  )}
                </li>
              ))}
            </ul>
          </section>
        ))}
      </div>
    </main>
  );
}
