import { useState } from "react";
import { Link, useNavigate } from "react-router";

import { asProblem } from "../../api/client";
import { type CarryBy, carriedUrl, useCarry, useCarryLook } from "../../api/review";
import { useSaying } from "../../api/shelf";
import type { Capture } from "../../api/types";
import { ProblemNote } from "../../parts/ProblemNote";
import { formatSize } from "../../parts/figures";
import { useBench } from "../benchContext";
import { lookWords } from "./lookWords";

const MOST_AT_ONCE = 60;

/** Carry the cut in hand over to other captures, after a look at each; those of the same page come first. */
export function CarryOver() {
  const { capture, cut, saver } = useBench();
  const [sought, setSought] = useState("");
  const shelf = useSaying(sought.trim());
  const carry = useCarry(cut.id);
  const navigate = useNavigate();
  const [chosen, setChosen] = useState<readonly Capture[]>([]);
  const [by, setBy] = useState<CarryBy>("blocks");
  const isChosen = (row: Capture) => chosen.some(({ id }) => id === row.id);
  const others = (shelf.data ?? []).filter((row) => row.id !== capture.id && row.picture_key);
  const isSame = (row: Capture) => row.address !== "" && row.address === capture.address;
  // What was chosen stays in the list, whatever is sought next.
  const found = [...others.filter(isSame), ...others.filter((row) => !isSame(row))];
  const shown = [...chosen.filter((row) => !found.some(({ id }) => id === row.id)), ...found];
  const turn = (capture: Capture, on: boolean) => {
    carry.reset();
    setChosen(on ? [...chosen, capture].slice(0, MOST_AT_ONCE) : chosen.filter((row) => row.id !== capture.id));
  };
  const send = async () => {
    // What is carried is what was saved.
    await saver.flush();
    carry.mutate(
      { captureIds: chosen.map((row) => row.id), by },
      {
        onSuccess: ([first, ...more]) => {
          if (first && more.length === 0) void navigate(`/captures/${first.capture_id}/cuts/${first.id}`);
          else setChosen([]);
        },
      },
    );
  };
  if (shelf.isSuccess && shown.length === 0 && sought === "") return <p>There is no other capture on the shelf.</p>;
  return (
    <div className="flex flex-col gap-3">
      <fieldset className="flex flex-wrap gap-x-4 gap-y-1">
        <legend className="sr-only">How its parts find their places</legend>
        <ByChoice by="blocks" now={by} onTake={setBy} words="Each part to its block" />
        <ByChoice by="px" now={by} onTake={setBy} words="All at the same px" />
      </fieldset>
      <input type="search" className="input input-sm w-full" aria-label="Search the captures" placeholder="Search the captures" value={sought} onChange={(event) => setSought(event.target.value)} />
      <ul className="grid max-h-48 grid-cols-1 gap-1 overflow-y-auto pr-2" aria-label="To which captures">
        {shown.map((row) => (
          <li key={row.id} data-offered={row.id}>
            <label className="flex items-center gap-2">
              <input type="checkbox" className="checkbox checkbox-sm" checked={isChosen(row)} onChange={(event) => turn(row, event.target.checked)} />
              <span className="min-w-0 flex-1 truncate">{row.name}</span>
              <span className="figure shrink-0 text-xs whitespace-nowrap text-info">{formatSize(row.width_px, row.height_px)}</span>
            </label>
          </li>
        ))}
      </ul>
      {chosen.length > 0 && (
        <ul className="grid max-h-72 grid-cols-3 gap-3 overflow-y-auto" aria-label="What it would show">
          {chosen.map((row) => (
            <Look key={row.id} cutId={cut.id} version={saver.known.version} capture={row} by={by} />
          ))}
        </ul>
      )}
      {carry.isError && <ProblemNote sentence={asProblem(carry.error).sentence} hint={asProblem(carry.error).hint} />}
      {carry.data && carry.data.length > 1 && (
        <p role="status">
          {cut.name} is on {carry.data.length} more captures now:{" "}
          {carry.data.map(({ id, capture_id }) => (
            <Link key={id} className="mr-2 underline" to={`/captures/${capture_id}/cuts/${id}`}>
              {shown.find((row) => row.id === capture_id)?.name ?? `cut ${id}`}
            </Link>
          ))}
        </p>
      )}
      <button type="button" className="btn btn-primary btn-sm self-start" disabled={chosen.length === 0 || carry.isPending} onClick={() => void send()}>
        Carry {cut.name} over{chosen.length > 1 && ` to ${chosen.length} captures`}
      </button>
    </div>
  );
}

function ByChoice({ by, now, onTake, words }: { by: CarryBy; now: CarryBy; onTake: (by: CarryBy) => void; words: string }) {
  return (
    <label className="flex items-center gap-2">
      <input type="radio" name="carry-by" className="radio radio-sm" checked={by === now} onChange={() => onTake(by)} />
      {words}
    </label>
  );
}

/** What the cut would show of a capture, and what has no sure place there. */
function Look({ cutId, version, capture, by }: { cutId: number; version: number; capture: Capture; by: CarryBy }) {
  const look = useCarryLook(cutId, version, capture.id, by);
  const { text, sure } = look.isError ? { text: asProblem(look.error).sentence, sure: false } : lookWords(look.data);
  return (
    <li data-carried={capture.id} className="min-w-0">
      <span className="seethrough block h-28 overflow-hidden border border-base-300">
        <img src={carriedUrl(cutId, capture.id, by, version)} alt={`${capture.name}, carried over`} className="h-full w-full object-contain object-top" />
      </span>
      <span className="block truncate text-xs">{capture.name}</span>
      <span className={`block text-xs ${sure ? "text-info" : "font-semibold text-error"}`}>{text}</span>
    </li>
  );
}
