import { type KeyboardEvent, useEffect, useRef, useState } from "react";

import type { ClipChange } from "../../api/clips";
import type { Clip, ClipDocument } from "../../api/types";
import { angleOf, type HandleName } from "../../bench/marks/handling/handles";
import { heldOf } from "../../bench/marks/handling/hitMarks";
import type { Point } from "../../bench/page/geometry/boxes";
import { useViewport } from "../../bench/page/useViewport";
import { type At, useDragging } from "../../parts/dragging";
import { isOn, placesOf, shownMark, taken, takenAt, type Thing, withoutThing } from "./takenUp";

interface FrameHandlesProps {
  clip: Clip;
  document: ClipDocument;
  frame: number;
  /** The part of the frame that is seen, in px of the frames. */
  box: NonNullable<ClipDocument["box"]>;
  inHand: Thing | null;
  onTake: (thing: Thing | null) => void;
  onChange: (change: ClipChange) => void;
  layer: HTMLDivElement | null;
  onLayer: (layer: HTMLDivElement | null) => void;
}

const STEPS: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
const FAR_PX = 10;
const ROUND: ReadonlySet<string> = new Set<HandleName>(["bend", "spot", "turn"]);

/** Lies over the frame: what is hidden and drawn on it is taken up, moved and reshaped there. */
export function FrameHandles({ clip, document, frame, box, inHand, onTake, onChange, layer, onLayer }: FrameHandlesProps) {
  const dragging = useDragging();
  const measure = useLetters();
  const zoom = useViewport(layer).width / box.width_px || 1;
  const [draft, setDraft] = useState<ClipDocument | null>(null);
  const now = draft ?? document;
  const row = inHand && now[inHand.of][inHand.at];
  const held = row && isOn(row, frame) ? inHand : null;

  const pointAt = ({ x, y }: At): Point => {
    const seen = layer?.getBoundingClientRect() ?? { left: 0, top: 0 };
    return { x_px: box.x_px + (x - seen.left) / zoom, y_px: box.y_px + (y - seen.top) / zoom };
  };
  const heard = (event: KeyboardEvent) => {
    const step = STEPS[event.key];
    if (!held) return;
    if (step) {
      const far = event.shiftKey ? FAR_PX : 1;
      onChange((newest) => taken(newest, held, null, { x_px: 0, y_px: 0 }, { x_px: step[0] * far, y_px: step[1] * far }, clip, measure));
    } else if (event.key === "Delete" || event.key === "Backspace") {
      onTake(null);
      onChange((newest) => withoutThing(newest, held));
    } else if (event.key === "Escape") onTake(null);
    else return;
    event.preventDefault();
  };
  const begin = (event: React.PointerEvent<HTMLDivElement>) => {
    const hit = takenAt(document, frame, pointAt({ x: event.clientX, y: event.clientY }), held, zoom, measure);
    onTake(hit?.thing ?? null);
    if (!hit) return;
    event.currentTarget.focus({ preventScroll: true });
    const changed = (at: At, from: At, even: boolean) => taken(document, hit.thing, hit.grip, pointAt(from), pointAt(at), clip, measure, even);
    const from = { x: event.clientX, y: event.clientY };
    dragging.begin(event, {
      onMove: (at, _, keys) => setDraft({ ...document, ...changed(at, from, keys.shift) }),
      onDrop: (at, moved, keys) => {
        setDraft(null);
        if (moved) onChange(changed(at, from, keys.shift));
      },
      onCancel: () => setDraft(null),
    });
  };
  return (
    <div
      ref={onLayer}
      className={`absolute inset-0 touch-none ${hasAny(document, frame) ? "cursor-move" : ""}`}
      role="group"
      tabIndex={held ? 0 : -1}
      aria-label={held ? "What is in hand on the frame. Arrow keys move it, Delete removes it, Escape lets it go." : "The frame"}
      data-frame-handles
      onKeyDown={heard}
      onPointerDown={begin}
    >
      {held && <Held document={now} thing={held} box={box} zoom={zoom} measure={measure} />}
    </div>
  );
}

const hasAny = ({ hidden, marks }: ClipDocument, frame: number) => [...hidden, ...marks].some((row) => isOn(row, frame));

interface HeldProps {
  document: ClipDocument;
  thing: Thing;
  box: NonNullable<ClipDocument["box"]>;
  zoom: number;
  measure: (text: string, size_px: number) => number;
}

/** The outline of what is in hand, and where it can be taken. */
function Held({ document, thing, box, zoom, measure }: HeldProps) {
  const shown = thing.of === "marks" ? shownMark(document, thing.at, measure) : null;
  const area = thing.of === "hidden" ? document.hidden[thing.at]?.area : undefined;
  const extent = shown ? heldOf(shown) : area && { left_px: area.x_px, top_px: area.y_px, right_px: area.x_px + area.width_px, bottom_px: area.y_px + area.height_px };
  const across = (x_px: number) => (x_px - box.x_px) * zoom;
  const down = (y_px: number) => (y_px - box.y_px) * zoom;
  return (
    <>
      {extent && (
        <div
          className="pointer-events-none absolute border border-dashed border-accent outline outline-base-100/70"
          data-held={`${thing.of}-${thing.at}`}
          style={{
            left: across(extent.left_px),
            top: down(extent.top_px),
            width: (extent.right_px - extent.left_px) * zoom,
            height: (extent.bottom_px - extent.top_px) * zoom,
            rotate: `${shown ? angleOf(shown.mark) : 0}deg`,
          }}
        />
      )}
      {placesOf(document, thing, zoom, measure).map(({ name, at }) => (
        <span
          key={name}
          data-handle={name}
          className={`pointer-events-none absolute -mt-[5px] -ml-[5px] size-2.5 border border-neutral bg-accent ${ROUND.has(name) ? "rounded-full" : ""}`}
          style={{ left: across(at.x_px), top: down(at.y_px) }}
        />
      ))}
    </>
  );
}

/** Measures letters in the font in which marks are drawn. */
function useLetters(): (text: string, size_px: number) => number {
  const context = useRef<CanvasRenderingContext2D | null>(null);
  const [measure] = useState(() => (text: string, size_px: number) => {
    context.current ??= window.document.createElement("canvas").getContext("2d");
    if (!context.current) return 0;
    context.current.font = `600 ${size_px}px "Tall Page Text"`;
    return context.current.measureText(text).width;
  });
  useEffect(() => void window.document.fonts.load('600 24px "Tall Page Text"'), []);
  return measure;
}

