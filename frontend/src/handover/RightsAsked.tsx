import { Scale } from "lucide-react";
import { type ReactNode, useEffect } from "react";

import { useLetGo } from "../api/handover";
import { useNotCleared } from "../api/rights";
import type { What } from "../api/types";

/** Asks once before what is not cleared is handed over, whichever way. */
export function RightsAsked({ what, children }: { what: What; children: ReactNode }) {
  const { data: sentence, isPending } = useNotCleared(what);
  const letGo = useLetGo((state) => state.letGo);
  useEffect(() => () => useLetGo.setState({ letGo: false }), []);
  if (isPending) return <p className="p-4">Looking at the rights…</p>;
  if (!sentence || letGo) return children;
  return (
    <div className="grid gap-3 p-4" role="alert">
      <p className="flex gap-2 border-l-2 border-accent pl-3">
        <Scale size={16} className="mt-0.5 shrink-0" aria-hidden />
        <span>{sentence} The log and the list of files will say so.</span>
      </p>
      <button type="button" className="btn btn-primary btn-sm justify-self-start" onClick={() => useLetGo.setState({ letGo: true })}>
        Hand over all the same
      </button>
    </div>
  );
}
