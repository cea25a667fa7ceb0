import { Panel } from "../../../parts/Panel";
import { useBench } from "../../benchContext";
import { useShownMarks } from "../drawing/useShownMarks";
import { aligned, type Alignment, spread } from "../handling/arranging";
import { extentOf } from "../handling/hitMarks";
import { moveEach } from "../markSteps";

const EDGES: [Alignment, string][] = [
  ["left", "Left edges"],
  ["centre", "Centres"],
  ["right", "Right edges"],
  ["top", "Upper edges"],
  ["middle", "Middles"],
  ["bottom", "Lower edges"],
];
const GAPS: ["x" | "y", string][] = [
  ["x", "Side by side"],
  ["y", "One below the other"],
];

/** Bring several marks into line, or to equal distances. Locked ones stay, and the others come to them. */
export function Arrange({ ids }: { ids: readonly string[] }) {
  const { store } = useBench();
  const rows = useShownMarks().flatMap((row) => {
    const box = extentOf(row);
    return box && ids.includes(row.mark.id) ? [{ id: row.mark.id, box }] : [];
  });
  const boxes = rows.map(({ box }) => box);
  const run = (words: string, moves: ReturnType<typeof aligned>) => moveEach(store, words, new Map(rows.map(({ id }, index) => [id, moves[index] ?? { x_px: 0, y_px: 0 }])));
  return (
    <Panel label="Arrange" name="Arrange the marks in hand" button="btn-ghost btn-xs" size="w-72">
      <p className="mb-2 font-semibold">Into line</p>
      <div className="grid grid-flow-col grid-rows-3 gap-1">
        {EDGES.map(([how, words]) => (
          <button key={how} type="button" className="btn btn-xs justify-start" onClick={() => run("marks aligned", aligned(boxes, how))}>
            {words}
          </button>
        ))}
      </div>
      <p className="mt-3 mb-2 font-semibold">Equal gaps</p>
      <div className="grid grid-cols-2 gap-1">
        {GAPS.map(([axis, words]) => (
          <button key={axis} type="button" className="btn btn-xs justify-start" disabled={rows.length < 3} onClick={() => run("marks spread", spread(boxes, axis))}>
            {words}
          </button>
        ))}
      </div>
      {rows.length < 3 && <p className="mt-2 text-info">Gaps need three marks or more.</p>}
    </Panel>
  );
}
