import { ArrowLeft, Trash2, Undo2 } from "lucide-react";
import { Link } from "react-router";

import { useCaptureAction } from "../../api/captures";
import { asProblem } from "../../api/client";
import { thumbnailUrl } from "../../api/pictures";
import { useClearDeleted, useDeleted } from "../../api/shelf";
import type { DeletedCapture } from "../../api/types";
import { counted, formatBytes, formatSize, formatWhen } from "../../parts/figures";
import { Panel } from "../../parts/Panel";
import { ProblemNote } from "../../parts/ProblemNote";
import { useNow } from "../../parts/useNow";
import { useTitle } from "../../parts/useTitle";

/** What was deleted and can still be put back on the shelf. */
export function DeletedPage() {
  useTitle("Deleted");
  const deleted = useDeleted();
  const found = deleted.data;
  return (
    <main className="mx-auto max-w-5xl px-6 pt-6 pb-16">
      <div className="mb-5 flex items-center gap-3 border-b border-base-300 pb-2">
        <Link to="/shelf" className="btn btn-square btn-ghost btn-sm" aria-label="To the shelf" title="To the shelf">
          <ArrowLeft size={16} aria-hidden />
        </Link>
        <h1 className="text-xl font-semibold">Deleted</h1>
        {found && found.total > 0 && (
          <>
            <span className="figure">
              {counted(found.total, "capture")}, {formatBytes(found.bytes)}
            </span>
            <span className="ml-auto" />
            <Clearing total={found.total} bytes={found.bytes} />
          </>
        )}
      </div>
      {deleted.isError && <ProblemNote sentence={asProblem(deleted.error).sentence} hint={asProblem(deleted.error).hint} />}
      {found?.total === 0 && (
        <div className="py-20 text-center">
          <p className="mb-4">Nothing is deleted. What you delete stays here for {found.kept_days} days.</p>
          <Link to="/shelf" className="btn">
            To the shelf
          </Link>
        </div>
      )}
      {found && found.total > 0 && (
        <p className="mb-3 text-sm">
          What is deleted stays here for {found.kept_days} days; then it is cleared from the disk, with its cuts and their files.
        </p>
      )}
      <ul>
        {found?.captures.map((capture) => (
          <Row key={capture.id} capture={capture} />
        ))}
      </ul>
      {found && found.total > found.captures.length && (
        <p className="py-4 text-sm">And {counted(found.total - found.captures.length, "more capture")}, deleted before these.</p>
      )}
    </main>
  );
}

function Row({ capture }: { capture: DeletedCapture }) {
  const action = useCaptureAction();
  const now = useNow();
  return (
    <li className="flex items-center gap-4 border-b border-base-300 py-2" data-deleted={capture.id}>
      <span className="block h-12 w-12 shrink-0 overflow-hidden border border-base-300">
        {capture.picture_key && <img src={thumbnailUrl(capture)} alt="" loading="lazy" className="block w-full" />}
      </span>
      <span className="min-w-0 flex-1">
        <span className="block truncate font-medium" title={capture.name}>
          {capture.name}
        </span>
        <span className="block truncate text-sm">{capture.host || "dropped picture"}</span>
      </span>
      {capture.picture_key && <span className="figure text-sm">{formatSize(capture.width_px, capture.height_px)}</span>}
      <span className="w-36 text-right text-sm">{formatWhen(capture.deleted_at, now)}</span>
      <button type="button" className="btn btn-sm" disabled={action.isPending} onClick={() => action.mutate({ captureId: capture.id, action: "restore" })}>
        <Undo2 size={16} aria-hidden /> Put back
      </button>
    </li>
  );
}

function Clearing({ total, bytes }: { total: number; bytes: number }) {
  const clear = useClearDeleted();
  return (
    <Panel name="Clear all" label={<><Trash2 size={16} aria-hidden /> Clear all</>}>
      <p>
        {counted(total, "capture")} and all that was made of them go for good, and {formatBytes(bytes)} of the disk become free.
      </p>
      <button type="button" className="btn btn-sm btn-error btn-block mt-3" disabled={clear.isPending} onClick={() => clear.mutate()}>
        Clear all, for good
      </button>
      {clear.isError && <p className="mt-2 text-error">{asProblem(clear.error).sentence}</p>}
    </Panel>
  );
}
