import type { ReactNode } from "react";

import type { Dressing } from "../../api/types";
import { NumberInput } from "../../parts/fields/NumberInput";
import { Panel } from "../../parts/Panel";
import { useBench, useCut } from "../benchContext";
import { ColourPick } from "../marks/ColourPick";
import { dress, type DressingPart } from "./dressSteps";
import { StampFields } from "./StampFields";

const FIELDS = ["title", "address", "host", "date", "name"];
const SIDES = ["top", "right", "bottom", "left"] as const;

/** What is put around the picture, and over all of it. */
export function DressTools() {
  const { store } = useBench();
  const dressing: Dressing = useCut((state) => state.document.dressing) ?? {};
  const { caption, border, shadow, torn, room, stamp, corner_px: corners = 0, background = null } = dressing;
  return (
    <div className="flex min-w-0 items-center gap-0.5" role="group" aria-label="Around the picture">
      <Part part="caption" words="Caption" on={!!caption} usual={{ text: "{title}, {host}, {date}" }}>
        <label className="block">
          Text
          <textarea
            key={caption?.text}
            className="textarea textarea-xs mt-1 w-full"
            rows={3}
            maxLength={2_000}
            aria-label="Text of the caption"
            defaultValue={caption?.text ?? ""}
            onBlur={(event) => event.target.value.trim() && event.target.value !== caption?.text && dress(store, "caption", { ...caption, text: event.target.value }, "caption typed")}
          />
        </label>
        <p className="mt-1 text-info">Filled when the file is made: {FIELDS.map((field) => `{${field}}`).join(" ")}</p>
        <Row words="Where">
          <Choice name="Where the caption stands" value={caption?.side ?? "below"} options={{ below: "below", above: "above" }} onPick={(side) => caption && dress(store, "caption", { ...caption, side }, "caption moved")} />
        </Row>
        <Row words="Aligned">
          <Choice name="How the caption is aligned" value={caption?.align ?? "left"} options={{ left: "left", centre: "centre", right: "right" }} onPick={(align) => caption && dress(store, "caption", { ...caption, align }, "caption aligned")} />
        </Row>
        <Row words="In a divided picture">
          <Choice name="Which leaves have the caption" value={caption?.leaves ?? "all"} options={{ all: "on all leaves", first: "on the first", last: "on the last" }} onPick={(leaves) => caption && dress(store, "caption", { ...caption, leaves }, "caption moved")} />
        </Row>
        <Px words="Size, px" value={caption?.size_px ?? 14} least={4} greatest={200} onSet={(size_px) => caption && dress(store, "caption", { ...caption, size_px }, "caption sized")} />
        <Row words="Colour">
          <ColourPick name="Colour of the caption" value={caption?.colour ?? "#1D2B2A"} onPick={(colour) => caption && colour && dress(store, "caption", { ...caption, colour }, "caption coloured")} />
        </Row>
      </Part>
      <Part part="border" words="Border" on={!!border} usual={{ width_px: 2 }}>
        <Px words="Width, px" value={border?.width_px ?? 1} least={1} greatest={200} onSet={(width_px) => dress(store, "border", { ...border, width_px }, "border sized")} />
        <Row words="Colour">
          <ColourPick name="Colour of the border" value={border?.colour ?? "#D5CBB5"} onPick={(colour) => colour && dress(store, "border", { ...border, colour }, "border coloured")} />
        </Row>
      </Part>
      <Part part="corner_px" words="Corners" on={corners > 0} usual={12}>
        <Px words="Radius, px" value={corners} least={0} greatest={500} onSet={(px) => dress(store, "corner_px", px, "corners rounded")} />
      </Part>
      <Part part="torn" words="Torn edge" on={!!torn} usual={{ sides: ["bottom"], depth_px: 12, seed: 1 }}>
        <div className="mt-2 flex flex-wrap gap-3">
          {SIDES.map((side) => {
            const sides = torn?.sides ?? ["bottom"];
            const rest = sides.includes(side) ? sides.filter((row) => row !== side) : [...sides, side];
            return (
              <label key={side} className="flex items-center gap-1">
                <input type="checkbox" className="checkbox checkbox-xs" checked={!!torn && sides.includes(side)} onChange={() => dress(store, "torn", rest.length > 0 ? { ...torn, sides: rest } : null, "torn edge changed")} />
                {side}
              </label>
            );
          })}
        </div>
        <Px words="Depth, px" value={torn?.depth_px ?? 10} least={2} greatest={100} onSet={(depth_px) => dress(store, "torn", { ...torn, depth_px }, "torn edge changed")} />
        <Px words="Shape, by number" value={torn?.seed ?? 1} least={0} greatest={1_000_000} onSet={(seed) => dress(store, "torn", { ...torn, seed }, "torn edge changed")} />
      </Part>
      <Part part="shadow" words="Shadow" on={!!shadow} usual={{ blur_px: 12, down_px: 4 }}>
        <Px words="Reaches, px" value={shadow?.blur_px ?? 12} least={1} greatest={100} onSet={(blur_px) => dress(store, "shadow", { ...shadow, blur_px }, "shadow changed")} />
        <Px words="Down, px" value={shadow?.down_px ?? 4} least={0} greatest={100} onSet={(down_px) => dress(store, "shadow", { ...shadow, down_px }, "shadow changed")} />
      </Part>
      <Part part="room" words="Room" on={!!room} usual={{ top_px: 16, right_px: 16, bottom_px: 16, left_px: 16 }}>
        {SIDES.map((side) => (
          <Px key={side} words={`${side}, px`} value={room?.[`${side}_px`] ?? 0} least={0} greatest={2_000} onSet={(px) => dress(store, "room", { ...room, [`${side}_px`]: px }, "room changed")} />
        ))}
      </Part>
      <Part part="stamp" words="Stamp" on={!!stamp} usual={{ text: "Draft", place: "bottom-right" }} size="w-72">
        <StampFields stamp={stamp ?? {}} onSet={(change, words) => dress(store, "stamp", { ...stamp, ...change }, words)} />
      </Part>
      <span className="ml-1 flex items-center gap-1 text-sm text-info">
        behind
        <ColourPick name="Colour behind the picture and its caption" value={background} optional onPick={(colour) => dress(store, "background", colour, "background chosen")} />
      </span>
    </div>
  );
}

