import { ArrowLeft, ArrowRight, RotateCw } from "lucide-react";
import { useState } from "react";

import { useScreens } from "../api/screens";
import { screenWords } from "../parts/figures";
import { connection, useLive } from "./connection";
import type { ScreenSize } from "./messages";

interface LiveBarProps {
  screenName: string;
  onScreen: (name: string) => void;
  onOpen: (address: string) => void;
}

/** Where the page is, and on which screen. */
export function LiveBar({ screenName, onScreen, onOpen }: LiveBarProps) {
  const { data: screens } = useScreens();
  const place = useLive((state) => state.place);
  const isOpen = useLive((state) => state.screen !== null);
  const [typed, setTyped] = useState<string | null>(null);
  const icon = (words: string, Icon: typeof ArrowLeft, by: -1 | 0 | 1) => (
    <button type="button" className="btn btn-square btn-ghost btn-sm" aria-label={words} title={words} disabled={!isOpen} onClick={() => connection.send({ kind: "move", by })}>
      <Icon size={18} aria-hidden />
    </button>
  );
  return (
    <form
      className="flex items-center gap-1"
      onSubmit={(event) => {
        event.preventDefault();
        onOpen(typed ?? place?.address ?? "");
        setTyped(null);
      }}
    >
      {icon("Back", ArrowLeft, -1)}
      {icon("On", ArrowRight, 1)}
      {icon("Load again", RotateCw, 0)}
      <input
        className="input input-sm mx-1 min-w-0 flex-1"
        aria-label="Address of the live page"
        placeholder="Address of a page to use here"
        spellCheck={false}
        autoComplete="off"
        value={typed ?? place?.address ?? ""}
        onChange={(event) => setTyped(event.target.value)}
        onFocus={(event) => event.target.select()}
        onBlur={() => typed !== null && typed === place?.address && setTyped(null)}
      />
      <label className="sr-only" htmlFor="live-screen">
        Screen
      </label>
      <select id="live-screen" className="select select-sm w-44" value={screenName} onChange={(event) => onScreen(event.target.value)}>
        {screens?.map((row) => (
          <option key={row.name} value={row.name}>
            {row.name} {screenWords(row)}
          </option>
        ))}
      </select>
      <button type="submit" className="btn btn-primary btn-sm">
        {place?.loading && isOpen ? "Opening…" : "Open"}
      </button>
    </form>
  );
}

export function sizeOf({ width_px, height_px, scale, touch }: ScreenSize): ScreenSize {
  return { width_px, height_px, scale, touch };
}
