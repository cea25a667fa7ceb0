import { Copy, Pencil, Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";

import type { OutletChange } from "../api/outlets";
import type { Outlet, Slot } from "../api/types";
import { formatName, formatPx } from "../parts/figures";
import { wantedWords } from "../parts/fields/wanted";
import { FactsLine } from "./FactsLine";
import { MoveButtons, type MoveProps } from "./MoveButtons";
import { copyName, moved } from "./order";
import { SlotForm } from "./SlotForm";
import { UploadPlaceLine } from "./UploadPlaceLine";

type Send = (change: OutletChange, onDone?: () => void) => void;

interface Props extends MoveProps {
  outlet: Outlet;
  send: Send;
}

/** One outlet with its slots. */
export function OutletSection({ outlet, send, ...place }: Props) {
  const [adding, setAdding] = useState(false);
  const [name, setName] = useState<string | null>(null);
  const [asked, setAsked] = useState(false);
  return (
    <section className="mb-8" aria-label={outlet.name}>
      <div className="flex items-center gap-2 border-b border-base-content/60 pb-1">
        {name === null ? (
          <h2 className="text-lg font-semibold">{outlet.name}</h2>
        ) : (
          <form
            onSubmit={(event) => {
              event.preventDefault();
              send({ kind: "rename-outlet", outletId: outlet.id, name }, () => setName(null));
            }}
          >
            <input autoFocus aria-label="Name" className="input input-sm" maxLength={80} value={name} onChange={(event) => setName(event.target.value)} onBlur={() => setName(null)} />
          </form>
        )}
        <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Rename ${outlet.name}`} title="Rename" onClick={() => setName(outlet.name)}>
          <Pencil size={14} aria-hidden />
        </button>
        <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Copy ${outlet.name}`} title="Copy with its slots" onClick={() => send({ kind: "copy-outlet", outletId: outlet.id })}>
          <Copy size={14} aria-hidden />
        </button>
        <MoveButtons name={outlet.name} {...place} />
        <span className="ml-auto flex items-center gap-2">
          {asked ? (
            <>
              <span className="text-sm">Delete it with its {outlet.slots.length} slots? Files already made stay.</span>
              <button type="button" className="btn btn-error btn-xs" onClick={() => send({ kind: "delete-outlet", outletId: outlet.id })}>
                Delete outlet
              </button>
              <button type="button" className="btn btn-xs" onClick={() => setAsked(false)}>
                Keep it
              </button>
            </>
          ) : (
            <>
              <button type="button" className="btn btn-ghost btn-xs" onClick={() => setAdding(true)}>
                <Plus size={14} aria-hidden /> Add slot
              </button>
              <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Delete ${outlet.name}`} title="Delete" onClick={() => setAsked(true)}>
                <Trash2 size={14} aria-hidden />
              </button>
            </>
          )}
        </span>
      </div>
      <UploadPlaceLine outlet={outlet} />
      <FactsLine outlet={outlet} />
      {outlet.slots.length === 0 && !adding && <p className="py-3 text-sm">No slots yet: add what this place takes.</p>}
      <ul>
        {outlet.slots.map((slot, index, all) => (
          <SlotLine
            key={slot.id}
            slot={slot}
            send={send}
            onCopy={() => send({ kind: "add-slot", outletId: outlet.id, slot: { ...slot, name: copyName(slot.name) } })}
            onMove={(step) => send({ kind: "order-slots", outletId: outlet.id, ids: moved(all, index, step) })}
            first={index === 0}
            last={index === all.length - 1}
          />
        ))}
      </ul>
      {adding && (
        <SlotForm
          onCancel={() => setAdding(false)}
          onSave={(made) => send({ kind: "add-slot", outletId: outlet.id, slot: made }, () => setAdding(false))}
        />
      )}
    </section>
  );
}

interface LineProps extends MoveProps {
  slot: Slot;
  send: Send;
  onCopy: () => void;
}

function SlotLine({ slot, send, onCopy, ...place }: LineProps) {
  const [editing, setEditing] = useState(false);
  if (editing)
    return (
      <li>
        <SlotForm
          slot={slot}
          onCancel={() => setEditing(false)}
          onSave={(changed) => send({ kind: "change-slot", slotId: slot.id, slot: changed }, () => setEditing(false))}
        />
      </li>
    );
  return (
    <li className="grid grid-cols-[1fr_13rem_9rem_11rem_1fr_auto] items-center gap-x-3 border-b border-base-300 py-2">
      <span className="truncate font-medium">{slot.name}</span>
      <span className="figure text-right">{slot.size_words}</span>
      <span className="figure text-right">{wantedWords(slot)}</span>
      <span>{slot.formats.map(formatName).join(", ")}</span>
      <span className="text-sm">
        {slot.greatest_height_px != null && (
          <>
            at most <span className="figure">{formatPx(slot.greatest_height_px)} px</span> high
          </>
        )}
      </span>
      <span className="flex gap-1">
        <MoveButtons name={slot.name} {...place} />
        <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Copy ${slot.name}`} title="Copy" onClick={onCopy}>
          <Copy size={14} aria-hidden />
        </button>
        <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Change ${slot.name}`} title="Change" onClick={() => setEditing(true)}>
          <Pencil size={14} aria-hidden />
        </button>
        <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Delete ${slot.name}`} title="Delete" onClick={() => send({ kind: "delete-slot", slotId: slot.id })}>
          <Trash2 size={14} aria-hidden />
        </button>
      </span>
      {slot.last.length > 0 && (
        <span className="col-span-full text-sm text-info">
          Last made from{" "}
          {slot.last.map((made, index) => (
            <span key={made.capture_id}>
              {index > 0 && ", "}
              <Link className="link" to={`/captures/${made.capture_id}/cuts/${made.cut_id}`}>
                {made.name}
              </Link>
            </span>
          ))}
        </span>
      )}
    </li>
  );
}
