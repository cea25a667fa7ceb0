import { ScrollText } from "lucide-react";
import { lazy, Suspense } from "react";

import { Panel } from "../parts/Panel";

const LogLines = lazy(() => import("./LogLines").then((module) => ({ default: module.LogLines })));

/** What left of a capture: what, where, when, and what came back. */
export function LogPanel({ captureId }: { captureId: number }) {
  return (
    <Panel name="Log: what left of this capture" side="right" size="w-[34rem]" button="btn-square btn-ghost" label={<ScrollText size={16} aria-hidden />}>
      <h2 className="font-semibold">What left of this capture</h2>
      <Suspense fallback={<p>Looking at the log…</p>}>
        <LogLines captureId={captureId} />
      </Suspense>
    </Panel>
  );
}
