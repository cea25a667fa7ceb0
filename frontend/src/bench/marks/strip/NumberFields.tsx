import type { Mark } from "../../../api/types";
import { useBench, useCut } from "../../benchContext";
import { changeMarks } from "../markSteps";

/** Begin to count again, in a sequence of its own. */
export function NewSequence({ id }: { id: string }) {
  const { store } = useBench();
  const begin = () => {
    const next = Math.max(0, ...store.getState().document.marks.map((row) => (row.kind === "badge" ? (row.sequence ?? 1) : 0))) + 1;
    changeMarks(store, "new sequence", [id], (row) => ({ ...row, sequence: next }) as Mark);
  };
  return (
    <button type="button" className="btn btn-xs" title="Begin to count from 1 again, from here on" onClick={begin}>
      New sequence
    </button>
  );
}

/** The caption of a number, which goes into the list beside the picture. */
export function BadgeFields() {
  const { store } = useBench();
  const mark = useCut((state) => state.document.marks.find((row) => row.id === state.selected[0]));
  if (mark?.kind !== "badge") return null;
  return (
      <input
        key={mark.id}
        className="input input-xs w-40"
        aria-label="Caption of the number"
        placeholder="Caption, for the list"
        maxLength={500}
        defaultValue={mark.caption ?? ""}
        onBlur={(event) => {
          const caption = event.target.value;
          if (caption !== (mark.caption ?? "")) changeMarks(store, "caption typed", [mark.id], (row) => ({ ...row, caption }) as Mark);
        }}
        onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
      />
  );
}
