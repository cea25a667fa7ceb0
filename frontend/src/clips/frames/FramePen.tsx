import { type RefObject, useState } from "react";

import type { Clip, ClipDocument } from "../../api/types";
import { drawnFrame, type Point } from "../../bench/page/geometry/boxes";
import { useDragging } from "../../parts/dragging";
import type { Pen } from "./onFrames";

interface FramePenProps {
  clip: Clip;
  document: ClipDocument;
  pen: Pen;
  canvas: RefObject<HTMLCanvasElement | null>;
  onDrawn: (from: Point, to: Point) => void;
}

/** Lies over the frame: a drag on it draws what the pen makes. */
export function FramePen({ clip, document, pen, canvas, onDrawn }: FramePenProps) {
  const dragging = useDragging();
  const [drawn, setDrawn] = useState<{ from: Point; to: Point } | null>(null);
  const area = drawn && drawnFrame(drawn.from, drawn.to, clip);
  const part = pen === "part" ? document.box : null;
  const pointAt = (at: { x: number; y: number }): Point => {
    const seen = canvas.current?.getBoundingClientRect();
    if (!seen) return { x_px: 0, y_px: 0 };
    const within = (value: number, most: number) => Math.round(Math.min(Math.max(0, value), most));
    return { x_px: within(((at.x - seen.left) / seen.width) * clip.width_px, clip.width_px), y_px: within(((at.y - seen.top) / seen.height) * clip.height_px, clip.height_px) };
  };
  return (
    <svg
      viewBox={`0 0 ${clip.width_px} ${clip.height_px}`}
      preserveAspectRatio="none"
      className="absolute inset-0 h-full w-full cursor-crosshair touch-none text-accent"
      data-pen={pen}
      aria-hidden
      onPointerDown={(event) => {
        dragging.begin(event, {
          onMove: (at, from) => setDrawn({ from: pointAt(from), to: pointAt(at) }),
          onDrop: (at) => {
            setDrawn(null);
            onDrawn(pointAt({ x: event.clientX, y: event.clientY }), pointAt(at));
          },
          onCancel: () => setDrawn(null),
        });
      }}
    >
      {part && !drawn && <Outline area={part} />}
      {drawn && pen === "arrow" && <line x1={drawn.from.x_px} y1={drawn.from.y_px} x2={drawn.to.x_px} y2={drawn.to.y_px} stroke="currentColor" strokeWidth={2} vectorEffect="non-scaling-stroke" />}
      {area && pen !== "arrow" && <Outline area={area} />}
    </svg>
  );
}

function Outline({ area }: { area: NonNullable<ClipDocument["box"]> }) {
  return <rect x={area.x_px} y={area.y_px} width={area.width_px} height={area.height_px} fill="none" stroke="currentColor" strokeWidth={2} strokeDasharray="6 4" vectorEffect="non-scaling-stroke" />;
}
