import { useState } from "react";

import { useChangeSettings, useSettings } from "../../api/settings";
import type { TakeChanges } from "../../api/types";
import { useNotices } from "../../app/notices";
import { showProblem } from "../../app/showProblem";
import { Panel } from "../../parts/Panel";
import { splitAddresses } from "../addresses";
import { differing, USUAL, usualTaking, useTakeChanges } from "./takeSettings";

/** What was said of how the next pages are taken: forgotten again, or kept for all pages or those of a host. */
export function KeepTaking() {
  const { changes, reset } = useTakeChanges();
  const settings = useSettings();
  const send = useChangeSettings();
  const show = useNotices((state) => state.show);
  const [host, setHost] = useState(typedHost);
  if (Object.keys(changes).length === 0) return null;
  const set = (name: string) => (settings.data?.settings.find((row) => row.name === name)?.value ?? {}) as Record<string, TakeChanges>;
  const keep = (values: Record<string, unknown>, text: string) =>
    void send.mutateAsync(values).then(() => {
      reset();
      show({ tone: "info", text, hint: "Settings, Taking pages." });
    }, showProblem);
  return (
    <div className="mt-3 flex flex-wrap gap-2 border-l-2 border-base-300 pl-4" data-keep-taking>
      <button type="button" className="btn btn-xs" onClick={reset}>
        Reset
      </button>
      <button
        type="button"
        className="btn btn-xs"
        title="Every page is taken so from now on, unless something else is said"
        disabled={!settings.data}
        onClick={() => keep({ "take.usual": differing({ ...usualTaking(), ...changes }, USUAL) }, "Pages are taken so from now on.")}
      >
        Keep for all pages
      </button>
      <Panel label="Keep for one host" button="btn-xs" side="left">
        <form
          className="grid gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            const hosts = set("take.hosts");
            keep({ "take.hosts": { ...hosts, [host.trim()]: { ...hosts[host.trim()], ...changes } } }, `Pages of ${host.trim()} are taken so from now on.`);
          }}
        >
          <label className="grid gap-1">
            Host
            <input className="input input-sm figure w-full" placeholder="harbour.example" spellCheck={false} value={host} onChange={(event) => setHost(event.target.value)} />
          </label>
          <p>Its pages are taken so from now on, also in sweeps.</p>
          <button type="submit" className="btn btn-primary btn-sm justify-self-start" disabled={!host.trim() || !settings.data}>
            Keep
          </button>
        </form>
      </Panel>
    </div>
  );
}

/** The host of the address that stands in the address field. */
function typedHost(): string {
  const text = document.querySelector<HTMLTextAreaElement>("[data-address-field]")?.value ?? "";
  const [first = ""] = splitAddresses(text);
  try {
    return new URL(first.includes("://") ? first : `https://${first}`).host;
  } catch {
    return "";
  }
}
