import { Trash2 } from "lucide-react";

import type { HiddenArea } from "../../api/types";
import { NumberInput } from "../../parts/fields/NumberInput";
import { useBench, useCut } from "../benchContext";
import { Panel } from "../../parts/Panel";
import { HideByWords } from "./HideByWords";
import { ColourPick } from "./ColourPick";
import { changeHidden, removeSelected } from "./markSteps";

export const WAYS: Record<HiddenArea["how"], { words: string; does: string }> = {
  solid: { words: "Solid", does: "A colour over it: nothing of it is in any file" },
  pixelate: { words: "Squares", does: "Squares of its mean colour" },
  blur: { words: "Blur", does: "A blur, too strong to be read" },
  patch: { words: "Patch over", does: "What surrounds it, as if it had not been there" },
};

/** How the next area is hidden, or the one in hand. */
export function HideTools() {
  const { store } = useBench();
  const tool = useCut((state) => state.tool);
  const inHand = useCut((state) => state.document.hidden.find((area) => state.selected.includes(area.id)));
  const how = inHand?.how ?? (tool.kind === "hide" ? tool.how : "solid");
  const pick = (way: HiddenArea["how"]) => {
    store.setTool({ kind: "hide", how: way });
    if (inHand) changeHidden(store, inHand.id, { how: way });
  };
  return (
    <div className="flex min-w-0 items-center gap-2">
      <div className="join" role="group" aria-label="How it is hidden">
        {(Object.keys(WAYS) as HiddenArea["how"][]).map((way) => (
          <button key={way} type="button" className={`btn join-item btn-xs ${how === way ? "btn-neutral" : ""}`} aria-pressed={how === way} title={WAYS[way].does} onClick={() => pick(way)}>
            {WAYS[way].words}
          </button>
        ))}
      </div>
      <Panel name="Hide by words" side="left" size="w-96" button="btn-xs" label="By words">
        <HideByWords how={how} />
      </Panel>
      {inHand?.how === "solid" && <ColourPick name="Colour of the area" value={inHand.colour ?? "#1D2B2A"} onPick={(colour) => changeHidden(store, inHand.id, { colour: colour ?? "#1D2B2A" })} />}
      {(inHand?.how === "pixelate" || inHand?.how === "blur") && <Strength area={inHand} />}
      {inHand ? (
        <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label="Show it again" title="Show it again (Del)" onClick={() => removeSelected(store)}>
          <Trash2 size={14} aria-hidden />
        </button>
      ) : (
        <span className="truncate text-sm text-info">Drag over what must not be seen.</span>
      )}
    </div>
  );
}

/** As coarse as the letters below ask for, unless somebody says otherwise. */
function Strength({ area }: { area: HiddenArea }) {
  const { store } = useBench();
  const asked = Math.min(64, Math.max(16, Math.min(area.width_px, area.height_px)));
  const weak = area.strength_px != null && area.strength_px < asked;
  return (
    <label className="flex items-center gap-1 text-sm">
      <span className="text-info">coarse</span>
      <NumberInput name="How coarse, in px" size="w-14" value={area.strength_px ?? asked} least={2} greatest={400} onCommit={(px) => changeHidden(store, area.id, { strength_px: px === asked ? null : px })} />
      {weak && (
        <span role="alert" className="text-error" title={`Letters here may be up to ${asked} px high`}>
          can be guessed
        </span>
      )}
    </label>
  );
}
