import { useState } from "react";

import { useAddOutput, useOutlets, type OwnRules } from "../api/outlets";
import { asProblem, Problem } from "../api/client";
import type { Slot } from "../api/types";
import { formatBytes, parseLimit, parsePx } from "../parts/figures";
import { ProblemNote } from "../parts/ProblemNote";
import { useBench } from "./benchContext";

function slotWords(slot: Slot): string {
  return `${slot.name}: ${slot.width_px} px, ${formatBytes(slot.limit_bytes)}`;
}

const DEFAULT_FORMATS: OwnRules["formats"] = ["jpeg", "png", "webp"];

/** Adding a row to the ledger: a slot of an outlet, or a width and a limit of one's own. */
export function AddRow({ onAdded }: { onAdded: (outputId: number) => void }) {
  const { cut, saver } = useBench();
  const { data: outlets } = useOutlets();
  const add = useAddOutput(cut.id);
  /** Ids of the chosen slot, or of all slots of an outlet, with spaces between. */
  const [slotChoice, setSlotChoice] = useState("");
  const [width, setWidth] = useState("");
  const [limit, setLimit] = useState("");
  const [refused, setRefused] = useState<Problem | null>(null);

  const send = async (...rows: ({ slot_id: number } | OwnRules)[]) => {
    try {
      await saver.flush(); // the file is made from the frame that is seen, not from an older one
      for (const rules of rows) onAdded((await add.mutateAsync(rules)).id);
      setRefused(null);
      setSlotChoice("");
    } catch (error) {
      setRefused(asProblem(error));
    }
  };
  const sendOwn = () => {
    const width_px = parsePx(width);
    const limit_bytes = parseLimit(limit);
    if (width_px === null) setRefused(new Problem(0, "width", "The width is not a number of px.", "Type it like 720."));
    else if (limit_bytes === null)
      setRefused(new Problem(0, "limit", "The limit is not a size above 0.", "Type it in kB, like 90."));
    else void send({ width_px, limit_bytes, formats: DEFAULT_FORMATS });
  };
  return (
    <div className="border-t border-base-300 p-4">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          const slotIds = slotChoice.split(" ").filter(Boolean).map(Number);
          void send(...slotIds.map((slot_id) => ({ slot_id })));
        }}
      >
        <label className="mb-1 block text-sm font-semibold" htmlFor="add-slot">
          Add a slot
        </label>
        {/* Choosing alone adds nothing: going through the list by keys would add every slot on the way. */}
        <div className="flex gap-2">
          <select
            id="add-slot"
            className="select select-sm min-w-0 flex-1"
            value={slotChoice}
            onChange={(event) => setSlotChoice(event.target.value)}
          >
            <option value="" disabled>
              {outlets?.length === 0 ? "No outlets yet" : "Choose where it will appear"}
            </option>
            {outlets?.map((outlet) => (
              <optgroup key={outlet.id} label={outlet.name}>
                {outlet.slots.map((slot) => (
                  <option key={slot.id} value={slot.id}>
                    {slotWords(slot)}
                  </option>
                ))}
                {outlet.slots.length > 1 && (
                  <option value={outlet.slots.map((slot) => slot.id).join(" ")}>All {outlet.slots.length} slots</option>
                )}
              </optgroup>
            ))}
          </select>
          <button type="submit" className="btn btn-primary btn-sm" disabled={!slotChoice}>
            Add
          </button>
        </div>
      </form>
      <form
        className="mt-4"
        onSubmit={(event) => {
          event.preventDefault();
          sendOwn();
        }}
      >
        <p className="mb-1 text-sm font-semibold">Or your own rules</p>
        <div className="flex items-end gap-2">
          <label className="flex-1 text-sm">
            Width, px
            <input className="input input-sm figure w-full" inputMode="numeric" value={width} onChange={(event) => setWidth(event.target.value)} placeholder="720" />
          </label>
          <label className="flex-1 text-sm">
            Limit, kB
            <input className="input input-sm figure w-full" value={limit} onChange={(event) => setLimit(event.target.value)} placeholder="90" />
          </label>
          <button type="submit" className="btn btn-primary btn-sm">
            Fit
          </button>
        </div>
      </form>
      {refused && (
        <div className="mt-3">
          <ProblemNote sentence={refused.sentence} hint={refused.hint} />
        </div>
      )}
    </div>
  );
}
