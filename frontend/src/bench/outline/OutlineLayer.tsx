import { useEffect, useId } from "react";

import { useBench, useCut } from "../benchContext";
import { useGround } from "../clearing/ground";
import { shownFrame } from "../cut/frameSteps";
import { shownCut } from "../cut/cutStore";
import { forgetDraft, useOutlineDraft } from "./draft";
import { closeOutline } from "./outlineGestures";
import { type Corner, cornersIn, LEAST_POINTS, pathOf } from "./outlines";

/** The free outline: what lies outside looks as it will in the file; its corners while it is changed. */
export function OutlineLayer({ zoom }: { zoom: number }) {
  const outline = useCut((state) => shownCut(state).outline);
  const frame = useCut(shownFrame);
  const tool = useCut((state) => (state.tool.kind === "outline" ? state.tool.how : null));
  const drawing = tool === "hand" || tool === "points";
  useEffect(() => forgetDraft, [tool]);
  const place = { left: frame.x_px * zoom, top: frame.y_px * zoom, width: frame.width_px * zoom, height: frame.height_px * zoom };
  const path = outline ? pathOf(cornersIn(outline), outline.smooth ?? false, zoom) : "";
  return (
    <div className="pointer-events-none absolute inset-0">
      {outline && !drawing && (
        <div className="absolute overflow-hidden" style={place} data-outside>
          <Outside path={path} colour={outline.outside ?? null} {...place} />
        </div>
      )}
      {outline && !drawing && (
        <svg className="absolute inset-0 size-full overflow-visible" data-outline aria-hidden>
          <path d={path} className="fill-none stroke-accent" strokeWidth={tool === "corners" ? 2 : 1} />
          {tool === "corners" && <Corners corners={cornersIn(outline)} zoom={zoom} />}
        </svg>
      )}
      {drawing && <Draft zoom={zoom} />}
    </div>
  );
}

/** All of the frame but what is inside. */
function Outside({ path, colour, left, top, width, height }: { path: string; colour: string | null; left: number; top: number; width: number; height: number }) {
  const checks = useId();
  const ground = useGround((state) => state.ground);
  return (
    <svg className="absolute overflow-visible" style={{ left: -left, top: -top }} width={left + width} height={top + height} aria-hidden>
      <pattern id={checks} width={16} height={16} patternUnits="userSpaceOnUse">
        <rect width={16} height={16} fill="#fff" />
        <path d="M0 0h8v8H0zM8 8h8v8H8z" className="fill-base-200" />
      </pattern>
      <path d={`M${left} ${top}h${width}v${height}h${-width}Z${path}`} fillRule="evenodd" fill={colour ?? ground ?? `url(#${checks})`} />
    </svg>
  );
}

function Corners({ corners, zoom }: { corners: readonly Corner[]; zoom: number }) {
  const inHand = useOutlineDraft((state) => state.inHand);
  return corners.map(([x, y], index) => (
    <rect
      key={index}
      data-outline-corner={index}
      x={x * zoom - 4}
      y={y * zoom - 4}
      width={8}
      height={8}
      className={index === inHand ? "fill-neutral stroke-accent" : "fill-accent stroke-neutral"}
    />
  ));
}

/** What is drawn so far. Enter closes it, Backspace takes the last point back. */
function Draft({ zoom }: { zoom: number }) {
  const { store } = useBench();
  const points = useOutlineDraft((state) => state.points);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const drawn = useOutlineDraft.getState().points;
      const onControl = event.target instanceof Element && event.target.closest("button, input, select, a, textarea") !== null;
      if (onControl || drawn.length === 0) return;
      if (event.key === "Enter" && drawn.length >= LEAST_POINTS) closeOutline(store, drawn);
      else if (event.key === "Backspace") useOutlineDraft.setState({ points: drawn.slice(0, -1) });
      else return;
      event.preventDefault();
      event.stopPropagation();
    };
    // Before the Bench's own keys: Backspace would remove what is in hand.
    window.addEventListener("keydown", onKey, { capture: true });
    return () => window.removeEventListener("keydown", onKey, { capture: true });
  }, [store]);
  const byPoints = useCut((state) => state.tool.kind === "outline" && state.tool.how === "points");
  const first = points[0];
  return (
    <>
    {byPoints && first && points.length >= LEAST_POINTS && (
      <p role="status" className="absolute z-10 rounded-[2px] bg-base-100 px-2 py-0.5 text-xs whitespace-nowrap shadow-sm" style={{ left: first.x_px * zoom + 10, top: first.y_px * zoom + 10 }}>
        Press this corner, or Enter, to close the outline
      </p>
    )}
    <svg className="absolute inset-0 size-full overflow-visible" data-outline-draft={points.length} aria-hidden>
      <polyline points={points.map(({ x_px, y_px }) => `${x_px * zoom},${y_px * zoom}`).join(" ")} className="fill-none stroke-accent" strokeWidth={2} />
      {first && <circle cx={first.x_px * zoom} cy={first.y_px * zoom} r={5} className="fill-accent stroke-neutral" />}
    </svg>
    </>
  );
}
