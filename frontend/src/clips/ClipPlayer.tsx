import { Pause, Play } from "lucide-react";
import { type ReactNode, useEffect, useRef, useState } from "react";

import { framesOf, frameUrl } from "../api/clips";
import type { Clip, ClipDocument, ClipOutput } from "../api/types";
import type { Point } from "../bench/page/geometry/boxes";
import { BesideIt } from "./files/BesideIt";
import { FramePen } from "./frames/FramePen";
import type { Pen } from "./frames/onFrames";
import { lengthMs, placeAt, type Shown } from "./playing";

interface ClipPlayerProps {
  clip: Clip;
  document: ClipDocument;
  shown: Shown[];
  frame: number;
  onFrame: (frame: number) => void;
  /** A file that is played beside the frames, in step with them. */
  beside?: ClipOutput | undefined;
  /** What a drag on the frame draws. While one is held, all of the frame is seen. */
  pen: Pen | null;
  onDrawn: (from: Point, to: Point) => void;
  /** Lies over the part of the frame that is seen, while no pen is held. */
  over?: ((box: NonNullable<ClipDocument["box"]>) => ReactNode) | undefined;
}

/** Plays what is seen, from the frames themselves. Still, it shows the frame that was chosen. */
export function ClipPlayer({ clip, document, shown, frame, onFrame, beside, pen, onDrawn, over }: ClipPlayerProps) {
  const [isPlaying, setIsPlaying] = useState(false);
  const canvas = useRef<HTMLCanvasElement>(null);
  const pictures = useRef(new Map<string, HTMLImageElement>());
  const wanted = useRef(frame);
  const total = lengthMs(shown);
  const place = placeAt(shown, momentOf(shown, frame));
  const box = (pen === null && document.box) || { x_px: 0, y_px: 0, width_px: clip.width_px, height_px: clip.height_px };

  useEffect(() => {
    wanted.current = frame;
    const draw = (picture: HTMLImageElement, drawn: number) => {
      const context = canvas.current?.getContext("2d");
      if (!context || wanted.current !== drawn || !picture.complete || picture.naturalWidth === 0) return;
      const scale = picture.naturalWidth / clip.width_px;
      context.drawImage(picture, box.x_px * scale, box.y_px * scale, box.width_px * scale, box.height_px * scale, 0, 0, context.canvas.width, context.canvas.height);
      context.canvas.dataset.drawn = String(drawn);
    };
    const fetched = (number: number) => {
      const url = frameUrl(beside ? { id: clip.id, output: beside.id } : framesOf(clip), number, 640, document.pointer);
      const known = pictures.current.get(url);
      if (known) return known;
      const picture = new Image();
      picture.src = url;
      picture.addEventListener("load", () => draw(picture, number));
      pictures.current.set(url, picture);
      return picture;
    };
    draw(fetched(frame), frame);
    // What comes next is fetched before it is to be seen.
    for (const row of shown.slice(place + 1, place + 1 + AHEAD)) fetched(row.frame);
  }, [clip, document.pointer, beside, frame, shown, place, box.x_px, box.y_px, box.width_px, box.height_px]);

  useEffect(() => {
    if (!isPlaying || total === 0) return;
    const begun = performance.now() - momentOf(shown, wanted.current);
    let next = 0;
    const tick = () => {
      const row = shown[placeAt(shown, (performance.now() - begun) % total)];
      if (row) onFrame(row.frame);
      next = requestAnimationFrame(tick);
    };
    next = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(next);
  }, [isPlaying, shown, total, onFrame]);

  const width = Math.min(640, box.width_px);
  const height = Math.max(1, Math.round((box.height_px / box.width_px) * width));
  return (
    <div>
      <div className={`grid max-h-[52dvh] min-h-40 place-items-center gap-3 bg-base-200 p-3 ${beside ? "grid-cols-2" : ""}`}>
        <div className="relative grid max-h-[48dvh] max-w-full place-items-center">
          <canvas ref={canvas} width={width} height={height} className="max-h-[48dvh] max-w-full border border-base-300 bg-white" aria-label={`Frame ${frame + 1}`} role="img" />
          {pen && <FramePen clip={clip} document={document} pen={pen} canvas={canvas} onDrawn={onDrawn} />}
          {!pen && !isPlaying && over?.(box)}
        </div>
        {beside && <BesideIt key={beside.id} output={beside} momentMs={(shown[place]?.startMs ?? 0) + 1} width={width} height={height} />}
      </div>
      <div className="mt-2 flex items-center gap-3 text-sm">
        <button type="button" className="btn btn-sm w-24" onClick={() => setIsPlaying(!isPlaying)} disabled={total === 0}>
          {isPlaying ? <Pause size={16} aria-hidden /> : <Play size={16} aria-hidden />}
          {isPlaying ? "Pause" : "Play"}
        </button>
        <input
          type="range"
          className="range range-xs flex-1"
          aria-label="Moment"
          min={0}
          max={Math.max(0, shown.length - 1)}
          value={place}
          onChange={(event) => {
            setIsPlaying(false);
            onFrame(shown[Number(event.target.value)]?.frame ?? 0);
          }}
        />
        <span className="figure whitespace-nowrap">
          {((shown[place]?.startMs ?? 0) / 1_000).toFixed(1)} of {(total / 1_000).toFixed(1)} s
        </span>
      </div>
      {total === 0 && <p className="mt-1 text-sm">Every frame is dropped: nothing is left to be seen.</p>}
    </div>
  );
}

const AHEAD = 12;

/** When a frame is first seen; of one that is dropped, the next that is seen. */
function momentOf(shown: readonly Shown[], frame: number): number {
  return (shown.find((row) => row.frame >= frame) ?? shown.at(-1))?.startMs ?? 0;
}
