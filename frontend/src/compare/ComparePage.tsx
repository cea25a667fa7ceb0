import { ArrowLeft, Download } from "lucide-react";
import { Link, useNavigate, useParams } from "react-router";

import { useCapture } from "../api/captures";
import { asProblem } from "../api/client";
import { isFitting, useOutputs } from "../api/outlets";
import { outputFileUrl } from "../api/pictures";
import { useAction } from "../app/actions/useAction";
import { ByHand } from "../bench/files/asking/ByHand";
import { wantedWords } from "../parts/fields/wanted";
import { formatBytes } from "../parts/figures";
import { JobProgress } from "../parts/JobProgress";
import { LimitBar } from "../parts/LimitBar";
import { ProblemNote } from "../parts/ProblemNote";
import { useTitle } from "../parts/useTitle";
import { askedFirst } from "../rights/askedFirst";
import { COMPARE_KEYS, CompareView } from "./CompareView";


/** Original and result at 1:1, at the same position, with a split between them. */
export function ComparePage() {
  const params = useParams();
  const captureId = Number(params["captureId"]);
  const cutId = Number(params["cutId"]);
  const capture = useCapture(captureId);
  const outputs = useOutputs(cutId);
  const navigate = useNavigate();
  const back = `/captures/${captureId}/cuts/${cutId}`;
  useAction("toBench", () => void navigate(back), COMPARE_KEYS);
  useTitle(capture.data ? `Compare: ${capture.data.name}` : "Compare");
  const output = outputs.data?.find((row) => row.id === Number(params["outputId"]));

  if (outputs.isPending) return <p className="p-8">Fetching the file…</p>;
  if (outputs.isError || !output?.file_key)
    return (
      <main className="mx-auto max-w-xl p-12">
        <ProblemNote
          sentence={outputs.isError ? asProblem(outputs.error).sentence : "There is no file to compare."}
          hint="Go back to the Bench and fit it first."
        >
          <Link className="btn btn-sm mt-2" to={back}>
            Back to the Bench
          </Link>
        </ProblemNote>
      </main>
    );
  const fitting = isFitting(output);
  const comparable = outputs.data.filter((row) => row.file_key);
  return (
    <main className="flex h-full min-w-[960px] flex-col">
      <div className="flex h-11 shrink-0 items-center gap-4 border-b border-base-300 px-4">
        <Link className="btn btn-sm" to={back} title="Back to the Bench (Esc)">
          <ArrowLeft size={16} aria-hidden /> Bench
        </Link>
        <h1 className="truncate font-semibold">{output.label}</h1>
        <span className="ml-auto text-sm whitespace-nowrap">
          Hold <kbd className="kbd kbd-sm">F</kbd> to see only the original.
        </span>
      </div>
      <div className="flex min-h-0 flex-1">
        <CompareView output={output} outputs={comparable} onOutput={(id) => void navigate(`${back}/compare/${id}`, { replace: true })} />
        <aside className="w-[310px] shrink-0 xl:w-[340px] overflow-y-auto border-l border-base-300 p-4" aria-label="The file">
          <p className="figure mb-1 flex justify-between text-sm">
            <span>{formatBytes(output.bytes)}</span>
            <span>{output.least_fidelity == null ? `of ${wantedWords(output)}` : wantedWords(output)}</span>
          </p>
          {output.limit_bytes != null && <LimitBar bytes={output.bytes} limit_bytes={output.limit_bytes} met={output.met} />}
          <p className="my-3">
            Fidelity <span className="figure text-lg">{output.fidelity?.toFixed(1)}</span>
            <span className="block text-sm">{output.looks}</span>
          </p>
          {fitting && <JobProgress job={output.job} />}
          <ByHand output={output} />
          <a className="btn btn-primary btn-sm mt-5 w-full" href={outputFileUrl(output)} download {...(capture.data && { onClick: askedFirst(capture.data) })}>
            <Download size={16} aria-hidden /> Save file
          </a>
        </aside>
      </div>
    </main>
  );
}
