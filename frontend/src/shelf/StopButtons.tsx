import { Square } from "lucide-react";

import { useCaptureAction } from "../api/captures";
import type { Capture } from "../api/types";

const KEEPABLE = ["scrolling", "settling", "taking"];

/** Ends a capture under way: for nothing, or with what there is of it. */
export function StopButtons({ capture }: { capture: Pick<Capture, "id" | "job" | "source"> }) {
  const action = useCaptureAction();
  const { job } = capture;
  const keepable = capture.source === "page" && job.state === "running" && KEEPABLE.includes(job.stage);
  return (
    <div className="mt-3 flex flex-wrap gap-2">
      <button type="button" className="btn btn-sm" onClick={() => action.mutate({ captureId: capture.id, action: "stop" })}>
        <Square size={14} aria-hidden /> Stop
      </button>
      {keepable && (
        <button
          type="button"
          className="btn btn-sm"
          title="Stop here, and keep what there is of the page"
          onClick={() => action.mutate({ captureId: capture.id, action: "stop-keeping" })}
        >
          Stop and keep
        </button>
      )}
    </div>
  );
}
