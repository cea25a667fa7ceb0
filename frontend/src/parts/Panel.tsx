import type { ReactNode } from "react";
import { useEffect, useRef } from "react";

interface PanelProps {
  /** What is on the button that opens it. */
  label: ReactNode;
  name: string;
  strong?: boolean;
  children: ReactNode;
}

/** A button with more behind it. It closes when something else is pressed, or with Escape. */
export function Panel({ label, name, strong = false, children }: PanelProps) {
  const box = useRef<HTMLDetailsElement>(null);
  useEffect(() => {
    const close = (event: Event) => {
      const outside = event.target instanceof Node && !box.current?.contains(event.target);
      const escaped = event instanceof KeyboardEvent && event.key === "Escape";
      if (box.current && (outside || escaped)) box.current.open = false;
    };
    document.addEventListener("pointerdown", close);
    document.addEventListener("keydown", close);
    return () => {
      document.removeEventListener("pointerdown", close);
      document.removeEventListener("keydown", close);
    };
  }, []);
  return (
    <details ref={box} className="relative">
      <summary className={`btn btn-sm list-none ${strong ? "btn-primary" : ""}`} aria-label={name}>
        {label}
      </summary>
      <div className="absolute right-0 z-30 mt-1 w-80 border border-base-content bg-base-100 p-4 text-sm shadow-lg">{children}</div>
    </details>
  );
}
