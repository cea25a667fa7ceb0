import { useEffect } from "react";

import type { Pen } from "./onFrames";

const PENS: Record<Pen, { words: string; does: string }> = {
  part: { words: "Part", does: "Drag over the part that is seen." },
  hide: { words: "Hide", does: "Drag over what must not be seen: it is in no file." },
  box: { words: "Box", does: "Drag a box around something." },
  arrow: { words: "Arrow", does: "Drag to what the arrow points at." },
  text: { words: "Words", does: "Press where the words begin." },
};

interface PenToolsProps {
  pen: Pen | null;
  /** The frames on which something new is, in words. */
  where: string;
  onPick: (pen: Pen | null) => void;
  /** Puts what the pen makes in the middle of the frame, without a drag. */
  onPut: (pen: Pen) => void;
}

/** What a drag on the frame does; pressed again, or after Escape, nothing. */
export function PenTools({ pen, where, onPick, onPut }: PenToolsProps) {
  useEffect(() => {
    if (!pen) return;
    const heard = (event: KeyboardEvent) => event.key === "Escape" && onPick(null);
    window.addEventListener("keydown", heard);
    return () => window.removeEventListener("keydown", heard);
  }, [pen, onPick]);
  return (
    <div className="mb-2 flex flex-wrap items-center gap-3 text-sm">
      <div className="join" role="group" aria-label="On the frames">
        {(Object.keys(PENS) as Pen[]).map((name) => (
          <button key={name} type="button" className={`btn join-item btn-sm ${pen === name ? "btn-neutral" : ""}`} aria-pressed={pen === name} title={PENS[name].does} onClick={() => onPick(pen === name ? null : name)}>
            {PENS[name].words}
          </button>
        ))}
      </div>
      <p className="min-h-5">{pen && `${PENS[pen].does}${pen === "part" ? "" : ` It is on ${where}.`}`}</p>
      {pen && (
        <button type="button" className="btn btn-sm" onClick={() => onPut(pen)}>
          Put it in the middle
        </button>
      )}
    </div>
  );
}