interface PartProps<P extends DressingPart> {
  part: P;
  words: string;
  on: boolean;
  /** What it is put on with. */
  usual: Dressing[P];
  size?: string;
  children: ReactNode;
}

function Part<P extends DressingPart>({ part, words, on, usual, size = "w-64", children }: PartProps<P>) {
  const { store } = useBench();
  return (
    <Panel label={words} name={words} side="left" button={`btn-xs ${on ? "btn-neutral" : "btn-ghost"}`} size={size}>
      <label className="flex items-center gap-2 font-semibold">
        <input type="checkbox" className="checkbox checkbox-sm" checked={on} onChange={(event) => dress(store, part, event.target.checked ? usual : null, event.target.checked ? `${words.toLowerCase()} put on` : `${words.toLowerCase()} taken off`)} />
        {words}
      </label>
      {on && children}
    </Panel>
  );
}

export function Row({ words, children }: { words: string; children: ReactNode }) {
  return (
    <div className="mt-2 flex items-center justify-between gap-3">
      <span className="text-info">{words}</span>
      {children}
    </div>
  );
}

export function Px({ words, value, least, greatest, onSet }: { words: string; value: number; least: number; greatest: number; onSet: (px: number) => void }) {
  return (
    <Row words={words}>
      <NumberInput name={words} value={value} least={least} greatest={greatest} onCommit={(px) => px !== null && onSet(Math.round(px))} />
    </Row>
  );
}

export function Choice<Value extends string>({ name, value, options, onPick }: { name: string; value: Value; options: Record<Value, string>; onPick: (value: Value) => void }) {
  return (
    <select className="select select-xs w-36" aria-label={name} value={value} onChange={(event) => onPick(event.target.value as Value)}>
      {(Object.entries(options) as [Value, string][]).map(([option, words]) => (
        <option key={option} value={option}>
          {words}
        </option>
      ))}
    </select>
  );
}
