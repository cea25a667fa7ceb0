import { useCut } from "../../benchContext";
import { MARGIN } from "../../page/geometry/zoom";
import { useView } from "../../page/useView";
import { angleOf, type HandleName, handlesOf } from "../handling/handles";
import { heldOf, type ShownMark } from "../handling/hitMarks";
import { TextEditor } from "../TextEditor";
import { MarkPicture } from "./MarkPicture";
import { useShownMarks } from "./useShownMarks";

interface Props {
  scroller: HTMLDivElement | null;
  zoom: number;
}

/** Marks near what is seen of the page are in the document; they are looked for again every so many CSS px. */
const STEP = 400;

/** The marks on the page, and around those in hand their handles. */
export function MarkLayer({ scroller, zoom }: Props) {
  const shown = useShownMarks();
  const selected = useCut((state) => state.selected);
  const pointing = useCut((state) => state.stage === "point");
  const editing = useCut((state) => state.editing);
  const step = useView(scroller, (view) => Math.floor(view.top / STEP), 0);
  const height = useView(scroller, (view) => view.height, 0);
  const [first_px, last_px] = [(step * STEP - MARGIN - height) / zoom, ((step + 1) * STEP - MARGIN + 2 * height) / zoom];
  const near = shown.filter((row) => isNear(row, first_px, last_px));
  const edited = shown.find((row) => row.mark.id === editing);
  return (
    <>
      {/* Marks end at the edges of the page, as they do in the files. */}
      <div className="pointer-events-none absolute inset-0 overflow-clip">
        {near.map(({ mark, drawn, by }) => drawn && mark.id !== editing && <MarkPicture key={mark.id} id={mark.id} drawn={drawn} dx_px={by.x_px} dy_px={by.y_px} zoom={zoom} />)}
      </div>
      {pointing && near.map((row) => selected.includes(row.mark.id) && row.mark.id !== editing && <Held key={row.mark.id} shown={row} alone={selected.length === 1} zoom={zoom} />)}
      {edited?.mark.kind === "text" && <TextEditor key={edited.mark.id} mark={edited.mark} zoom={zoom} />}
    </>
  );
}

function isNear({ drawn, by }: ShownMark, first_px: number, last_px: number): boolean {
  const extent = drawn?.extent;
  return !!extent && extent.bottom_px + by.y_px >= first_px && extent.top_px + by.y_px <= last_px;
}

/** The outline of a mark in hand, turned as the mark is, and where it can be taken. */
function Held({ shown, alone, zoom }: { shown: ShownMark; alone: boolean; zoom: number }) {
  const { mark } = shown;
  const extent = heldOf(shown);
  if (!extent) return null;
  const box = {
    left: extent.left_px * zoom - 3,
    top: extent.top_px * zoom - 3,
    width: (extent.right_px - extent.left_px) * zoom + 6,
    height: (extent.bottom_px - extent.top_px) * zoom + 6,
    rotate: `${angleOf(mark)}deg`,
  };
  return (
    <>
      <div data-held={mark.id} className="pointer-events-none absolute border border-dashed border-accent outline outline-base-100/70" style={box} />
      {alone &&
        !mark.locked &&
        handlesOf(mark, extent, zoom).map((handle) => (
          <div
            key={handle.name}
            data-mark-handle={handle.name}
            className={`pointer-events-none absolute -mt-[5px] -ml-[5px] size-2.5 border border-neutral bg-accent ${ROUND.has(handle.name) ? "rounded-full" : ""}`}
            style={{ left: handle.at.x_px * zoom, top: handle.at.y_px * zoom }}
          />
        ))}
    </>
  );
}

/** Handles that do not change the size. */
const ROUND: ReadonlySet<HandleName> = new Set(["bend", "spot", "turn"]);
