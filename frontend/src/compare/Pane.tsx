import { type ReactNode, type Ref, useState } from "react";

import type { Output } from "../api/types";
import { useViewport } from "../bench/page/useViewport";

interface Props {
  ref: Ref<HTMLDivElement>;
  /** What is seen: one name, or one for each end. */
  names: string[];
  width: number;
  height: number;
  scale: number;
  place: Output["worst"][number] | undefined;
  onScrolled: (pane: HTMLDivElement) => void;
  children: ReactNode;
}

/** One scrolled view of the picture, with the place that was gone to outlined. */
export function Pane({ ref, names, width, height, scale, place, onScrolled, children }: Props) {
  const [room, setRoom] = useState<HTMLDivElement | null>(null);
  const seen = useViewport(room);
  return (
    <div className="flex min-w-0 flex-1 flex-col border-r border-base-300 last:border-r-0">
      <div className="flex h-7 shrink-0 items-center justify-between bg-base-200 px-4 text-sm">
        {names.map((name, index) => (
          <span key={index}>{name}</span>
        ))}
      </div>
      <div ref={setRoom} className="min-h-0 flex-1">
        <div
          ref={ref}
          className="h-full overflow-auto bg-base-200"
          tabIndex={0}
          role="region"
          aria-label={names.join(" and ")}
          onScroll={(event) => onScrolled(event.currentTarget)}
        >
          <div className="relative" style={{ width, height, marginLeft: Math.max(0, (seen.width - width) / 2) }}>
            {children}
            {place && (
              <div
                data-place
                className="pointer-events-none absolute ring-4 ring-base-100 outline-2 outline-offset-1 outline-secondary outline-dashed"
                style={{
                  left: place.x_px * scale,
                  top: place.y_px * scale,
                  width: place.width_px * scale,
                  height: place.height_px * scale,
                }}
              />
            )}
          </div>
        </div>
      </div>
    </div>
  );
}
