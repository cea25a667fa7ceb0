import { Popover } from "@base-ui/react/popover";
import { Pipette } from "lucide-react";
import { useState } from "react";

/** Our own few, then what was used last. */
const PALETTE: { colour: string; words: string }[] = [
  { colour: "#6B3A5B", words: "Plum" },
  { colour: "#1F5C4D", words: "Pine" },
  { colour: "#C9820A", words: "Marigold" },
  { colour: "#A93B2B", words: "Brick" },
  { colour: "#47606B", words: "Slate" },
  { colour: "#1D2B2A", words: "Ink" },
  { colour: "#F5C451", words: "Straw" },
  { colour: "#FFFDF8", words: "Paper" },
];
const RECENT = "tallpage-colours";
const MOST_RECENT = 6;
const HEX = /^#?([0-9a-f]{6}|[0-9a-f]{8}|[0-9a-f]{3})$/i;

interface Props {
  name: string;
  /** Null where there is none. */
  value: string | null;
  optional?: boolean;
  onPick: (colour: string | null) => void;
}

interface EyeDropper {
  open: () => Promise<{ sRGBHex: string }>;
}

/** A colour of the palette, one of the last, any by its figures, or one off the page. */
export function ColourPick({ name, value, optional = false, onPick }: Props) {
  const [open, setOpen] = useState(false);
  const pick = (colour: string | null) => {
    if (colour) remember(colour);
    onPick(colour);
    setOpen(false);
  };
  const dropper = (window as unknown as { EyeDropper?: new () => EyeDropper }).EyeDropper;
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="btn btn-square btn-ghost btn-xs" aria-label={`${name}: ${value ?? "none"}`} title={name}>
        <Swatch colour={value} />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Positioner side="bottom" align="start" sideOffset={4} className="z-30">
          <Popover.Popup aria-label={name} className="w-56 border border-base-content bg-base-100 p-3 text-sm">
            <div className="mb-2">{name}</div>
            <div className="flex flex-wrap gap-1">
              {PALETTE.map((row) => (
                <button key={row.colour} type="button" className="btn btn-square btn-ghost btn-xs" aria-label={row.words} title={row.words} onClick={() => pick(row.colour)}>
                  <Swatch colour={row.colour} />
                </button>
              ))}
              {recent().map((colour) => (
                <button key={colour} type="button" className="btn btn-square btn-ghost btn-xs" aria-label={colour} title={colour} onClick={() => pick(colour)}>
                  <Swatch colour={colour} />
                </button>
              ))}
            </div>
            <div className="mt-2 flex items-center gap-2">
              <input
                className="input input-xs figure w-24"
                aria-label={`${name}, in figures`}
                defaultValue={value ?? ""}
                placeholder="#1F5C4D"
                onKeyDown={(event) => {
                  const typed = hexOf(event.currentTarget.value);
                  if (event.key === "Enter" && typed) pick(typed);
                }}
              />
              {dropper && (
                <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label="Take a colour off the screen" title="Take a colour off the screen" onClick={() => void new dropper().open().then((found) => pick(found.sRGBHex.toUpperCase()), () => undefined)}>
                  <Pipette size={14} aria-hidden />
                </button>
              )}
              {optional && (
                <button type="button" className="btn btn-ghost btn-xs" onClick={() => pick(null)}>
                  None
                </button>
              )}
            </div>
          </Popover.Popup>
        </Popover.Positioner>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Swatch({ colour }: { colour: string | null }) {
  return (
    <span
      className={`block size-4 rounded-[3px] border border-base-content/40 ${colour ? "" : "bg-[linear-gradient(135deg,transparent_46%,var(--color-error)_46%,var(--color-error)_54%,transparent_54%)]"}`}
      style={colour ? { backgroundColor: colour } : undefined}
      aria-hidden
    />
  );
}

/** What was typed, as #RRGGBB or #RRGGBBAA; null where it is no colour. */
export function hexOf(typed: string): string | null {
  const figures = HEX.exec(typed.trim())?.[1]?.toUpperCase();
  if (!figures) return null;
  return `#${figures.length === 3 ? figures.replace(/./g, "$&$&") : figures}`;
}

function recent(): string[] {
  try {
    return (JSON.parse(localStorage.getItem(RECENT) ?? "[]") as string[]).filter((colour) => hexOf(colour) === colour);
  } catch {
    return [];
  }
}

function remember(colour: string): void {
  if (PALETTE.some((row) => row.colour === colour)) return;
  try {
    localStorage.setItem(RECENT, JSON.stringify([colour, ...recent().filter((row) => row !== colour)].slice(0, MOST_RECENT)));
  } catch {
    // A browser that keeps nothing has only the palette.
  }
}
