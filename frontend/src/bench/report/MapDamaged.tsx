import { usePageMap } from "../../api/cuts";
import { asProblem } from "../../api/client";
import { useBench } from "../benchContext";

/** Says why no block can be picked, where the page has blocks and they cannot be read. */
export function MapDamaged() {
  const { error } = usePageMap(useBench().capture.id);
  if (!error) return null;
  const { sentence, hint } = asProblem(error);
  return (
    <p role="alert" className="border-b border-base-300 bg-base-200 px-4 py-1 text-sm">
      {sentence} {hint}
    </p>
  );
}
