import { Spline } from "lucide-react";

import { NumberInput } from "../../parts/fields/NumberInput";
import { ClosingButton, Panel } from "../../parts/Panel";
import { useBench, useCut } from "../benchContext";
import { ColourPick } from "../marks/ColourPick";
import { useOutlineDraft } from "./draft";
import { type Corner, cornersIn, LEAST_POINTS } from "./outlines";
import { changeOutline, drawOutline, removeOutline, setCorners } from "./outlineSteps";

type How = "hand" | "points" | "corners";

/** Of the page only what lies inside a shape. */
export function OutlinePanel() {
  const { store } = useBench();
  const outline = useCut((state) => state.document.outline);
  const how = useCut((state) => (state.tool.kind === "outline" ? state.tool.how : null));
  const take = (next: How) => store.setTool(how === next ? { kind: "frame" } : { kind: "outline", how: next });
  const aroundFrame = () => {
    const { x_px, y_px, width_px, height_px } = store.getState().document.frame;
    const [right, bottom] = [x_px + width_px, y_px + height_px];
    drawOutline(store, [[x_px, y_px], [right, y_px], [right, bottom], [x_px, bottom]]);
    store.setTool({ kind: "outline", how: "corners" });
  };
  return (
    <Panel
      name="Outline"
      side="left"
      size="w-96"
      button={`btn-xs ${outline || how ? "btn-neutral" : ""}`}
      label={
        <>
          <Spline size={14} aria-hidden /> <span className="@max-[60rem]:sr-only">Outline</span>
        </>
      }
    >
      <p className="mb-2">Keep only what lies inside a shape on the page.</p>
      <div className="flex flex-wrap gap-2">
        <Way how="hand" now={how} onTake={take} words="Draw it by hand" />
        <Way how="points" now={how} onTake={take} words="Press its corners" />
        <button type="button" className="btn btn-sm" onClick={aroundFrame}>
          Begin with the frame
        </button>
      </div>
      {outline && (
        <div className="mt-3 grid gap-2 border-t border-base-300 pt-3">
          <div className="flex flex-wrap items-center gap-2">
            <Way how="corners" now={how} onTake={take} words="Change its corners" />
            <button type="button" className="btn btn-sm" onClick={() => removeOutline(store)}>
              Remove it
            </button>
          </div>
          <CornerFields corners={cornersIn(outline)} />
          <label className="flex items-center gap-2">
            <input type="checkbox" className="checkbox checkbox-sm" checked={outline.smooth ?? false} onChange={(event) => changeOutline(store, { smooth: event.target.checked }, "outline smoothed")} />
            Smooth lines through the corners
          </label>
          <div className="flex items-center gap-2">
            <label className="flex items-center gap-2">
              <input type="checkbox" className="checkbox checkbox-sm" checked={outline.outside == null} onChange={(event) => changeOutline(store, { outside: event.target.checked ? null : "#FFFFFF" }, "outside changed")} />
              Transparent outside
            </label>
            {outline.outside != null && <ColourPick name="Colour outside" value={outline.outside} onPick={(colour) => changeOutline(store, { outside: colour }, "outside changed")} />}
          </div>
        </div>
      )}
    </Panel>
  );
}

/** Takes the page in hand: the panel gives way to it. */
function Way({ how, now, onTake, words }: { how: How; now: How | null; onTake: (how: How) => void; words: string }) {
  return (
    <ClosingButton className={`btn btn-sm ${how === now ? "btn-neutral" : ""}`} aria-pressed={how === now} onClick={() => onTake(how)}>
      {words}
    </ClosingButton>
  );
}

/** One corner in numbers: chosen by its number, or by a press on the page. */
function CornerFields({ corners }: { corners: readonly Corner[] }) {
  const { store } = useBench();
  const inHand = useOutlineDraft((state) => state.inHand);
  const index = Math.min(inHand ?? 0, corners.length - 1);
  const corner = corners[index];
  if (!corner) return null;
  const put = (axis: 0 | 1) => (value: number | null) => {
    if (value !== null) setCorners(store, corners.with(index, axis === 0 ? [value, corner[1]] : [corner[0], value]), "outline changed", `corner ${index}`);
  };
  const choose = (number: number | null) => number !== null && useOutlineDraft.setState({ inHand: Math.round(number) - 1 });
  const remove = () => {
    if (setCorners(store, corners.toSpliced(index, 1), "corner removed")) useOutlineDraft.setState({ inHand: null });
  };
  return (
    <div className="flex flex-wrap items-center gap-1.5" role="group" aria-label="A corner of the outline">
      <label className="flex items-center gap-1">
        <span className="text-info">corner</span>
        <NumberInput name="Number of the corner" size="w-12" value={index + 1} least={1} greatest={corners.length} onCommit={choose} />
        <span className="text-info">of {corners.length}</span>
      </label>
      <label className="flex items-center gap-1">
        <span className="text-info">x</span>
        <NumberInput name="x of the corner in px" size="w-16" value={corner[0]} onCommit={put(0)} />
      </label>
      <label className="flex items-center gap-1">
        <span className="text-info">y</span>
        <NumberInput name="y of the corner in px" size="w-16" value={corner[1]} onCommit={put(1)} />
      </label>
      <button type="button" className="btn btn-xs" disabled={corners.length <= LEAST_POINTS} onClick={remove}>
        Remove
      </button>
    </div>
  );
}
