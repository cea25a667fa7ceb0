import { ArrowDown, ArrowUp, X } from "lucide-react";
import { Fragment, useState } from "react";
import { Link, useNavigate } from "react-router";

import { useJoinCaptures } from "../api/joins";
import type { Join, JoinPiece, JoinSeam } from "../api/types";
import { showProblem } from "../app/showProblem";
import { SeamRow } from "./SeamRow";
import { shifted } from "./order";

const WHY: Record<Join["missing"][number]["why"], string> = {
  nothing_shared: "These two share too little to be sure. Scroll back, take the page once more between them, and join all of them.",
  repeats: "They share rows that stand there more than once, so nobody can say which is which. Take them with more in common.",
  blank: "Where they should meet there is nothing to be seen. Take them with more in common.",
  contradicts: "Where these two meet they do not show the same. The page has changed between them, or one belongs elsewhere.",
};

interface PieceListProps {
  join: Join;
  seam: number | null;
  onSeam: (number: number) => void;
}

/** The pieces from top to bottom, with what lies between them. Another order is tried as a join of its own. */
export function PieceList({ join, seam, onSeam }: PieceListProps) {
  const found = join.pieces.map((piece) => piece.capture);
  const [said, setSaid] = useState<number[] | null>(null);
  const again = useJoinCaptures();
  const navigate = useNavigate();
  const order = said ?? found;
  const known = new Map(join.pieces.map((piece) => [piece.capture, piece]));
  const pieces = order.map((id) => known.get(id)).filter((piece) => piece !== undefined);
  const isChanged = order.join() !== found.join();
  return (
    <section aria-label="Pieces" className="lg:sticky lg:top-14 lg:max-h-[calc(100vh-4rem)] lg:self-start lg:overflow-y-auto lg:pr-2">
      <h2 className="mb-2 font-semibold">From top to bottom</h2>
      <ol>
        {pieces.map((piece, place) => (
          <Fragment key={piece.capture}>
            <Piece
              piece={piece}
              isKnown={join.state === "whole" && !isChanged}
              onUp={place > 0 ? () => setSaid(shifted(order, place, -1)) : undefined}
              onDown={place < pieces.length - 1 ? () => setSaid(shifted(order, place, 1)) : undefined}
              onLeaveOut={pieces.length > 2 ? () => setSaid(order.filter((id) => id !== piece.capture)) : undefined}
            />
            {!isChanged && place < pieces.length - 1 && (
              <Between join={join} place={place} seam={join.seams.find((row) => row.above === place)} isChosen={join.seams.some((row) => row.number === seam && row.above === place)} onSeam={onSeam} />
            )}
          </Fragment>
        ))}
      </ol>
      {isChanged && (
        <div className="mt-4 flex flex-wrap gap-2">
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={again.isPending}
            onClick={() => again.mutate({ captures: order, in_order: true }, { onError: showProblem, onSuccess: ({ id }) => void navigate(`/joins/${id}`) })}
          >
            Join in this order
          </button>
          <button type="button" className="btn btn-sm" onClick={() => setSaid(null)}>
            Back to the order that was found
          </button>
        </div>
      )}
    </section>
  );
}

interface PieceProps {
  piece: JoinPiece;
  isKnown: boolean;
  onUp: (() => void) | undefined;
  onDown: (() => void) | undefined;
  onLeaveOut: (() => void) | undefined;
}

function Piece({ piece, isKnown, onUp, onDown, onLeaveOut }: PieceProps) {
  return (
    <li className="flex items-center gap-3 border border-base-300 p-2" data-piece={piece.capture}>
      <img src={`/api/captures/${piece.capture}/thumbnail`} alt="" className="h-16 w-14 shrink-0 bg-base-200 object-cover object-top" />
      <span className="min-w-0 flex-1">
        <Link to={`/captures/${piece.capture}`} className="block truncate underline" title={piece.name}>
          {piece.name}
        </Link>
        <span className="figure text-sm">
          {isKnown && piece.top_px !== null
            ? `rows ${piece.top_px.toLocaleString("en-GB")}–${(piece.top_px + piece.height_px).toLocaleString("en-GB")}`
            : `${piece.height_px.toLocaleString("en-GB")} px high`}
        </span>
      </span>
      <span className="flex">
        <PieceButton name={`${piece.name} further up`} onPress={onUp} Sign={ArrowUp} />
        <PieceButton name={`${piece.name} further down`} onPress={onDown} Sign={ArrowDown} />
        <PieceButton name={`Leave out ${piece.name}`} onPress={onLeaveOut} Sign={X} />
      </span>
    </li>
  );
}

function PieceButton({ name, onPress, Sign }: { name: string; onPress: (() => void) | undefined; Sign: typeof X }) {
  return (
    <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={name} title={name} disabled={!onPress} onClick={onPress}>
      <Sign size={14} aria-hidden />
    </button>
  );
}

interface BetweenProps {
  join: Join;
  place: number;
  seam: JoinSeam | undefined;
  isChosen: boolean;
  onSeam: (number: number) => void;
}

function Between({ join, place, seam, isChosen, onSeam }: BetweenProps) {
  const missing = join.missing.find((row) => row.below === place);
  if (missing)
    return (
      <li className="my-2 border-l-4 border-error bg-base-200 px-3 py-2 text-sm" data-missing={missing.why}>
        <strong className="block">A piece is missing here</strong>
        {WHY[missing.why]}
      </li>
    );
  if (!seam) return <li className="h-2" aria-hidden />;
  return <SeamRow joinId={join.id} seam={seam} isChosen={isChosen} onChoose={() => onSeam(seam.number)} />;
}
