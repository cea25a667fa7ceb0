import { Folder as FolderIcon, FolderPlus, Pencil, Trash2 } from "lucide-react";
import { type DragEvent, type ReactNode, useState } from "react";

import { useBatch, useChangeFolders, useFolders } from "../../api/shelf";
import type { Folder } from "../../api/types";
import { useNotices } from "../../app/notices";
import { showProblem } from "../../app/showProblem";
import { draggedCaptures } from "../choosing/draggedCaptures";
import { inOrder } from "./folderTree";

interface Props {
  /** The folder that is looked into; 0 is none, null is all of the shelf. */
  folder: number | null;
  onFolder: (folder: number | null) => void;
}

/** The folders of the shelf; captures are dragged into them. */
export function FolderList({ folder, onFolder }: Props) {
  const folders = useFolders();
  const change = useChangeFolders();
  const [naming, setNaming] = useState<"" | "new" | "rename">("");
  const rows = inOrder(folders.data ?? []);
  const open = rows.find((row) => row.folder.id === folder)?.folder;
  const done = { onError: showProblem, onSuccess: () => setNaming("") };
  return (
    <nav className="text-sm" aria-label="Folders">
      <ul>
        <Row chosen={folder === null} onChoose={() => onFolder(null)}>
          All of the shelf
        </Row>
        {rows.map(({ folder: row, depth }) => (
          <Row key={row.id} chosen={folder === row.id} depth={depth} into={row} onChoose={() => onFolder(row.id)}>
            <FolderIcon size={14} aria-hidden /> <span className="min-w-0 flex-1 truncate">{row.name}</span>
            {row.count > 0 && <span className="figure">{row.count}</span>}
          </Row>
        ))}
        {rows.length > 0 && (
          <Row chosen={folder === 0} into={null} onChoose={() => onFolder(0)}>
            In no folder
          </Row>
        )}
      </ul>
      {naming ? (
        <NameForm
          first={naming === "rename" ? (open?.name ?? "") : ""}
          onName={(name) => {
            if (naming === "rename" && open) change.mutate({ kind: "change", folderId: open.id, name, parent: open.parent }, done);
            else change.mutate({ kind: "make", name, parent: open?.id ?? null }, done);
          }}
          onLeave={() => setNaming("")}
        />
      ) : (
        <p className="mt-2 flex flex-wrap gap-1">
          <button type="button" className="btn btn-ghost btn-xs" onClick={() => setNaming("new")}>
            <FolderPlus size={14} aria-hidden /> {open ? "Folder in it" : "New folder"}
          </button>
          {open && (
            <>
              <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Rename the folder ${open.name}`} title="Rename" onClick={() => setNaming("rename")}>
                <Pencil size={13} aria-hidden />
              </button>
              <button
                type="button"
                className="btn btn-square btn-ghost btn-xs"
                aria-label={`Delete the folder ${open.name}: what lies in it moves up`}
                title="Delete the folder: what lies in it moves up"
                onClick={() => change.mutate({ kind: "delete", folderId: open.id }, { onError: showProblem, onSuccess: () => onFolder(open.parent) })}
              >
                <Trash2 size={13} aria-hidden />
              </button>
            </>
          )}
        </p>
      )}
    </nav>
  );
}

interface RowProps {
  chosen: boolean;
  depth?: number;
  /** Where captures go that are let go here; undefined where none do. */
  into?: Folder | null;
  onChoose: () => void;
  children: ReactNode;
}

function Row({ chosen, depth = 0, into, onChoose, children }: RowProps) {
  const [over, setOver] = useState(false);
  const batch = useBatch();
  const show = useNotices((state) => state.show);
  const takes = (event: DragEvent) => {
    if (into === undefined || !draggedCaptures.carriedBy(event)) return;
    event.preventDefault();
    setOver(true);
  };
  const drop = (event: DragEvent) => {
    setOver(false);
    const ids = draggedCaptures.read(event);
    if (into === undefined || ids.length === 0) return;
    event.preventDefault();
    event.stopPropagation();
    const where = into ? `into “${into.name}”` : "out of their folder";
    batch.mutate(
      { action: "move", ids, folder: into?.id ?? null },
      { onError: showProblem, onSuccess: () => show({ tone: "info", text: `Moved ${ids.length === 1 ? "one capture" : `${ids.length} captures`} ${where}.` }) },
    );
  };
  return (
    <li>
      <button
        type="button"
        aria-current={chosen}
        className={`flex w-full items-center gap-1.5 border-l-2 py-1 pr-2 text-left ${chosen ? "border-accent font-semibold" : "border-transparent hover:bg-base-200"} ${over ? "bg-base-300" : ""}`}
        style={{ paddingLeft: `${8 + depth * 14}px` }}
        onClick={onChoose}
        onDragOver={takes}
        onDragLeave={() => setOver(false)}
        onDrop={drop}
      >
        {children}
      </button>
    </li>
  );
}

function NameForm({ first, onName, onLeave }: { first: string; onName: (name: string) => void; onLeave: () => void }) {
  const [name, setName] = useState(first);
  return (
    <form
      className="mt-2 flex gap-1"
      onSubmit={(event) => {
        event.preventDefault();
        onName(name);
      }}
    >
      <input autoFocus className="input input-xs min-w-0 flex-1" aria-label="Name of the folder" maxLength={80} value={name} onChange={(event) => setName(event.target.value)} onKeyDown={(event) => event.key === "Escape" && onLeave()} />
      <button type="submit" className="btn btn-xs" disabled={!name.trim()}>
        Name it
      </button>
    </form>
  );
}
