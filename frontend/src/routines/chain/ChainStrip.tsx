import { Plus } from "lucide-react";

import { lookUrl } from "../../api/routines";
import type { RoutineDocument, RoutineStep, StepLook } from "../../api/types";
import { formatSize } from "../../parts/figures";
import { ClosingButton, Panel } from "../../parts/Panel";
import { GROUPS, kindOf, STEP_KINDS, stepWords } from "./stepKinds";

interface Props {
  routineId: number;
  document: RoutineDocument;
  captureId: number | null;
  looks: readonly StepLook[];
  at: number | null;
  onPick: (at: number) => void;
  onAdd: (step: RoutineStep) => void;
}

/** The chain from left to right: the sample, and what each step leaves of it. */
export function ChainStrip({ routineId, document, captureId, looks, at, onPick, onAdd }: Props) {
  const picture = (number: number) => {
    const look = looks[number];
    return captureId !== null && look?.key ? lookUrl(routineId, captureId, number, look.key) : null;
  };
  return (
    <ol className="flex items-stretch gap-2 overflow-x-auto pb-3" aria-label="The steps, in the order of work">
      <li className="w-36 shrink-0">
        <div className="flex h-full flex-col border border-base-300 p-2 text-sm">
          <p className="font-semibold">The picture</p>
          <p className="h-10 leading-5">as it was taken</p>
          <Look url={picture(0)} reached={captureId !== null} />
          <Under look={looks[0]} />
        </div>
      </li>
      {document.steps.map((step, index) => {
        const look = looks[index + 1];
        const kind = kindOf(step);
        const alters = kind.stage > 0 && kind.stage < 9;
        return (
          <li key={index} className="w-36 shrink-0">
            <button
              type="button"
              aria-pressed={at === index}
              data-step={`Step ${index + 1}: ${kind.words}${step.off ? ", off" : ""}`}
              className={`flex h-full w-full flex-col border p-2 text-left text-sm ${at === index ? "border-accent outline-1 outline-accent" : "border-base-300 hover:border-base-content"} ${step.off ? "border-dashed" : ""}`}
              onClick={() => onPick(index)}
            >
              <span className="flex gap-1.5 font-semibold">
                <span className="figure font-normal text-info">
                  <span className="sr-only">Step </span>
                  {index + 1}
                </span>
                <span className={`min-w-0 truncate ${step.off ? "line-through" : ""}`}>{kind.words}</span>
              </span>
              <span className="line-clamp-2 h-10 leading-5" title={stepWords(step)}>
                {step.off ? "off" : stepWords(step)}
              </span>
              <Look url={picture(index + 1)} reached={captureId !== null} dim={step.off === true || (alters && look?.key !== "" && look?.changes === false)} />
              <Under look={look} unchanged={!step.off && alters} />
            </button>
          </li>
        );
      })}
      <li className="shrink-0 self-center">
        <AddStep onAdd={onAdd} />
      </li>
    </ol>
  );
}

function Look({ url, reached, dim = false }: { url: string | null; reached: boolean; dim?: boolean }) {
  return (
    <span className="my-1.5 flex h-36 items-center justify-center overflow-hidden bg-base-200">
      {url ? <img src={url} alt="" className={`max-h-full max-w-full object-contain ${dim ? "opacity-45" : ""}`} /> : <span className="p-2 text-center text-info">{reached ? "not reached" : "no sample"}</span>}
    </span>
  );
}

function Under({ look, unchanged = false }: { look: StepLook | undefined; unchanged?: boolean }) {
  if (!look) return null;
  if (look.said) return <span className="text-error">{look.said}</span>;
  if (unchanged && look.key && !look.changes) return <span className="text-info">changes nothing here</span>;
  return look.width_px > 0 ? <span className="figure">{formatSize(look.width_px, look.height_px)}</span> : null;
}

/** A step more, by the stage of the work it belongs to. */
function AddStep({ onAdd }: { onAdd: (step: RoutineStep) => void }) {
  return (
    <Panel name="Add a step" size="w-[34rem]" label={<><Plus size={16} aria-hidden /> Add a step</>}>
      <div className="columns-2 gap-6">
        {GROUPS.map((group) => (
          <section key={group} className="mb-3 break-inside-avoid">
            <h3 className="font-semibold text-info">{group}</h3>
            <ul>
              {STEP_KINDS.filter((kind) => kind.group === group && kind.fresh).map((kind) => (
                <li key={kind.words}>
                  <ClosingButton className="w-full px-2 py-1 text-left hover:bg-base-200" onClick={() => kind.fresh && onAdd(structuredClone(kind.fresh))}>
                    {kind.words}
                  </ClosingButton>
                </li>
              ))}
            </ul>
          </section>
        ))}
      </div>
      <p className="mt-1 border-t border-base-300 pt-2">A step goes to its place in the order of work. Marks, shapes and areas come from a cut: keep it as a routine on the Bench.</p>
    </Panel>
  );
}
