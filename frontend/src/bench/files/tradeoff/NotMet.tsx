import { useAddOutput, useDivide } from "../../../api/outlets";
import type { Output } from "../../../api/types";
import { showProblem } from "../../../app/showProblem";
import { atWidth, rulesOf } from "../../../parts/fields/sizing";
import { formatBytes, formatName } from "../../../parts/figures";
import { ProblemNote } from "../../../parts/ProblemNote";
import { useBench } from "../../benchContext";
import { addFolds } from "../../cut/frameSteps";

type Advice = Output["advice"][number];

/** That a limit cannot be met acceptably, and what would meet it: one press for each. */
export function NotMet({ output }: { output: Output }) {
  const { cut, store, saver, open } = useBench();
  const add = useAddOutput(cut.id);
  const divide = useDivide(cut.id);
  const onError = showProblem;

  const apply = async (advice: Advice) => {
    if (advice.kind === "fold") {
      addFolds(store, advice.folds); // the files follow the frame by themselves
      return;
    }
    await saver.flush();
    if (advice.kind === "leaves") {
      divide.mutate({ outputId: output.id, leaf_count: advice.value, breaks: [] }, { onError });
      return;
    }
    const made = { width_px: output.made_width_px, height_px: output.made_height_px };
    const rules = {
      ...rulesOf(output),
      ...(advice.kind === "width" ? atWidth(output, advice.value, made) : {}),
      limit_bytes: advice.kind === "limit" ? advice.value : (output.limit_bytes ?? null),
      formats: advice.kind === "format" && advice.format ? [advice.format] : output.formats,
    };
    add.mutate({ rules }, { onError, onSuccess: (made) => open(made.id) });
  };
  return (
    <ProblemNote sentence={notMetSentence(output)}>
      <ul className="mt-1 space-y-2">
        {output.advice.map((advice) => (
          <li key={advice.kind}>
            {advice.sentence}{" "}
            <button type="button" className="btn btn-xs" onClick={() => void apply(advice)}>
              {pressWords(advice)}
            </button>
          </li>
        ))}
      </ul>
    </ProblemNote>
  );
}

function notMetSentence(output: Output): string {
  const { limit_bytes, least_fidelity } = output;
  const looks = least_fidelity == null ? "look acceptable" : `look as good as fidelity ${least_fidelity}`;
  if (limit_bytes == null) return `No file was found to ${looks}. This one comes nearest.`;
  const limit = formatBytes(limit_bytes);
  const failing = output.leaves.filter((leaf) => !leaf.met).length;
  if (failing) return `${failing} of ${output.leaves.length} leaves do not ${looks} under ${limit}.`;
  if (!output.file_key) return `Nothing fits ${limit} at ${output.size_words}.`;
  if (output.bytes > limit_bytes) return `This file is ${formatBytes(output.bytes - limit_bytes)} over the limit.`;
  return `It fits ${limit}, but does not ${looks}.`;
}

function pressWords(advice: Advice): string {
  if (advice.kind === "width") return `Fit at ${advice.value} px`;
  if (advice.kind === "limit") return `Fit under ${formatBytes(advice.value)}`;
  if (advice.kind === "fold") return "Fold them away";
  if (advice.kind === "leaves") return `Divide into ${advice.value}`;
  return advice.format ? `Fit as ${formatName(advice.format)}` : "Fit";
}
