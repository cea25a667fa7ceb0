import { useState } from "react";
import { Link } from "react-router";

import { Pick } from "../../parts/fields/Pick";
import { HowMuch } from "./HowMuch";
import { NumberField, Row } from "./howParts";
import { StepsEditor } from "./StepsEditor";
import { useTakeSettings } from "./takeSettings";
import { splitSelectors } from "./takeSteps";

const MOST_WAIT_S = 60;
const BUSY_S = { least: 60, most: 300 };

function secondsFrom(least: number, most: number) {
  return (text: string): number | null | undefined => {
    if (!text.trim()) return null;
    const typed = Number(text);
    return typed >= least && typed <= most ? typed : undefined;
  };
}

/** What can be said of how pages are taken. */
export function HowToTakeForm() {
  const { settings, change } = useTakeSettings();
  const [selectors, setSelectors] = useState(settings.leave_out.join("\n"));
  return (
    <div className="mt-3 grid grid-cols-[8.5rem_1fr] items-start gap-x-4 gap-y-3 border-l-2 border-base-300 pl-4 text-sm">
      <Row label="How much">
        <HowMuch />
      </Row>
      <Row label="Steps before the picture">
        <StepsEditor />
        <div className="mt-2">
          <NumberField
            label="Seconds to wait"
            before="wait"
            after="more seconds"
            placeholder="0"
            value={settings.wait_ms === 0 ? null : settings.wait_ms / 1_000}
            parse={secondsFrom(0, MOST_WAIT_S)}
            wrong={`0 to ${MOST_WAIT_S}.`}
            onChange={(wait) => change({ wait_ms: Math.round((wait ?? 0) * 1_000) })}
          />
        </div>
        <div className="mt-2">
          <NumberField
            label="Seconds for a busy page"
            before="wait for a page that is busy with itself up to"
            after="seconds"
            placeholder={String(BUSY_S.least)}
            value={settings.busy_s === BUSY_S.least ? null : settings.busy_s}
            parse={secondsFrom(BUSY_S.least, BUSY_S.most)}
            wrong={`${BUSY_S.least} to ${BUSY_S.most}.`}
            onChange={(busy) => change({ busy_s: Math.round(busy ?? BUSY_S.least) })}
          />
        </div>
      </Row>
      <Row label="Appearance and language">
        <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
          <Pick name="scheme" value={settings.scheme} onPick={(scheme) => change({ scheme })} options={{ light: "Light colours", dark: "Dark colours" }} />
          <label className="flex items-center gap-2">
            language
            <input
              className="input input-xs figure w-20"
              aria-label="Language"
              spellCheck={false}
              value={settings.language}
              onChange={(event) => change({ language: event.target.value })}
            />
          </label>
        </div>
      </Row>
      <Row label="Hide">
        <Pick name="fixed-overlays" value={settings.fixed_overlays} onPick={(fixed_overlays) => change({ fixed_overlays })} options={{ leave_out: "Cookie notices and chat bubbles", keep: "Nothing: show them once" }} />
        <textarea
          className="textarea figure mt-2 min-h-0 w-full"
          rows={1}
          placeholder={"and by CSS selector, one a line: #chat, .advert"}
          aria-label="CSS selectors to leave out"
          spellCheck={false}
          value={selectors}
          onChange={(event) => {
            setSelectors(event.target.value);
            change({ leave_out: splitSelectors(event.target.value) });
          }}
        />
      </Row>
      <Row label="Signed in">
        <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
          <Pick
            name="signed-in"
            value={settings.signed_in ? "saved" : "never"}
            onPick={(picked) => change({ signed_in: picked === "saved" })}
            options={{ saved: "Where a sign-in is saved", never: "Never" }}
          />
          <Link to="/sign-ins" className="link">
            Saved sign-ins
          </Link>
        </div>
      </Row>
    </div>
  );
}
