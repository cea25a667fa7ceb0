import { FlipHorizontal2, RotateCcw, RotateCw } from "lucide-react";

import { findLevel, orientationText } from "../../api/prepared";
import { useNotices } from "../../app/notices";
import { showProblem } from "../../app/showProblem";
import { NumberInput } from "../../parts/fields/NumberInput";
import { Panel } from "../../parts/Panel";
import { useBench, useCut } from "../benchContext";
import { ColourPick } from "../marks/ColourPick";
import { isUpright } from "./turned";
import { mirror, orientationOf, quarterTurn, setAngle, turn } from "./turnSteps";

const FURTHEST_DEG = 180;

/** How the page lies, before anything of it is framed. */
export function TurnPanel() {
  const { store, capture } = useBench();
  const given = useCut((state) => state.document.orientation);
  const levelling = useCut((state) => state.tool.kind === "level");
  const show = useNotices((state) => state.show);
  const now = orientationOf(given);
  const straighten = async () => {
    const asked = orientationText(store.getState().document);
    try {
      const found = await findLevel(capture.id, asked);
      // The page may have been turned meanwhile: what was found is of how it lay.
      if (orientationText(store.getState().document) !== asked) return;
      if (found.angle_deg === 0) show({ tone: "info", text: "The page is level as far as its lines say.", hint: "Draw a line along what should be level, or type an angle." });
      else setAngle(store, now.angle_deg + found.angle_deg, now.angle_deg === 0 ? { colour: found.colour } : {});
    } catch (error) {
      showProblem(error);
    }
  };
  return (
    <Panel
      name="Turn the page"
      side="left"
      size="w-80"
      button={`btn-xs ${!isUpright(given) || levelling ? "btn-neutral" : ""}`}
      label={
        <>
          <RotateCw size={14} aria-hidden /> Turn
        </>
      }
    >
      <div className="flex gap-2">
        <button type="button" className="btn btn-sm flex-1" aria-label="90° to the left" title="Turn to the left" onClick={() => quarterTurn(store, 270)}>
          <RotateCcw size={16} aria-hidden /> 90°
        </button>
        <button type="button" className="btn btn-sm flex-1" aria-label="90° to the right" title="Turn to the right" onClick={() => quarterTurn(store, 90)}>
          <RotateCw size={16} aria-hidden /> 90°
        </button>
        <button type="button" className="btn btn-sm flex-1" onClick={() => mirror(store)}>
          <FlipHorizontal2 size={16} aria-hidden /> Mirror
        </button>
      </div>
      <label className="mt-3 flex items-center justify-between gap-2">
        Angle, clockwise
        <span className="flex items-center gap-1">
          <NumberInput
            name="Angle in degrees"
            size="w-20"
            step={0.1}
            value={now.angle_deg}
            least={-FURTHEST_DEG}
            greatest={FURTHEST_DEG}
            onCommit={(degrees) => degrees !== null && setAngle(store, degrees, {}, "angle")}
          />
          <span className="text-info">°</span>
        </span>
      </label>
      <div className="mt-2 flex gap-2">
        <button type="button" className="btn btn-sm flex-1" onClick={() => void straighten()}>
          Straighten
        </button>
        <button type="button" className="btn btn-sm flex-1" aria-pressed={levelling} onClick={() => store.setTool({ kind: levelling ? "frame" : "level" })}>
          By a line
        </button>
      </div>
      {levelling && <p className="mt-2 text-info">Draw a line on the page along what should be level or upright.</p>}
      {now.angle_deg !== 0 && (
        <fieldset className="mt-3 flex items-center gap-3">
          <legend className="sr-only">Empty corners</legend>
          Corners
          <label className="flex items-center gap-1">
            <input type="radio" className="radio radio-sm" name="corners" checked={now.corners === "filled"} onChange={() => turn(store, { corners: "filled" }, "corners filled")} />
            filled
          </label>
          {now.corners === "filled" && <ColourPick name="Colour of the corners" value={now.colour.slice(0, 7)} onPick={(colour) => colour && turn(store, { colour }, "colour of the corners")} />}
          <label className="flex items-center gap-1">
            <input type="radio" className="radio radio-sm" name="corners" checked={now.corners === "cropped"} onChange={() => turn(store, { corners: "cropped" }, "corners cropped")} />
            cropped
          </label>
        </fieldset>
      )}
      <button type="button" className="btn btn-xs mt-4" disabled={isUpright(given)} onClick={() => turn(store, orientationOf(null), "turned back")}>
        As it was taken
      </button>
    </Panel>
  );
}
