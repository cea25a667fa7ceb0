import { ListCollapse } from "lucide-react";
import { useState } from "react";

import { usePageMap } from "../../api/cuts";
import { useNotices } from "../../app/notices";
import { formatPx } from "../../parts/figures";
import { NumberInput } from "../../parts/fields/NumberInput";
import { ClosingButton, Panel } from "../../parts/Panel";
import { useBench, useCut, useOrientation } from "../benchContext";
import { addFolds, setSeam } from "../cut/frameSteps";
import { ColourPick } from "../marks/ColourPick";
import type { FoldAxis } from "../page/geometry/folds";
import { foldBlank, LEAST_PX, LEFT_PX } from "./foldBlank";
import { foldsAfterRows } from "./keptRows";

const USUAL_ROWS = 6;

/** What else is folded away, and how that is seen in the file. */
export function FoldsPanel() {
  const { store, capture } = useBench();
  const down = useCut((state) => state.tool.kind === "fold" && state.tool.axis === "down");
  return (
    <Panel
      name="Folds"
      side="left"
      size="w-[26rem]"
      button={`btn-xs ${down ? "btn-neutral" : ""}`}
      label={
        <>
          <ListCollapse size={14} aria-hidden /> <span className="@max-[48rem]:sr-only">Folds</span>
        </>
      }
    >
      <div className="grid gap-3">
        <p>
          <ClosingButton className={`btn btn-sm ${down ? "btn-neutral" : ""}`} aria-pressed={down} onClick={() => store.setTool(down ? { kind: "frame" } : { kind: "fold", axis: "down" })}>
            Fold down the page
          </ClosingButton>
          <span className="ml-2 text-info">Drag over the columns.</span>
        </p>
        <TypedFold />
        <p className="border-t border-base-300 pt-3">
          <button type="button" className="btn btn-sm" onClick={() => void foldBlank(store, capture.id)}>
            Fold empty stretches
          </button>
          <span className="mt-1 block text-info">
            Those of {LEAST_PX} px or more; {LEFT_PX} px are left on each side.
          </span>
        </p>
        <LongLists />
        <SeamFields />
      </div>
    </Panel>
  );
}

/** A fold in numbers, for those who do not drag. */
function TypedFold() {
  const { store } = useBench();
  const show = useNotices((state) => state.show);
  const [axis, setAxis] = useState<FoldAxis>("across");
  const [at_px, setAt] = useState<number | null>(null);
  const [length_px, setLength] = useState<number | null>(null);
  const fold = () => {
    if (at_px === null || length_px === null) return;
    const before = store.getState().document;
    addFolds(store, [{ top_px: Math.round(at_px), height_px: Math.round(length_px) }], axis);
    if (store.getState().document === before) {
      show({ tone: "error", text: "Nothing was folded away.", hint: "These px lie beside the frame, are folded already, or would leave nothing of it." });
      return;
    }
    setAt(null);
    setLength(null);
  };
  return (
    <form
      className="flex flex-wrap items-center gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        fold();
      }}
    >
      <select className="select select-sm w-24" aria-label="What is folded away" value={axis} onChange={(event) => setAxis(event.target.value as FoldAxis)}>
        <option value="across">Rows</option>
        <option value="down">Columns</option>
      </select>
      <label className="flex items-center gap-1">
        <span className="text-info">from</span>
        <NumberInput name="First px of the fold" size="w-16" value={at_px} least={0} onChange={setAt} onCommit={setAt} />
      </label>
      <NumberInput name="How many px are folded away" size="w-16" value={length_px} least={1} onChange={setLength} onCommit={setLength} />
      <span className="text-info">px</span>
      <button type="submit" className="btn btn-sm" disabled={at_px === null || length_px === null}>
        Fold
      </button>
    </form>
  );
}

/** Of long lists and tables, some rows say enough. */
function LongLists() {
  const { store, capture } = useBench();
  const { data: blocks = [] } = usePageMap(capture.id, useOrientation());
  const show = useNotices((state) => state.show);
  const [rows, setRows] = useState(USUAL_ROWS);
  const fold = () => {
    const folds = foldsAfterRows(blocks, store.getState().document.frame, rows);
    if (folds.length === 0) {
      show({ tone: "info", text: `There is no list or table of more than ${rows + 1} rows in the frame.` });
      return;
    }
    addFolds(store, folds);
    const rows_px = folds.reduce((sum, row) => sum + row.height_px, 0);
    show({ tone: "info", text: `${folds.length === 1 ? "One list or table" : `${folds.length} lists and tables`} shortened by ${formatPx(rows_px)} px.` });
  };
  return (
    <p className="flex flex-wrap items-center gap-2">
      <button type="button" className="btn btn-sm" onClick={fold}>
        Fold long lists
      </button>
      <label className="flex items-center gap-1">
        <span className="text-info">keep the first</span>
        <NumberInput name="How many rows of a list or table are kept" size="w-14" value={rows} least={1} greatest={100} onCommit={(number) => number !== null && setRows(Math.round(number))} />
        <span className="text-info">rows</span>
      </label>
    </p>
  );
}

const LOOKS = [
  { look: null, words: "None" },
  { look: "hairline", words: "Hairline" },
  { look: "torn", words: "Torn edges" },
] as const;
const USUAL_COLOURS = { hairline: "#7C8A86", torn: "#FFFFFF" };

/** How a fold is seen in the file. */
function SeamFields() {
  const { store } = useBench();
  const seam = useCut((state) => state.document.seam ?? null);
  return (
    <div className="grid gap-2 border-t border-base-300 pt-3">
      <span>The seam in the file</span>
      <div className="flex items-center gap-2">
        <div className="join" role="group" aria-label="The seam in the file">
          {LOOKS.map(({ look, words }) => (
            <button
              key={words}
              type="button"
              className={`btn join-item btn-sm ${(seam?.look ?? null) === look ? "btn-neutral" : ""}`}
              aria-pressed={(seam?.look ?? null) === look}
              onClick={() => setSeam(store, look && { look })}
            >
              {words}
            </button>
          ))}
        </div>
        {seam && (
          <ColourPick
            name={seam.look === "torn" ? "Colour between the edges" : "Colour of the hairline"}
            value={seam.colour ?? USUAL_COLOURS[seam.look]}
            onPick={(colour) => setSeam(store, { ...seam, colour })}
          />
        )}
      </div>
    </div>
  );
}
