import { Trash2 } from "lucide-react";

import { useCoarseness } from "../../../api/marks";
import type { HiddenArea } from "../../../api/types";
import { NumberInput } from "../../../parts/fields/NumberInput";
import { formatSize } from "../../../parts/figures";
import { Panel } from "../../../parts/Panel";
import { useBench, useCut, useOrientation } from "../../benchContext";
import { ColourPick } from "../ColourPick";
import { removeSelected } from "../markSteps";
import { HideByWords } from "./HideByWords";
import { changeHidden } from "./hideSteps";
import { WAYS } from "./hidingWays";

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
    </div>
  );
}

/** The hidden area in hand: what it is covered with, and how coarse. */
export function HideStrip() {
  const { store } = useBench();
  const inHand = useCut((state) => state.document.hidden.find((area) => state.selected.includes(area.id)));
  const none = useCut((state) => state.document.hidden.length === 0);
  return (
    <div className="flex h-9 shrink-0 items-center gap-3 overflow-hidden border-b border-base-300 px-3 text-sm whitespace-nowrap" role="group" aria-label="The hidden area in hand">
      {inHand ? (
        <>
          <span className="font-semibold">Hidden area</span>
          <span className="figure text-info">{formatSize(inHand.width_px, inHand.height_px)}</span>
          {inHand.how === "solid" && <ColourPick name="Colour of the area" value={inHand.colour ?? "#1D2B2A"} onPick={(colour) => changeHidden(store, inHand.id, { colour: colour ?? "#1D2B2A" })} />}
          {(inHand.how === "pixelate" || inHand.how === "blur") && <Strength area={inHand} />}
          <button type="button" className="btn btn-square btn-ghost btn-xs ml-auto" aria-label="Show it again" title="Show it again (Del)" onClick={() => removeSelected(store)}>
            <Trash2 size={14} aria-hidden />
          </button>
        </>
      ) : (
        <p className="truncate text-info">{none ? "Drag over what must not be seen, or find it by words." : "Drag over what must not be seen. Press a hidden area to change it."}</p>
      )}
    </div>
  );
}

/** As coarse as the letters below ask for, unless somebody says otherwise. */
function Strength({ area }: { area: HiddenArea }) {
  const { store, capture } = useBench();
  const asked = useCoarseness(capture.id, area, useOrientation());
  const strength = area.strength_px ?? asked;
  if (strength === undefined) return null;
  const weak = asked !== undefined && strength < asked;
  return (
    <label className="flex items-center gap-1 text-sm">
      <span className="text-info">coarse</span>
      <NumberInput name="How coarse, in px" size="w-14" value={strength} least={2} greatest={400} onCommit={(px) => changeHidden(store, area.id, { strength_px: px === asked ? null : px })} />
      {weak && (
        <span role="alert" className="text-error" title={`For the letters below, ${asked} px are needed`}>
          can be guessed
        </span>
      )}
    </label>
  );
}
