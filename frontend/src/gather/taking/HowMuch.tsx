import type { TakeSettings } from "../../api/types";
import { Pick } from "../../parts/fields/Pick";
import { parsePx } from "../../parts/figures";
import { NumberField, TargetField } from "./howParts";
import { useTakeSettings } from "./takeSettings";

const MOST_SCREENS = 500;

type Extent = NonNullable<TakeSettings["extent"]>;
const EXTENTS: Record<Extent, string> = {
  full: "The full page",
  view: "First screen only",
  element: "One element",
  panel: "A scrolling panel, in full",
  between: "From one element to another",
};

function height(text: string): number | null | undefined {
  if (!text.trim()) return null;
  return parsePx(text) || undefined;
}

function screens(text: string): number | null | undefined {
  if (!text.trim()) return null;
  const count = Number(text);
  return Number.isInteger(count) && count >= 1 && count <= MOST_SCREENS ? count : undefined;
}

/** How much of a page is taken. */
export function HowMuch() {
  const { settings, change } = useTakeSettings();
  const { extent } = settings;
  return (
    <div className="space-y-2">
      <Pick name="extent" value={extent} onPick={(picked) => change({ extent: picked })} options={EXTENTS} />
      {extent === "full" && (
        <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
          <NumberField
            label="Greatest height in px"
            before="at most"
            after="px high"
            placeholder="any"
            value={settings.max_height_px}
            parse={height}
            wrong="A whole number above 0, or nothing."
            onChange={(max_height_px) => change({ max_height_px })}
          />
          <NumberField
            label="Greatest number of screens"
            before="or"
            after="screens"
            placeholder="any"
            value={settings.max_screens}
            parse={screens}
            wrong={`1 to ${MOST_SCREENS}, or nothing.`}
            onChange={(max_screens) => change({ max_screens })}
          />
        </div>
      )}
      {(extent === "full" || extent === "view") && (
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={settings.page_width === "all"}
            onChange={(event) => change({ page_width: event.target.checked ? "all" : "screen" })}
          />
          also what is wider than the screen
        </label>
      )}
      {extent !== "full" && extent !== "view" && (
        <div className="flex items-center gap-2">
          <TargetField label={extent === "between" ? "From" : "Which one"} value={settings.element} onChange={(element) => change({ element })} />
          {extent === "between" && (
            <>
              to
              <TargetField label="To" value={settings.to_element} onChange={(to_element) => change({ to_element })} />
            </>
          )}
        </div>
      )}
    </div>
  );
}
