import { useEffect } from "react";
import { useNavigate } from "react-router";

import { asProblem } from "../../api/client";
import { isFitting, useOutputs, useTakeInHand } from "../../api/outlets";
import { outputFileUrl } from "../../api/pictures";
import { useAction } from "../../app/actions/useAction";
import { HandOverPanel } from "../../handover/HandOverPanel";
import { ProblemNote } from "../../parts/ProblemNote";
import { useBench } from "../benchContext";
import { AddRow } from "./asking/AddRow";
import { FrameSizes } from "./asking/FrameSizes";
import { OutputRow } from "./OutputRow";
import { useFinished } from "./useFinished";

/** One row per output: what it must keep to, what came out. */
export function Ledger() {
  const { capture, cut, inHand, open } = useBench();
  const outputs = useOutputs(cut.id);
  const navigate = useNavigate();
  const rows = outputs.data ?? [];
  const finished = useFinished(outputs.data);
  const { mutate: takeInHand } = useTakeInHand();
  const fitting = rows.filter(isFitting);
  const preferred = fitting.length > 1 && inHand && fitting.includes(inHand) ? inHand.id : null;
  useEffect(() => {
    if (preferred !== null) takeInHand(preferred);
  }, [preferred, takeInHand]);

  useAction("compare", () => {
    if (inHand?.file_key) void navigate(`/captures/${capture.id}/cuts/${cut.id}/compare/${inHand.id}`);
  });
  useAction("saveFile", (event) => {
    if (inHand?.file_key && !event.repeat) window.location.assign(outputFileUrl(inHand));
  });

  return (
    <aside className="flex w-[310px] shrink-0 xl:w-[340px] flex-col overflow-y-auto border-l border-base-300" aria-label="Files">
      <div className="flex h-11 shrink-0 items-center justify-between border-b border-base-300 px-4">
        <h2 className="font-semibold">Files from this cut</h2>
        <HandOverPanel button="btn-ghost" handed={{ what: { cut: cut.id }, name: cut.name, address: capture.final_address || capture.address }} />
      </div>
      <FrameSizes />
      {outputs.isError && (
        <div className="p-3">
          <ProblemNote sentence={asProblem(outputs.error).sentence} hint={asProblem(outputs.error).hint} />
        </div>
      )}
      {outputs.isSuccess && rows.length === 0 && (
        <p className="p-4 text-sm">
          Choose the slot where this will appear, or type a width and a limit. The best-looking file under the limit is
          made at once.
        </p>
      )}
      <ul>
        {rows.map((output) => (
          <OutputRow
            key={output.id}
            output={output}
            open={output.id === inHand?.id}
            onToggle={() => open(output.id)}
          />
        ))}
      </ul>
      <AddRow onAdded={open} />
      <p className="sr-only" role="status" data-finished>
        {finished}
      </p>
    </aside>
  );
}
