import { Archive } from "lucide-react";
import { useState } from "react";

import { useHandOver } from "../../api/handover";
import { counted } from "../../parts/figures";
import type { Handed } from "../HandOverPanel";
import { Progress } from "../Progress";

/** Captures themselves with their cuts, for another Tall Page. */
export function ArchiveWay({ handed }: { handed: Handed }) {
  const [knows, setKnows] = useState(false);
  const send = useHandOver();
  const count = handed.what.captures?.length ?? 0;
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        send.mutate({ what: handed.what, order: { way: "archive" } }, { onSuccess: (line) => window.location.assign(line.file_url) });
      }}
    >
      <p>
        {count > 0 ? `${counted(count, "capture")} with ${count === 1 ? "its" : "their"} cuts` : "All captures with their cuts"} as one ZIP, to be brought in by another Tall Page: pictures at full size, texts, marks, folders and labels. Files
        that were made are not in it: they are made again there.
      </p>
      <p className="border-l-2 border-accent pl-3">
        An archive holds pages <strong>as they were taken, also what cuts hide</strong> or leave out, the words of the pages, and what steps typed before a picture.
      </p>
      <label className="flex items-center gap-2">
        <input type="checkbox" className="checkbox checkbox-sm" checked={knows} onChange={() => setKnows(!knows)} />
        Whoever gets it may see all of that
      </label>
      <button type="submit" className="btn btn-primary btn-sm justify-self-start" disabled={!knows || send.isPending}>
        <Archive size={16} aria-hidden /> Save the archive
      </button>
      <Progress first={send.data} error={send.error} />
    </form>
  );
}
