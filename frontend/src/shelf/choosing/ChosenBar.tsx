import { Combine, FolderInput, RotateCcw, Tag, Trash2, X } from "lucide-react";
import { useState } from "react";
import { useNavigate } from "react-router";

import { useJoinCaptures } from "../../api/joins";
import { useRetakeMany } from "../../api/retake";
import { useBatch, useChangeFolders, useFolders, useLabels } from "../../api/shelf";
import type { Batch, Retaken } from "../../api/types";
import { lowerBar } from "../../app/lowerBar";
import { useNotices } from "../../app/notices";
import { showProblem } from "../../app/showProblem";
import { HandOverPanel } from "../../handover/HandOverPanel";
import { counted } from "../../parts/figures";
import { ClosingButton, Panel } from "../../parts/Panel";
import { RightsPanel } from "../../rights/RightsPanel";
import { RoutineMenu } from "../../routines/RoutineMenu";
import { inOrder } from "../narrowing/folderTree";
import { useChosen } from "./chosen";
import { MakeFiles } from "./MakeFiles";

/** What can be done to the captures that are chosen; `found` are all that are looked for. */
export function ChosenBar({ found }: { found: readonly number[] }) {
  const { ids, choose, clear } = useChosen();
  const batch = useBatch();
  const folders = useChangeFolders();
  const retake = useRetakeMany();
  const join = useJoinCaptures();
  const navigate = useNavigate();
  const show = useNotices((state) => state.show);
  if (ids.size === 0) return null;
  const some = [...ids];
  const words = counted(some.length, "capture");
  const act = (what: Omit<Batch, "ids">, said: string, undo?: Batch) =>
    batch.mutate(
      { ids: some, ...what },
      {
        onError: showProblem,
        onSuccess: () => show({ tone: "info", text: said, ...(undo && { action: { label: "Undo", run: () => batch.mutate(undo) } }) }),
      },
    );
  const toldRetaken = ({ ids: taken, left_out: leftOut }: Retaken) =>
    show({ tone: "info", text: `${counted(taken.length, "page")} under way, beside the earlier ${taken.length === 1 ? "capture" : "captures"}.${leftOut > 0 ? ` ${counted(leftOut, "dropped picture")} left out.` : ""}` });
  const move = (folder: number | null, name: string) =>
    act({ action: "move", folder }, `Moved ${words} ${name ? `into “${name}”` : "out of their folders"}.`);
  return (
    <div ref={lowerBar} className="sticky bottom-0 z-20 -mx-4 mt-8 flex flex-wrap items-center gap-2 border-t border-base-content bg-base-100 px-4 py-2 text-sm sm:-mx-6 sm:px-6" role="region" aria-label="Chosen captures" data-chosen-count={some.length}>
      <span className="font-semibold">{words} chosen</span>
      {found.some((id) => !ids.has(id)) && (
        <button type="button" className="btn btn-ghost btn-xs" onClick={() => choose(found)}>
          Choose all {found.length.toLocaleString("en-GB")}
        </button>
      )}
      <span className="ml-auto flex flex-wrap gap-2">
        <Panel name="Label them" label={<><Tag size={15} aria-hidden /> Label</>}>
          <LabelForm onLabel={(label) => act({ action: "label", label }, `Labelled ${words} “${label}”.`)} onUnlabel={(label) => act({ action: "unlabel", label }, `Took “${label}” from ${words}.`)} />
        </Panel>
        <Panel name="Move them" label={<><FolderInput size={15} aria-hidden /> Move</>}>
          <MoveForm onMove={move} onMake={(name) => folders.mutate({ kind: "make", name, parent: null }, { onError: showProblem, onSuccess: (id) => move(id, name) })} />
        </Panel>
        <RightsPanel ids={some} />
        <button type="button" className="btn btn-sm" disabled={retake.isPending} onClick={() => retake.mutate(some, { onError: showProblem, onSuccess: toldRetaken })}>
          <RotateCcw size={15} aria-hidden /> Take again
        </button>
        {some.length > 1 && (
          <button
            type="button"
            className="btn btn-sm"
            title="Into one tall picture, where they show parts of the same page"
            disabled={join.isPending}
            onClick={() => join.mutate({ captures: some, in_order: false }, { onError: showProblem, onSuccess: ({ id }) => void navigate(`/joins/${id}`) })}
          >
            <Combine size={15} aria-hidden /> Join
          </button>
        )}
        <RoutineMenu over={() => ({ captures: some })} words={words} />
        <MakeFiles ids={some} />
        <HandOverPanel handed={{ what: { captures: some }, name: words }} />
        <button
          type="button"
          className="btn btn-sm"
          onClick={() => {
            act({ action: "delete" }, `Deleted ${words}.`, { action: "restore", ids: some });
            clear();
          }}
        >
          <Trash2 size={15} aria-hidden /> Delete
        </button>
        <button type="button" className="btn btn-square btn-ghost btn-sm" aria-label="Choose none" title="Choose none" onClick={clear}>
          <X size={16} aria-hidden />
        </button>
      </span>
    </div>
  );
}

function LabelForm({ onLabel, onUnlabel }: { onLabel: (label: string) => void; onUnlabel: (label: string) => void }) {
  const labels = useLabels();
  const [label, setLabel] = useState("");
  return (
    <div className="grid gap-2">
      <label className="grid gap-1">
        Label
        <input className="input input-sm w-full" list="labels" maxLength={40} value={label} onChange={(event) => setLabel(event.target.value)} />
      </label>
      <datalist id="labels">
        {labels.data?.map((row) => <option key={row.name} value={row.name} />)}
      </datalist>
      <span className="flex gap-2">
        <ClosingButton className="btn btn-primary btn-sm" disabled={!label.trim()} onClick={() => onLabel(label.trim())}>
          Give it
        </ClosingButton>
        <ClosingButton className="btn btn-sm" disabled={!label.trim()} onClick={() => onUnlabel(label.trim())}>
          Take it away
        </ClosingButton>
      </span>
    </div>
  );
}

interface MoveProps {
  onMove: (folder: number | null, name: string) => void;
  onMake: (name: string) => void;
}

function MoveForm({ onMove, onMake }: MoveProps) {
  const folders = useFolders();
  const [name, setName] = useState("");
  return (
    <div className="grid gap-2">
      <ul className="max-h-60 overflow-y-auto">
        {inOrder(folders.data ?? []).map(({ folder, depth }) => (
          <li key={folder.id}>
            <ClosingButton className="w-full px-2 py-1 text-left hover:bg-base-200" style={{ paddingLeft: `${8 + depth * 14}px` }} onClick={() => onMove(folder.id, folder.name)}>
              {folder.name}
            </ClosingButton>
          </li>
        ))}
        <li>
          <ClosingButton className="w-full px-2 py-1 text-left hover:bg-base-200" onClick={() => onMove(null, "")}>
            Into no folder
          </ClosingButton>
        </li>
      </ul>
      <span className="flex gap-2">
        <input className="input input-sm min-w-0 flex-1" aria-label="Name of a new folder" placeholder="New folder" maxLength={80} value={name} onChange={(event) => setName(event.target.value)} />
        <ClosingButton
          className="btn btn-sm"
          disabled={!name.trim()}
          onClick={() => onMake(name.trim())}
        >
          Make and move
        </ClosingButton>
      </span>
    </div>
  );
}
