import { titled } from "../app/actions/registry";
import { useBench, useCut } from "./benchContext";
import type { Stage } from "./cut/cutStore";

export const STAGES: { stage: Stage; words: string; does: string }[] = [
  { stage: "part", words: "Part", does: "Which part of the page is shown" },
  { stage: "point", words: "Point", does: "Arrows, text, numbers: what to look at" },
  { stage: "hide", words: "Hide", does: "What must not be seen" },
  { stage: "dress", words: "Dress", does: "What is put around the picture" },
];

/** The order of work, as steps: what is done at each is counted beside its name. */
export function StagePick() {
  const { store } = useBench();
  const stage = useCut((state) => state.stage);
  const marks = useCut((state) => state.document.marks.length);
  const hidden = useCut((state) => state.document.hidden.length);
  const dressed = useCut((state) => Object.values(state.document.dressing ?? {}).filter(Boolean).length);
  const counts: Record<Stage, number> = { part: 0, point: marks, hide: hidden, dress: dressed };
  return (
    <ol className="flex items-stretch" aria-label="Order of work">
      {STAGES.map((row, index) => (
        <li key={row.stage} className="flex items-center">
          {index > 0 && <span className="px-0.5 text-base-300" aria-hidden>·</span>}
          <button
            type="button"
            className={`rounded-field px-2 py-1 text-sm ${stage === row.stage ? "bg-base-200 font-semibold underline decoration-accent decoration-2 underline-offset-4" : "text-info hover:text-base-content"}`}
            aria-pressed={stage === row.stage}
            title={titled(row.stage === "part" ? "stageBefore" : "stageNext", row.does)}
            onClick={() => store.setStage(row.stage)}
          >
            {row.words}
            {counts[row.stage] > 0 && <span className="figure ml-1 text-xs">{counts[row.stage]}</span>}
          </button>
        </li>
      ))}
    </ol>
  );
}
