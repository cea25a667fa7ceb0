import { useKeepLegible } from "../../api/outlets";
import type { Output } from "../../api/types";
import { showProblem } from "../../app/showProblem";
import { useBench } from "../benchContext";

/** Letters smaller than this, in px of a file, are hard to read. */
const LEAST_PX = 9;

/** Where a file makes the letters of marks too small to be read, that is said, and helped. */
export function Legible({ output }: { output: Output }) {
  const { cut, saver } = useBench();
  const keep = useKeepLegible(cut.id);
  const letters_px = output.letters_px ?? null;
  const tooSmall = letters_px !== null && letters_px < LEAST_PX - 0.05;
  if (!output.file_key || (!tooSmall && !output.legible_marks)) return null;
  const set = async (legible: boolean) => {
    await saver.flush();
    keep.mutate({ outputId: output.id, legible }, { onError: showProblem });
  };
  return (
    <div className={`my-2 border-l-2 pl-2 text-sm ${tooSmall ? "border-accent" : "border-base-300"}`} data-letters={letters_px?.toFixed(1)}>
      {tooSmall && (
        <p>
          Letters of marks are only <span className="figure">{letters_px.toFixed(1)} px</span> high here.
        </p>
      )}
      <label className="flex items-center gap-2">
        <input type="checkbox" className="checkbox checkbox-xs" checked={output.legible_marks} onChange={(event) => void set(event.target.checked)} />
        Keep marks legible: draw them larger in this file
      </label>
    </div>
  );
}
