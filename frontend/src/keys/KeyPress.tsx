import { useEffect } from "react";

import { pressedKey } from "../app/actions/registry";

interface Props {
  words: string;
  shown: string;
  isOwn: boolean;
  listening: boolean;
  onListen: (on: boolean) => void;
  onPressed: (key: string) => void;
}

/** The key of an action; pressed, it waits for another one. */
export function KeyPress({ words, shown, isOwn, listening, onListen, onPressed }: Props) {
  useEffect(() => {
    if (!listening) return;
    const hear = (event: KeyboardEvent) => {
      // Before anything else hears it: the key is told here, not used.
      event.preventDefault();
      event.stopImmediatePropagation();
      const key = pressedKey(event);
      if (key === "escape") onListen(false);
      else if (key) onPressed(key);
    };
    window.addEventListener("keydown", hear, { capture: true });
    return () => window.removeEventListener("keydown", hear, { capture: true });
  }, [listening, onListen, onPressed]);
  return (
    <button
      type="button"
      className={`btn btn-xs figure min-w-16 ${listening ? "btn-accent" : isOwn ? "border-accent" : ""}`}
      aria-label={`Key of “${words}”: ${shown || "none"}`}
      onClick={() => onListen(!listening)}
      onBlur={() => listening && onListen(false)}
    >
      {listening ? "Press a key… Esc leaves it" : shown || "none"}
    </button>
  );
}
