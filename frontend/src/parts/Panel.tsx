import { Popover } from "@base-ui/react/popover";
import type { ComponentProps, ReactNode } from "react";

interface PanelProps {
  /** What is on the button that opens it. */
  label: ReactNode;
  name?: string;
  /** Classes of the button besides its own. */
  button?: string;
  /** Classes of what opens besides its own: its width. */
  size?: string;
  side?: "left" | "right";
  openAtFirst?: boolean;
  children: ReactNode;
}

/** A button with more behind it. It closes when something else is pressed, or with Escape. */
export function Panel({ label, name, button = "", size = "w-80", side = "right", openAtFirst = false, children }: PanelProps) {
  return (
    <Popover.Root defaultOpen={openAtFirst}>
      <Popover.Trigger className={`btn btn-sm ${button}`} aria-label={name} title={typeof label === "string" ? undefined : name}>
        {label}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Positioner side="bottom" align={side === "right" ? "end" : "start"} sideOffset={4} className="z-30">
          <Popover.Popup
            aria-label={name}
            className={`max-h-(--available-height) max-w-[92vw] overflow-y-auto border border-base-content bg-base-100 p-4 text-sm shadow-lg ${size}`}
          >
            {children}
          </Popover.Popup>
        </Popover.Positioner>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** A button in a panel that closes it: what it begins goes on outside. */
export function ClosingButton(props: ComponentProps<"button">) {
  return <Popover.Close render={<button type="button" {...props} />} />;
}
