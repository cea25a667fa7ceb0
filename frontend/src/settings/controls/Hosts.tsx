import { Plus, X } from "lucide-react";
import { useState } from "react";

import type { TakeChanges } from "../../api/types";
import type { ControlProps } from "./Control";
import { TakeFields } from "./TakeFields";

/** Hosts whose pages are taken otherwise than usual. */
export function Hosts({ setting, onChoose }: ControlProps) {
  const hosts = setting.value as Record<string, TakeChanges>;
  const [host, setHost] = useState("");
  return (
    <div className="grid w-full gap-3">
      {Object.entries(hosts).map(([name, said]) => (
        <div key={name} className="border-l-2 border-base-300 pl-3" data-host={name}>
          <p className="flex items-center gap-2 font-medium">
            <span className="figure min-w-0 truncate">{name}</span>
            <button
              type="button"
              className="btn btn-square btn-ghost btn-xs"
              aria-label={`Take pages of ${name} as usual`}
              title="As usual"
              onClick={() => onChoose(Object.fromEntries(Object.entries(hosts).filter(([other]) => other !== name)))}
            >
              <X size={14} aria-hidden />
            </button>
          </p>
          <TakeFields said={said} words={name} onSay={(next) => onChoose({ ...hosts, [name]: next })} />
        </div>
      ))}
      <form
        className="flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (host.trim()) onChoose({ ...hosts, [host.trim()]: {} });
        }}
      >
        <input className="input input-xs figure min-w-0 flex-1" aria-label="Another host" placeholder="harbour.example" spellCheck={false} value={host} onChange={(event) => setHost(event.target.value)} />
        <button type="submit" className="btn btn-xs" disabled={!host.trim()}>
          <Plus size={14} aria-hidden /> Add a host
        </button>
      </form>
    </div>
  );
}
