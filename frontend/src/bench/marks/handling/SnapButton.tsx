import { Magnet } from "lucide-react";

import { useSnapSwitch } from "./snapSwitch";

/** Whether what is dragged is drawn to edges: one switch for marks and frames. `words` say to which. */
export function SnapButton({ words }: { words: string }) {
  const { on, turn } = useSnapSwitch();
  return (
    <button
      type="button"
      className={`btn ml-1 btn-xs px-1.5 @min-[46rem]:ml-2 ${on ? "" : "btn-ghost"}`}
      aria-pressed={on}
      title={on ? words : "What is dragged goes where it is dragged"}
      onClick={turn}
    >
      <Magnet size={16} aria-hidden /> <span className="sr-only">Snap to edges</span>
    </button>
  );
}
