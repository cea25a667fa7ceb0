import { Blend, X } from "lucide-react";
import { useState } from "react";

import { NumberInput } from "../../parts/fields/NumberInput";
import { Panel } from "../../parts/Panel";
import { useBench, useCut } from "../benchContext";
import { ColourPick, hexOf } from "../marks/ColourPick";
import { changeColour, clearColour, forgetPutBack, MOST_TOLERANCE, removeColour, USUAL_TOLERANCE } from "./clearSteps";
import { useGround } from "./ground";

const FIRST_GROUND = "#C9820A";

/** Colours that become transparent: pressed on the page, each with its own reach. */
export function ClearPanel() {
  const { store } = useBench();
  const cleared = useCut((state) => state.document.cleared);
  const tool = useCut((state) => state.tool.kind);
  const { ground, setGround } = useGround();
  const colours = cleared?.colours ?? [];
  const spots = cleared?.put_back?.length ?? 0;
  const take = (kind: "clear" | "put_back") => store.setTool({ kind: tool === kind ? "frame" : kind });
  return (
    <Panel
      name="Clear a colour"
      side="left"
      size="w-96"
      button={`btn-xs ${colours.length > 0 || tool === "clear" || tool === "put_back" ? "btn-neutral" : ""}`}
      label={
        <>
          <Blend size={14} aria-hidden /> Clear
        </>
      }
    >
      <p className="mb-2">Make a colour of the page transparent.</p>
      <div className="flex gap-2">
        <button type="button" className="btn btn-sm" aria-pressed={tool === "clear"} onClick={() => take("clear")}>
          Press a colour on the page
        </button>
        <button type="button" className="btn btn-sm" aria-pressed={tool === "put_back"} disabled={colours.length === 0} onClick={() => take("put_back")}>
          Put a spot back
        </button>
      </div>
      <TypedColour />
      <ul className="mt-3 grid gap-2">
        {colours.map((row, index) => (
          <li key={index} className="flex flex-wrap items-center gap-2 border-t border-base-300 pt-2">
            <span className="size-4 shrink-0 border border-base-content" style={{ backgroundColor: row.colour }} aria-hidden />
            <span className="figure">{row.colour}</span>
            <label className="flex items-center gap-1">
              <span className="text-info">tolerance</span>
              <NumberInput
                name={`Tolerance of ${row.colour}`}
                size="w-14"
                value={row.tolerance ?? USUAL_TOLERANCE}
                least={0}
                greatest={MOST_TOLERANCE}
                onCommit={(tolerance) => tolerance !== null && changeColour(store, index, { ...row, tolerance: Math.round(tolerance) }, `tolerance ${index}`)}
              />
            </label>
            <button type="button" className="btn btn-square btn-ghost btn-xs ml-auto" aria-label={`Put ${row.colour} back`} title="Put it back" onClick={() => removeColour(store, index)}>
              <X size={14} aria-hidden />
            </button>
            {row.x_px != null && (
              <label className="flex w-full items-center gap-2">
                <input
                  type="checkbox"
                  className="checkbox checkbox-sm"
                  checked
                  onChange={() => changeColour(store, index, { colour: row.colour, ...(row.tolerance != null && { tolerance: row.tolerance }) })}
                />
                Only what is connected with the place that was pressed
              </label>
            )}
            {row.x_px == null && <span className="w-full text-info">Everywhere on the page. Press the colour again for one place only.</span>}
          </li>
        ))}
      </ul>
      {spots > 0 && (
        <p className="mt-3 flex items-center gap-2">
          <span>
            <span className="figure">{spots}</span> {spots === 1 ? "spot" : "spots"} put back
          </span>
          <button type="button" className="btn btn-xs" onClick={() => forgetPutBack(store)}>
            Clear again
          </button>
        </p>
      )}
      {colours.length > 0 && (
        <p className="mt-3 flex items-center gap-2 border-t border-base-300 pt-3">
          <label className="flex items-center gap-2">
            <input type="checkbox" className="checkbox checkbox-sm" checked={ground !== null} onChange={(event) => setGround(event.target.checked ? FIRST_GROUND : null)} />
            Look at it on a colour
          </label>
          {ground !== null && <ColourPick name="Ground" value={ground} onPick={(colour) => setGround(colour)} />}
        </p>
      )}
    </Panel>
  );
}

/** A colour by its figures, for those who do not press on the page: cleared everywhere. */
function TypedColour() {
  const { store } = useBench();
  const [text, setText] = useState("");
  const colour = hexOf(text.trim())?.slice(0, 7).toLowerCase();
  const clear = () => {
    if (!colour) return;
    clearColour(store, { colour });
    setText("");
  };
  return (
    <form
      className="mt-2 flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        clear();
      }}
    >
      <input className="input input-sm w-32" aria-label="Colour to clear, like #ffffff" placeholder="or type #ffffff" value={text} onChange={(event) => setText(event.target.value)} />
      <button type="submit" className="btn btn-sm" disabled={!colour}>
        Clear everywhere
      </button>
    </form>
  );
}
