import { Check } from "lucide-react";
import { useState } from "react";

import { asProblem } from "../api/client";
import { useChangeSettings } from "../api/settings";
import type { Setting } from "../api/types";
import { Control } from "./controls/Control";
import { inWords } from "./inWords";

/** Kinds whose control holds what is half typed: it begins anew once that is stored. The others keep the focus. */
const TYPED: ReadonlySet<Setting["kind"]> = new Set(["text", "secret", "take", "hosts"] as const);

/** A setting: what it does, what it is, and the way back to what is usual. A change counts at once. */
export function SettingRow({ setting, all }: { setting: Setting; all: Setting[] }) {
  const send = useChangeSettings();
  const [saved, setSaved] = useState(false);
  const choose = (value: unknown) => {
    setSaved(false);
    void send.mutateAsync({ [setting.name]: value }).then(
      () => setSaved(true),
      () => undefined, // said below
    );
  };
  const idle = isIdle(setting, all);
  return (
    <li className="grid grid-cols-1 gap-x-6 gap-y-2 border-t border-base-300 py-3 md:grid-cols-2 md:has-[[data-take-form]]:grid-cols-1" data-setting={setting.name}>
      <div>
        <p className="font-medium" id={`words-${setting.name}`}>
          {setting.words}
          {setting.shared && <span className="ml-2 text-xs font-normal text-info">for everybody here</span>}
        </p>
        <p className="text-sm">{setting.effect}</p>
        {idle && <p className="text-sm text-info">{idle}</p>}
      </div>
      <div className="grid content-start justify-items-start gap-1 text-sm">
        {setting.locked ? (
          <>
            <p>{inWords(setting, setting.value)}</p>
            <p className="text-info">{setting.locked}</p>
          </>
        ) : (
          <Control key={TYPED.has(setting.kind) ? JSON.stringify(setting.value) : setting.name} setting={setting} onChoose={choose} />
        )}
        {send.isError && (
          <p className="text-error" role="alert">
            {asProblem(send.error).sentence} {asProblem(send.error).hint}
          </p>
        )}
        <div className="flex items-center gap-3">
          {setting.origin === "set" && !setting.locked && (
            <button type="button" className="btn btn-ghost btn-xs -ml-2" aria-label={`As usual: ${inWords(setting, setting.usual)} (${setting.words})`} onClick={() => choose(null)}>
              As usual: {inWords(setting, setting.usual)}
            </button>
          )}
          <span role="status" className="inline-flex items-center gap-1">
            {saved && !send.isError && (
              <>
                <Check size={14} aria-hidden /> Saved
              </>
            )}
          </span>
        </div>
      </div>
    </li>
  );
}

/** Why a setting does nothing now, where another one decides whether it does. */
function isIdle(setting: Setting, all: Setting[]): string {
  const after = all.find((row) => row.name === "after.what")?.value;
  if (setting.name === "after.routine" && after !== "routine") return "It does nothing now: no routine is run.";
  if (setting.name === "after.folder" && after !== "folder") return "It does nothing now: nothing is saved.";
  return "";
}
