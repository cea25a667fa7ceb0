import type { Change } from "../../api/types";
import { counted, formatWhen, percent } from "../../parts/figures";
import { useNow } from "../../parts/useNow";

/** Which of two takes of a page is seen. */
export type Side = "now" | "before";

interface ChangeBarProps {
  change: Change;
  side: Side;
  stretch: number;
  onSide: (side: Side) => void;
  onNext: () => void;
}

/** How much of a page changed, where, and in what words; and a way to how it was. */
export function ChangeBar({ change, side, stretch, onSide, onNext }: ChangeBarProps) {
  const now = useNow();
  const places = change.stretches.length;
  const sides: Record<Side, string> = {
    now: "Now",
    before: change.before_taken_at ? `As it was, ${formatWhen(change.before_taken_at, now)}` : "As it was",
  };
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-base-300 px-4 py-1 text-sm" role="group" aria-label="Since the last time">
      <div className="flex gap-1">
        {(Object.entries(sides) as [Side, string][]).map(([name, words]) => (
          <button
            key={name}
            type="button"
            title="B"
            aria-pressed={side === name}
            className={`rounded-selector border px-2 py-0.5 ${side === name ? "border-primary bg-primary text-primary-content" : "border-base-300"}`}
            onClick={() => onSide(name)}
          >
            {words}
          </button>
        ))}
      </div>
      <span>
        {percent(change.changed_share)} changed, in {counted(places, "place")}
      </span>
      {places > 0 && (
        <button type="button" className="btn btn-xs" title="C" onClick={onNext}>
          {stretch < 0 ? "Go to the first" : `Next, ${stretch + 1} of ${places} now`}
        </button>
      )}
      {(change.added.length > 0 || change.removed.length > 0) && (
        <details className="w-full">
          <summary className="cursor-pointer">
            {counted(change.added.length, "passage")} added, {change.removed.length} removed
          </summary>
          <ul className="max-h-40 overflow-y-auto py-1">
            {change.added.map((text) => (
              <li key={`added ${text}`} className="border-l-4 border-success pl-2">
                {text}
              </li>
            ))}
            {change.removed.map((text) => (
              <li key={`removed ${text}`} className="border-l-4 border-base-300 pl-2 line-through">
                {text}
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}
