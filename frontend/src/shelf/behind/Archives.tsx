import { PackageOpen, Square } from "lucide-react";
import { useRef } from "react";
import { Link } from "react-router";

import { isPending } from "../../api/captures";
import { useArchives, useBringArchive, useStopArchive } from "../../api/dataFolder";
import type { BroughtArchive } from "../../api/types";
import { showProblem } from "../../app/showProblem";
import { counted, formatWhen } from "../../parts/figures";
import { JobProgress } from "../../parts/JobProgress";
import { useNow } from "../../parts/useNow";

/** Archives of another Tall Page are brought in here. */
export function Archives() {
  const archives = useArchives();
  const bring = useBringArchive();
  const field = useRef<HTMLInputElement>(null);
  return (
    <section className="mt-10" aria-label="Archives">
      <div className="flex flex-wrap items-center gap-3 border-b border-base-300 pb-2">
        <h2 className="font-semibold">Archives</h2>
        <button type="button" className="btn btn-sm ml-auto" disabled={bring.isPending} onClick={() => field.current?.click()}>
          <PackageOpen size={16} aria-hidden /> {bring.isPending ? "Sending the archive…" : "Bring in an archive"}
        </button>
        <input
          ref={field}
          type="file"
          accept=".zip,application/zip"
          className="hidden"
          aria-label="Archive to bring in"
          data-archive
          onChange={(event) => {
            const file = event.target.files?.[0];
            event.target.value = "";
            if (file) bring.mutate(file, { onError: showProblem });
          }}
        />
      </div>
      <p className="py-2 text-sm">
        Captures with their cuts, from another Tall Page or an earlier day. To make one, choose captures on the <Link className="link" to="/shelf">shelf</Link>, and under “Hand over” take “Archive”.
      </p>
      <ul>{archives.data?.map((row) => <Row key={row.id} row={row} />)}</ul>
    </section>
  );
}

function Row({ row }: { row: BroughtArchive }) {
  const now = useNow();
  const stop = useStopArchive();
  return (
    <li className="border-b border-base-200 py-2 text-sm" data-brought={row.id} data-state={row.job.state}>
      <span className="flex gap-3">
        <span className="min-w-0 flex-1 truncate font-medium" title={row.name}>
          {row.name}
        </span>
        <span>{formatWhen(row.created_at, now)}</span>
      </span>
      {isPending(row) ? (
        <span className="flex items-end gap-3">
          <span className="flex-1">
            <JobProgress job={row.job} words={row.job.state === "queued" ? "Waiting for its turn" : "Bringing it in"} />
          </span>
          <button type="button" className="btn btn-sm" onClick={() => stop.mutate(row.id, { onError: showProblem })}>
            <Square size={14} aria-hidden /> Stop
          </button>
        </span>
      ) : (
        <p>{whatCame(row)}</p>
      )}
      {row.refused.map((refused) => (
        <p key={refused.name} className="border-l-2 border-accent pl-2">
          {refused.sentence}
        </p>
      ))}
    </li>
  );
}

function whatCame(row: BroughtArchive): string {
  const there = row.brought === row.total ? `${counted(row.total, "capture")} brought in.` : `${row.brought} of ${counted(row.total, "capture")} brought in.`;
  const again = "Bring in the same archive again to go on.";
  if (row.job.state === "stopped") return `Stopped: ${there} ${again}`;
  if (row.job.state === "failed") return `${row.job.error?.sentence ?? "It failed."} ${there} ${again}`;
  return there;
}
