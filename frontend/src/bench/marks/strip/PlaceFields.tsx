import type { Mark } from "../../../api/types";
import { NumberInput } from "../../../parts/fields/NumberInput";
import { useBench } from "../../benchContext";
import { changeMarks } from "../markSteps";

/** Where the mark stands, to the px. */
export function PlaceFields({ marks }: { marks: Mark[] }) {
  const { store } = useBench();
  const [mark] = marks;
  if (!mark || marks.length > 1) return null;
  const names = ["x_px", "y_px", "width_px", "height_px", "from_x_px", "from_y_px", "to_x_px", "to_y_px"].filter((name) => typeof mark[name as keyof Mark] === "number");
  if (names.length === 0) return null;
  const said = (name: string) => name.replace("_px", "").replace("_", " ");
  return (
      <div className="mt-3 grid grid-cols-2 gap-2 border-t border-base-300 pt-3 text-sm">
        {names.map((name) => (
          <label key={name} className="flex items-center justify-between gap-1">
            <span className="text-info">{said(name)}</span>
            <NumberInput name={`${said(name)} in px`} size="w-16" value={mark[name as keyof Mark] as unknown as number} least={name.startsWith("width") || name.startsWith("height") ? 1 : -1_000_000} greatest={1_000_000} onCommit={(number) => number !== null && changeMarks(store, "place typed", [mark.id], (row) => ({ ...row, [name]: number }))} />
          </label>
        ))}
      </div>
  );
}
