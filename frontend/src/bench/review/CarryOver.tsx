import { useState } from "react";
import { useNavigate } from "react-router";

import { useShelf } from "../../api/captures";
import { asProblem } from "../../api/client";
import { useCarry } from "../../api/review";
import type { Capture } from "../../api/types";
import { ProblemNote } from "../../parts/ProblemNote";
import { formatSize } from "../../parts/figures";
import { useBench } from "../benchContext";

/** Carry the cut in hand over to another capture: those of the same page come first. */
export function CarryOver() {
  const { capture, cut } = useBench();
  const shelf = useShelf({});
  const carry = useCarry(cut.id);
  const navigate = useNavigate();
  const [chosen, choose] = useState("");
  const others = (shelf.data?.pages ?? []).flatMap((page) => page.captures).filter((row) => row.id !== capture.id && row.picture_key);
  const samePage = others.filter((row) => row.address !== "" && row.address === capture.address);
  const rest = others.filter((row) => !samePage.includes(row));
  const send = () =>
    carry.mutate(Number(chosen), { onSuccess: (made) => void navigate(`/captures/${made.capture_id}/cuts/${made.id}`) });
  if (others.length === 0) return <p>There is no other capture on the shelf.</p>;
  return (
    <div className="flex flex-col gap-2">
      <p>Frame, folds, hidden areas and marks go along, each to its block on the other page.</p>
      <label className="flex flex-col gap-1">
        To which capture
        <select className="select select-sm w-full" value={chosen} onChange={(event) => choose(event.target.value)}>
          <option value="">Choose a capture</option>
          <Captures words="The same page" rows={samePage} />
          <Captures words="Others" rows={rest} />
        </select>
      </label>
      {carry.isError && <ProblemNote sentence={asProblem(carry.error).sentence} hint={asProblem(carry.error).hint} />}
      <button type="button" className="btn btn-primary btn-sm self-start" disabled={chosen === "" || carry.isPending} onClick={send}>
        Carry {cut.name} over
      </button>
    </div>
  );
}

function Captures({ words, rows }: { words: string; rows: Capture[] }) {
  if (rows.length === 0) return null;
  return (
    <optgroup label={words}>
      {rows.map((row) => (
        <option key={row.id} value={row.id}>
          {row.name} · {formatSize(row.width_px, row.height_px)}
        </option>
      ))}
    </optgroup>
  );
}
