import type { Guide } from "./snapping";

/** Lines along what a mark was drawn to, and measures of equal gaps. */
export function GuideLayer({ guides, zoom }: { guides: readonly Guide[]; zoom: number }) {
  return guides.map(({ axis, at_px, from_px, to_px, gap }) => {
    const [start, length] = [from_px * zoom, (to_px - from_px) * zoom];
    const place = axis === "x" ? { left: at_px * zoom, top: start, height: length } : { top: at_px * zoom, left: start, width: length };
    const line = axis === "x" ? "w-0 border-l" : "h-0 border-t";
    const ends = gap ? (axis === "x" ? "before:-left-1 before:w-2 before:border-y before:h-full" : "before:-top-1 before:h-2 before:border-x before:w-full") : "";
    return (
      <div
        key={`${axis} ${at_px} ${from_px}`}
        data-guide={gap ? "gap" : axis}
        className={`pointer-events-none absolute border-accent ${line} ${gap ? `before:absolute before:border-accent ${ends}` : "border-dashed"}`}
        style={place}
      />
    );
  });
}
