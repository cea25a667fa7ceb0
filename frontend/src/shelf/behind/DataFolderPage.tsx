import { ArrowLeft } from "lucide-react";
import type { ReactNode } from "react";
import { Link } from "react-router";

import { asProblem } from "../../api/client";
import { useDataFolder, useMakeRoom } from "../../api/dataFolder";
import { useClearDeleted } from "../../api/shelf";
import type { DataFolder, Held } from "../../api/types";
import { showProblem } from "../../app/showProblem";
import { counted, formatBytes } from "../../parts/figures";
import { ClosingButton, Panel } from "../../parts/Panel";
import { ProblemNote } from "../../parts/ProblemNote";
import { useTitle } from "../../parts/useTitle";
import { Archives } from "./Archives";

type Kind = keyof DataFolder["kinds"];

const KINDS: readonly { kind: Kind; words: string; more: string; one: string }[] = [
  { kind: "captures", words: "Captures", more: "as they were taken", one: "capture" },
  { kind: "files", words: "Files made", more: "from cuts, for outlets", one: "file" },
  { kind: "deleted", words: "Deleted captures", more: "can still be put back", one: "capture" },
  { kind: "views", words: "Thumbnails and the like", more: "are made again when they are looked at", one: "file" },
  { kind: "documents", words: "Documents", more: "PDFs that were handed over; go by themselves after a week", one: "file" },
  { kind: "shared", words: "Shared links", more: "what they show; goes when a link is taken back or runs out", one: "file" },
  { kind: "unfinished", words: "Under way", more: "what is being taken or brought in; leftovers go by themselves", one: "file" },
];

/** What the data folder holds, how room is made, and archives that are brought in. */
export function DataFolderPage() {
  useTitle("Data folder");
  const folder = useDataFolder();
  const found = folder.data;
  return (
    <main className="mx-auto max-w-5xl px-6 pt-6 pb-16">
      <div className="mb-5 flex flex-wrap items-center gap-3 border-b border-base-300 pb-2">
        <Link to="/shelf" className="btn btn-square btn-ghost btn-sm" aria-label="To the shelf" title="To the shelf">
          <ArrowLeft size={16} aria-hidden />
        </Link>
        <h1 className="text-xl font-semibold">Data folder</h1>
        {found && (
          <>
            <span className="figure min-w-0 truncate text-sm" title={found.folder}>
              {found.folder}
            </span>
            <span className="ml-auto text-sm">
              <span className="figure">{formatBytes(found.free_bytes)}</span> of the disk are free
            </span>
          </>
        )}
      </div>
      {folder.isPending && <p>Looking at the disk…</p>}
      {folder.isError && <ProblemNote sentence={asProblem(folder.error).sentence} hint={asProblem(folder.error).hint} />}
      {found && <Kinds kinds={found.kinds} />}
      {found && (
        <div className="mt-10 grid gap-8 md:grid-cols-2">
          <Heaviest title="By site" rows={found.sites} none="dropped pictures" />
          <Heaviest title="By folder" rows={found.folders} none="in no folder" />
        </div>
      )}
      <Archives />
    </main>
  );
}

function Kinds({ kinds }: { kinds: DataFolder["kinds"] }) {
  const most = Math.max(1, ...Object.values(kinds).map((held) => held.bytes));
  return (
    <ul>
      {KINDS.map(({ kind, words, more, one }) => {
        const held = kinds[kind];
        if (!held) return null;
        return (
          <li key={kind} className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 border-b border-base-300 py-2 sm:grid-cols-[minmax(0,1fr)_10rem_6rem_7rem]" data-kind={kind}>
            <span>
              <span className="font-medium">{words}</span> <span className="text-sm">{more}</span>
            </span>
            <span className="hidden h-2 bg-base-200 sm:block" aria-hidden>
              <span className="block h-full bg-primary" style={{ width: `${(100 * held.bytes) / most}%` }} />
            </span>
            <span className="figure text-right text-sm" title={counted(held.count, one)}>
              {formatBytes(held.bytes)}
            </span>
            <span className="text-right max-sm:col-span-2">
              <MakeRoom kind={kind} held={held} words={words} />
            </span>
          </li>
        );
      })}
    </ul>
  );
}

/** The way to make room of a kind, where there is one. */
function MakeRoom({ kind, held, words }: { kind: Kind; held: Held; words: string }) {
  const clear = useMakeRoom();
  const clearDeleted = useClearDeleted();
  if (held.bytes === 0) return null;
  if (kind === "views" || kind === "documents")
    return (
      <Clear name={`Clear ${words.toLowerCase()}`} pending={clear.isPending} onClear={() => clear.mutate(kind, { onError: showProblem })}>
        {kind === "views" ? "They are made again when they are looked at: the next look takes a little longer." : "PDFs that were handed over can no longer be fetched here. Their lines in the log stay, and they can be made again from there."}
      </Clear>
    );
  if (kind === "deleted")
    return (
      <Clear name="Clear deleted captures" pending={clearDeleted.isPending} onClear={() => clearDeleted.mutate(undefined, { onError: showProblem })}>
        {counted(held.count, "capture")} and all that was made of them go for good. <Link className="link" to="/shelf/deleted">Look at them first</Link>
      </Clear>
    );
  return null;
}

function Clear({ name, pending, onClear, children }: { name: string; pending: boolean; onClear: () => void; children: ReactNode }) {
  return (
    <Panel name={name} label="Clear">
      <p>{children}</p>
      <ClosingButton className="btn btn-block btn-sm mt-3" disabled={pending} onClick={onClear}>
        {name}
      </ClosingButton>
    </Panel>
  );
}

const SHOWN = 12;

function Heaviest({ title, rows, none }: { title: string; rows: readonly Held[]; none: string }) {
  const rest = rows.slice(SHOWN);
  return (
    <section aria-label={title}>
      <h2 className="mb-1 font-semibold">{title}</h2>
      <p className="text-sm">Captures of the shelf with the files made of them.</p>
      <table className="mt-2 w-full text-sm">
        <tbody>
          {rows.slice(0, SHOWN).map((row) => (
            <tr key={row.name} className="border-b border-base-200">
              <td className="max-w-0 truncate py-1" title={row.name}>
                {row.name || none}
              </td>
              <td className="figure w-20 text-right">{row.count.toLocaleString("en-GB")}</td>
              <td className="figure w-24 text-right">{formatBytes(row.bytes)}</td>
            </tr>
          ))}
          {rest.length > 0 && (
            <tr>
              <td className="py-1">and {rest.length} more</td>
              <td />
              <td className="figure text-right">{formatBytes(rest.reduce((sum, row) => sum + row.bytes, 0))}</td>
            </tr>
          )}
        </tbody>
      </table>
    </section>
  );
}
