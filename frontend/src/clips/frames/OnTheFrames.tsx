import { Trash2 } from "lucide-react";

import type { ClipDocument } from "../../api/types";
import { KIND_WORDS } from "../../bench/marks/handling/geometry";
import { AreaFields, MarkFields } from "../../bench/marks/MarkFields";
import { ALL_FRAMES, type Span, spanWords } from "./onFrames";
import { sameThing, type Thing, withoutThing } from "./takenUp";

interface OnTheFramesProps {
  document: ClipDocument;
  /** The range of frames in hand; null where it is a single one. */
  range: Span | null;
  inHand: Thing | null;
  /** Takes something up on the frame. */
  onTake: (thing: Thing) => void;
  onChange: (more: Partial<ClipDocument>) => void;
}

/** As on the Bench, but for the pen that makes them here. */
const KINDS = { ...KIND_WORDS, text: "Words" };

/** What is hidden and drawn on the frames, each with the frames that it is on. */
export function OnTheFrames({ document, range, inHand, onTake, onChange }: OnTheFramesProps) {
  const { hidden, marks } = document;
  if (hidden.length + marks.length === 0) return null;
  const setHidden = (at: number, more: object) => onChange({ hidden: hidden.map((row, index) => (index === at ? { ...row, ...more } : row)) });
  const setMark = (at: number, more: object) => onChange({ marks: marks.map((row, index) => (index === at ? { ...row, ...more } : row)) });
  return (
    <section aria-labelledby="on-the-frames" className="mt-6">
      <h2 id="on-the-frames" className="mb-2 border-b border-base-300 pb-1 font-semibold">
        On the frames
      </h2>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(20rem,1fr))] gap-x-8 gap-y-4 text-sm">
        {hidden.map((row, at) => (
          <Row key={`hidden-${at}`} isInHand={sameThing(inHand, { of: "hidden", at })} onTake={() => onTake({ of: "hidden", at })} name={`Hidden area ${at + 1}`} span={row} range={range} onSpan={(span) => setHidden(at, span)} onRemove={() => onChange(withoutThing(document, { of: "hidden", at }))}>
            <AreaFields name={`hidden area ${at + 1}`} area={row.area} onChange={(more) => setHidden(at, { area: { ...row.area, ...more } })} />
          </Row>
        ))}
        {marks.map((row, at) => (
          <Row key={`mark-${at}`} isInHand={sameThing(inHand, { of: "marks", at })} onTake={() => onTake({ of: "marks", at })} name={`${KINDS[row.mark.kind]} ${at + 1}`} span={row} range={range} onSpan={(span) => setMark(at, span)} onRemove={() => onChange(withoutThing(document, { of: "marks", at }))}>
            <MarkFields name={`${KINDS[row.mark.kind]} ${at + 1}`.toLowerCase()} mark={row.mark} onChange={(more) => setMark(at, { mark: { ...row.mark, ...more } })} />
          </Row>
        ))}
      </ul>
    </section>
  );
}

interface RowProps {
  name: string;
  isInHand: boolean;
  onTake: () => void;
  span: { first: number; last?: number | null };
  range: Span | null;
  onSpan: (span: Span) => void;
  onRemove: () => void;
  children: React.ReactNode;
}

function Row({ name, isInHand, onTake, span, range, onSpan, onRemove, children }: RowProps) {
  const isOnRange = span.first === range?.first && (span.last ?? null) === range.last;
  const isOnAll = span.first === 0 && (span.last ?? null) === null;
  return (
    <li className="grid gap-1" data-on-frames={name}>
      <div className="flex items-baseline gap-2">
        <button type="button" className={`cursor-pointer font-medium underline decoration-dotted ${isInHand ? "text-accent" : ""}`} aria-pressed={isInHand} title="Take it up on the frame" onClick={onTake}>
          {name}
        </button>
        <span className="text-info">on {spanWords(span)}</span>
        <button type="button" className="btn btn-square btn-ghost btn-xs ml-auto self-center" aria-label={`Remove ${name.toLowerCase()}`} onClick={onRemove}>
          <Trash2 size={14} aria-hidden />
        </button>
      </div>
      {children}
      <div className="flex gap-2">
        {range && !isOnRange && (
          <button type="button" className="btn btn-xs" onClick={() => onSpan(range)}>
            Only on {spanWords(range)}
          </button>
        )}
        {!isOnAll && (
          <button type="button" className="btn btn-ghost btn-xs" onClick={() => onSpan(ALL_FRAMES)}>
            On all frames
          </button>
        )}
      </div>
    </li>
  );
}
