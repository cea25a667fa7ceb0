import { Download, Minus, Plus } from "lucide-react";
import { useState } from "react";

import { isFitting, useDivide } from "../../api/outlets";
import { leafFileUrl } from "../../api/pictures";
import type { Output } from "../../api/types";
import { showProblem } from "../../app/showProblem";
import { formatBytes, formatName, formatSize } from "../../parts/figures";
import { askedFirst } from "../../rights/askedFirst";
import { useBench } from "../benchContext";

/** The files that a cut too tall for its slot is divided into, and into how many. */
export function Leaves({ output }: { output: Output }) {
  const { capture } = useBench();
  const divide = useDivide(output.cut_id);
  const made = Math.max(1, output.leaves.length);
  const [asked, setAsked] = useState<number | null>(null);
  // While files are made, the buttons stay in hand and go on from what was asked for last.
  const waiting = divide.isPending || isFitting(output);
  const count = (waiting ? asked : null) ?? made;
  const byHand = output.leaf_count !== null || output.breaks.length > 0;
  const into = (leaf_count: number | null) => {
    setAsked(leaf_count);
    divide.mutate(
      { outputId: output.id, leaf_count, breaks: [] },
      { onError: showProblem },
    );
  };
  return (
    <section className="mb-3 text-sm" aria-label="Leaves">
      <div className="flex items-center gap-2">
        <span className="font-semibold">{count === 1 ? "One file" : `${count} leaves`}</span>
        <span className="ml-auto flex items-center gap-1">
          {byHand && (
            <button type="button" className="btn btn-ghost btn-xs" onClick={() => into(null)}>
              Automatic
            </button>
          )}
          <button type="button" className="btn btn-square btn-xs" aria-label="One leaf fewer" aria-disabled={count <= 1} onClick={() => count > 1 && into(count - 1)}>
            <Minus size={13} aria-hidden />
          </button>
          <button type="button" className="btn btn-square btn-xs" aria-label="One leaf more" onClick={() => into(count + 1)}>
            <Plus size={13} aria-hidden />
          </button>
        </span>
      </div>
      {output.leaves.length > 0 && (
        <>
          <p className="my-1">
            Divided at gaps of the page. Drag a dashed line, on the page or beside it, to divide elsewhere.
          </p>
          <ol>
            {output.leaves.map((leaf, index) => (
              <li key={leaf.top_px} className="flex items-center gap-2 border-b border-base-300 py-1">
                <span className="figure w-5">{index + 1}</span>
                <span className="figure">{formatSize(output.made_width_px, leaf.height_px)}</span>
                <span className={`figure ml-auto ${leaf.met ? "" : "font-medium text-error"}`} title={`${formatName(leaf.format)}, fidelity ${leaf.fidelity.toFixed(0)}`}>
                  {formatBytes(leaf.bytes)}
                </span>
                <a className="btn btn-square btn-ghost btn-xs" href={leafFileUrl(output, index + 1)} download onClick={askedFirst(capture)} aria-label={`Save leaf ${index + 1}`} title={`Save leaf ${index + 1}`}>
                  <Download size={14} aria-hidden />
                </a>
              </li>
            ))}
          </ol>
        </>
      )}
    </section>
  );
}
