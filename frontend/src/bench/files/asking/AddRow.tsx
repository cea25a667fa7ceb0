import { useState } from "react";

import { asProblem, Problem } from "../../../api/client";
import { useAddOutput, useOutlets } from "../../../api/outlets";
import type { FormatName, Rules, Slot } from "../../../api/types";
import { own } from "../../../app/own";
import { SizeFields } from "../../../parts/fields/SizeFields";
import { asTyped, readSize } from "../../../parts/fields/sizing";
import { asTypedWanted, readWanted, wantedWords } from "../../../parts/fields/wanted";
import { WantedFields } from "../../../parts/fields/WantedFields";
import { ProblemNote } from "../../../parts/ProblemNote";
import { useBench } from "../../benchContext";

function slotWords(slot: Slot): string {
  return `${slot.name}: ${slot.size_words}, ${wantedWords(slot)}`;
}

/** What own rules do not say. */
const USUAL: Omit<Rules, "way" | "formats" | "width_px" | "height_px" | "percent" | "limit_bytes" | "least_fidelity"> = {
  anchor: "start",
  enlarge: false,
  background: "#ffffff",
  greatest_height_px: null,
  overlap_px: 0,
  numbered: false,
};

/** Adding a row to the ledger: a slot of an outlet, or a width and a limit of one's own. */
export function AddRow({ onAdded }: { onAdded: (outputId: number) => void }) {
  const { cut, saver } = useBench();
  const { data: outlets } = useOutlets();
  const add = useAddOutput(cut.id);
  /** Ids of the chosen slot, or of all slots of an outlet, with spaces between. */
  const [slotChoice, setSlotChoice] = useState("");
  const [size, setSize] = useState(asTyped());
  const [wanted, setWanted] = useState(() => asTypedWanted({ least_fidelity: own<number | null>("files.fidelity", null), limit_bytes: null }));
  const [refused, setRefused] = useState<Problem | null>(null);

  const send = async (...rows: ({ slot_id: number } | { rules: Rules })[]) => {
    try {
      await saver.flush(); // the file is made from the frame that is seen, not from an older one
      for (const row of rows) onAdded((await add.mutateAsync(row)).id);
      setRefused(null);
      setSlotChoice((now) => (now === slotChoice ? "" : now)); // unless the next was chosen meanwhile
    } catch (error) {
      setRefused(asProblem(error));
    }
  };
  const sendOwn = () => {
    const read = readSize(size);
    const aim = readWanted(wanted);
    if ("problem" in read) setRefused(new Problem(0, "size", read.problem, ""));
    else if ("problem" in aim) setRefused(new Problem(0, "limit", aim.problem, ""));
    else void send({ rules: { ...USUAL, formats: own<FormatName[]>("files.formats", ["jpeg", "png", "webp"]), ...read, ...aim } });
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
        <div className="mb-2 flex items-end gap-2">
          <SizeFields size={size} onChange={setSize} />
        </div>
        <div className="flex flex-wrap items-end gap-2">
          <WantedFields wanted={wanted} onChange={setWanted} />
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
