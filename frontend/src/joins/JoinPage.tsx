import { useRef, useState } from "react";
import { Link, useParams } from "react-router";

import { asProblem } from "../api/client";
import { useJoin, useKeepJoin } from "../api/joins";
import type { Join } from "../api/types";
import { NotHere } from "../app/NotHere";
import { showProblem } from "../app/showProblem";
import { counted } from "../parts/figures";
import { ProblemNote } from "../parts/ProblemNote";
import { useTitle } from "../parts/useTitle";
import { JoinedPicture } from "./JoinedPicture";
import { PieceList } from "./PieceList";

/** Captures of one page, taken bit by bit: where each lies, where one goes over into the next, what is missing. */
export function JoinPage() {
  const joinId = Number(useParams().joinId);
  const join = useJoin(joinId);
  useTitle("Join");
  if (join.isError) return asProblem(join.error).status === 404 ? <NotHere /> : <ProblemNote sentence={asProblem(join.error).sentence} hint={asProblem(join.error).hint} />;
  if (!join.data) return <p className="p-8">Fetching the pieces…</p>;
  return <Joined key={joinId} join={join.data} />;
}

function Joined({ join }: { join: Join }) {
  const [seam, setSeam] = useState<number | null>(null);
  const picture = useRef<HTMLDivElement>(null);
  const show = (number: number) => {
    setSeam(number);
    picture.current?.querySelector(`[data-seam-line="${number}"]`)?.scrollIntoView({ block: "center" });
  };
  return (
    <main className="px-4 pt-4 pb-16 sm:px-6">
      <JoinHeader join={join} />
      <div className="mt-4 grid gap-8 lg:grid-cols-[26rem_minmax(0,1fr)]">
        <PieceList join={join} seam={seam} onSeam={show} />
        <div ref={picture}>{join.state === "whole" && <JoinedPicture join={join} seam={seam} onSeam={setSeam} />}</div>
      </div>
    </main>
  );
}

function JoinHeader({ join }: { join: Join }) {
  const keep = useKeepJoin(join.id);
  return (
    <header className="flex flex-wrap items-baseline gap-x-4 gap-y-2">
      <h1 className="text-xl font-semibold">{counted(join.pieces.length, "capture")} {join.state === "whole" ? "joined" : "to join"}</h1>
      <p role="status">{wordsOf(join)}</p>
      {join.state === "whole" && (
        <span className="ml-auto">
          {join.capture === null ? (
            <button type="button" className="btn btn-primary btn-sm" disabled={keep.isPending} onClick={() => keep.mutate(undefined, { onError: showProblem })}>
              Keep as one capture
            </button>
          ) : (
            <>
              <span className="mr-3">It is on the shelf, beside its pieces.</span>
              <Link to={`/captures/${join.capture}`} className="btn btn-sm">
                Open it
              </Link>
            </>
          )}
        </span>
      )}
    </header>
  );
}

function wordsOf(join: Join): string {
  if (join.state === "finding") return "Comparing them to find where each lies…";
  if (join.state === "failed") return join.job.error?.sentence ?? "One of the pieces is not there any more.";
  if (join.state === "missing") return join.missing.length === 1 ? "A piece is missing." : `${join.missing.length} pieces are missing.`;
  return `${join.width_px?.toLocaleString("en-GB")} × ${join.height_px?.toLocaleString("en-GB")} px, nothing missing`;
}
