import { Check, CircleAlert } from "lucide-react";
import { Link } from "react-router";

import { itemLookUrl } from "../../api/routines";
import type { MadeFile, RunItem } from "../../api/types";
import { formatBytes, formatName, formatSize } from "../../parts/figures";
import { LimitBar } from "../../parts/LimitBar";

const STATES: Record<RunItem["state"], string> = {
  waiting: "waits",
  taking: "is being taken",
  applying: "is being drawn",
  making: "its files are being made",
  done: "",
  skipped: "left out",
  failed: "failed",
  stopped: "stopped",
};

/** One picture of a run with its files. */
export function ItemRow({ item, trial }: { item: RunItem; trial: boolean }) {
  const place = item.cut_id !== null && item.capture_id !== null ? `/captures/${item.capture_id}/cuts/${item.cut_id}` : item.capture_id !== null ? `/captures/${item.capture_id}` : null;
  return (
    <tr className={`border-b border-base-300 align-top ${item.needs_a_look ? "bg-base-200" : ""}`} data-item-state={item.state}>
      <td className="py-2 pr-3 pl-1">
        {item.before?.look ? (
          <div className="grid grid-cols-2 gap-2">
            <Look itemId={item.before.item_id} look={item.before.look} words={`version ${item.before.version}`} />
            <Look itemId={item.id} look={item.look} words="now" />
          </div>
        ) : (
          <Look itemId={item.id} look={item.look} />
        )}
      </td>
      <td className="py-2 pr-4">
        {place ? (
          <Link to={place} className="font-semibold break-words hover:underline">
            {item.name}
          </Link>
        ) : (
          <span className="font-semibold break-words">{item.name}</span>
        )}
        {STATES[item.state] && <p className={item.state === "failed" ? "text-error" : ""}>{STATES[item.state]}</p>}
        {item.warnings.map((warning) => (
          <p key={warning} className="flex gap-1.5">
            <CircleAlert size={15} className="mt-0.5 shrink-0 text-error" aria-hidden /> {warning}
          </p>
        ))}
        {item.error && <p className="text-error">{item.error}</p>}
        {item.document_id !== null && (
          <a className="link" href={`/api/hand-overs/${item.document_id}/file`} download>
            Save its PDF
          </a>
        )}
      </td>
      <td className="py-2">
        <ul className="grid gap-2">
          {item.files.map((file, index) => (
            <FileLine key={index} file={file} before={item.before?.files[index]} version={item.before?.version} />
          ))}
        </ul>
        {item.files.length === 0 && item.state === "done" && item.document_id === null && <span className="text-info">{trial ? "No file would be made." : "No file: its cut is on the Bench."}</span>}
      </td>
    </tr>
  );
}

/** A small picture of what came of it; below it which one it is, where there are two. */
function Look({ itemId, look, words = "" }: { itemId: number; look: string; words?: string }) {
  return (
    <figure>
      {look ? <img src={itemLookUrl(itemId, look)} alt="" loading="lazy" className="seethrough max-h-28 max-w-full border border-base-300" /> : <span className="block h-14 w-20 max-w-full border border-dashed border-base-300" />}
      {words && <figcaption className="text-xs text-info">{words}</figcaption>}
    </figure>
  );
}

function FileLine({ file, before, version }: { file: MadeFile; before: MadeFile | undefined; version: number | undefined }) {
  const coming = file.state === "queued" || file.state === "running";
  return (
    <li>
      <div className="flex flex-wrap items-baseline gap-x-3">
        <span className="font-semibold">{file.slot}</span>
        {file.width > 0 && <span className="figure">{formatSize(file.width, file.height)}</span>}
        {file.format && <span>{formatName(file.format as Parameters<typeof formatName>[0])}</span>}
        {file.bytes !== null && (
          <span className="figure">
            {formatBytes(file.bytes)}
            {file.limit !== null && ` of ${formatBytes(file.limit)}`}
          </span>
        )}
        {file.fidelity !== null && (
          <span>
            fidelity <span className="figure">{file.fidelity.toFixed(0)}</span>
          </span>
        )}
        {coming ? (
          <span className="text-info">on its way…</span>
        ) : file.met ? (
          <span className="text-success">
            <Check size={14} className="inline" aria-hidden /> as asked
          </span>
        ) : (
          <span className="text-error">not as asked</span>
        )}
        {file.output_id !== null && file.bytes !== null && (
          <a className="link" href={`/api/outputs/${file.output_id}/file`} download>
            Save
          </a>
        )}
      </div>
      {file.bytes !== null && file.limit !== null && <LimitBar bytes={file.bytes} limit_bytes={file.limit} met={file.met} />}
      {file.error && <p className="text-error">{file.error}</p>}
      {before?.bytes != null && (
        <p className="text-info">
          version {version}: <span className="figure">{formatSize(before.width, before.height)}</span>, <span className="figure">{formatBytes(before.bytes)}</span>
          {before.fidelity !== null && (
            <>
              , fidelity <span className="figure">{before.fidelity.toFixed(0)}</span>
            </>
          )}
        </p>
      )}
    </li>
  );
}
