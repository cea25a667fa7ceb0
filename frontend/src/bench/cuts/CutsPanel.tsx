import { ArrowDown, ArrowUp, Copy, Layers, Trash2 } from "lucide-react";
import { useNavigate } from "react-router";

import { useCutAction } from "../../api/cuts";
import type { Cut } from "../../api/types";
import { useNotices } from "../../app/notices";
import { showProblem } from "../../app/showProblem";
import { formatSize } from "../../parts/figures";
import { Panel } from "../../parts/Panel";
import { useBench } from "../benchContext";
import { movedTo } from "./movedTo";

/** All cuts of the page: called, put in order, duplicated, deleted. */
export function CutsPanel() {
  const { capture } = useBench();
  return (
    <Panel name="Cuts of this page" side="right" size="w-[26rem]" button="btn-square btn-ghost" label={<Layers size={16} aria-hidden />}>
      <ul className="grid gap-2" aria-label="Cuts of this page">
        {capture.cuts.map((row, index) => (
          <CutRow key={row.id} row={row} index={index} />
        ))}
      </ul>
    </Panel>
  );
}

function CutRow({ row, index }: { row: Cut; index: number }) {
  const { capture, cut } = useBench();
  const action = useCutAction(capture.id);
  const navigate = useNavigate();
  const show = useNotices((state) => state.show);
  const ids = capture.cuts.map(({ id }) => id);
  const toFirst = () => navigate(`/captures/${capture.id}`);
  const order = (to: number) => action.mutate({ kind: "order", cutIds: movedTo(ids, index, to) }, { onError: showProblem });
  const rename = (name: string) => name && name !== row.name && action.mutate({ kind: "rename", cutId: row.id, name }, { onError: showProblem });
  const duplicate = () =>
    action.mutate({ kind: "duplicate", cutId: row.id }, { onSuccess: (made) => made && void navigate(`/captures/${capture.id}/cuts/${made.id}`), onError: showProblem });
  const remove = () =>
    action.mutate(
      { kind: "delete", cutId: row.id },
      {
        onSuccess: () => {
          if (row.id === cut.id) void toFirst();
          show({ tone: "info", text: `${row.name} is deleted.`, action: { label: "Undo", run: () => action.mutate({ kind: "restore", cutId: row.id }, { onError: showProblem }) } });
        },
        onError: showProblem,
      },
    );
  const { width_px, height_px } = row.document.frame;
  return (
    <li className="flex items-center gap-1">
      <input
        className={`input input-sm min-w-0 flex-1 ${row.id === cut.id ? "font-semibold" : ""}`}
        aria-label={`Name of ${row.name}`}
        defaultValue={row.name}
        maxLength={80}
        onBlur={(event) => rename(event.target.value.trim())}
        onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
      />
      <span className="figure w-24 shrink-0 text-right text-xs text-info">{formatSize(width_px, height_px)}</span>
      <Act words={`Move ${row.name} up`} Icon={ArrowUp} off={index === 0} onAct={() => order(index - 1)} />
      <Act words={`Move ${row.name} down`} Icon={ArrowDown} off={index === capture.cuts.length - 1} onAct={() => order(index + 1)} />
      <Act words={`Duplicate ${row.name}`} Icon={Copy} onAct={duplicate} />
      <Act words={`Delete ${row.name}`} Icon={Trash2} off={capture.cuts.length < 2} onAct={remove} />
    </li>
  );
}

function Act({ words, Icon, off = false, onAct }: { words: string; Icon: typeof Copy; off?: boolean; onAct: () => void }) {
  return (
    <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={words} title={words} disabled={off} onClick={onAct}>
      <Icon size={14} aria-hidden />
    </button>
  );
}
