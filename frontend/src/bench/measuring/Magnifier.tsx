import { useState } from "react";
import { createPortal } from "react-dom";

import { useBench, usePage, usePreparation } from "../benchContext";
import { PagePictures, picturesNear } from "../page/PagePictures";
import { usePointed } from "./pointed";

const SIDE = 136;
/** How far from the pointer it stands, so that the hand does not cover it. */
const OFF = 28;
/** Height of what stands below it. */
const CAPTION = 40;
/** Px of the display for each px of the page. */
const TIMES = 8;

/** What is under the pointer, close by, while something is dragged; with crossing lines over the page. */
export function Magnifier({ zoom }: { zoom: number }) {
  const pointed = usePointed((state) => state.pointed);
  if (!pointed) return null;
  const [left, top] = [pointed.at.x_px * zoom, pointed.at.y_px * zoom];
  return (
    <>
      <div className="pointer-events-none absolute inset-y-0 w-0 border-l border-dashed border-accent/70" style={{ left }} data-crossing="x" />
      <div className="pointer-events-none absolute inset-x-0 h-0 border-t border-dashed border-accent/70" style={{ top }} data-crossing="y" />
      {createPortal(<Lens x={pointed.x} y={pointed.y} at={pointed.at} />, document.body)}
    </>
  );
}

function Lens({ x, y, at }: { x: number; y: number; at: { x_px: number; y_px: number } }) {
  const { capture } = useBench();
  const page = usePage();
  const prepared = usePreparation() !== "";
  const [lens, setLens] = useState<HTMLDivElement | null>(null);
  const times = TIMES / window.devicePixelRatio;
  const reach_px = SIDE / 2 / times;
  const [column, row] = [Math.floor(at.x_px), Math.floor(at.y_px)];
  const near = { left_px: at.x_px - reach_px, top_px: at.y_px - reach_px, right_px: at.x_px + reach_px, bottom_px: at.y_px + reach_px };
  const names = picturesNear(near, capture.strips, page, prepared, 1);
  const colour = colourAt(lens, column, row);
  const [left, top] = [x + OFF + SIDE > window.innerWidth ? x - OFF - SIDE : x + OFF, y + OFF + SIDE + CAPTION > window.innerHeight ? y - OFF - SIDE - CAPTION : y + OFF];
  return (
    <div ref={setLens} className="pointer-events-none fixed z-50 border border-base-content bg-base-100 shadow-lg" style={{ left, top, width: SIDE + 2 }} aria-hidden data-magnifier>
      <div className="seethrough relative overflow-hidden" style={{ width: SIDE, height: SIDE }}>
        <div className="absolute" style={{ left: SIDE / 2 - at.x_px * times, top: SIDE / 2 - at.y_px * times, width: page.width_px * times, height: page.height_px * times }}>
          <PagePictures names={names} zoom={times} />
        </div>
        <div className="absolute inset-y-0 left-1/2 w-0 border-l border-accent" />
        <div className="absolute inset-x-0 top-1/2 h-0 border-t border-accent" />
      </div>
      <p className="figure h-10 px-1.5 py-1 text-[11px] leading-4 whitespace-nowrap">
        <span className="block">
          x {column} · y {row}
        </span>
        {colour && (
          <span className="flex items-center gap-1">
            <span className="size-3 border border-base-content" style={{ backgroundColor: colour }} />
            {colour}
          </span>
        )}
      </p>
    </div>
  );
}

let canvas: CanvasRenderingContext2D | null = null;

/** The colour of a px of the page, out of the picture that shows it; empty until that has come. */
function colourAt(lens: HTMLElement | null, column: number, row: number): string {
  for (const picture of lens?.querySelectorAll<HTMLImageElement>("img[data-at]") ?? []) {
    const [left = 0, top = 0] = picture.dataset.at?.split(" ").map(Number) ?? [];
    const [x, y] = [column - left, row - top];
    if (!picture.complete || x < 0 || y < 0 || x >= picture.naturalWidth || y >= picture.naturalHeight) continue;
    canvas ??= Object.assign(document.createElement("canvas"), { width: 1, height: 1 }).getContext("2d", { willReadFrequently: true });
    if (!canvas) return "";
    canvas.clearRect(0, 0, 1, 1);
    canvas.drawImage(picture, x, y, 1, 1, 0, 0, 1, 1);
    const [red = 0, green = 0, blue = 0] = canvas.getImageData(0, 0, 1, 1).data;
    return `#${[red, green, blue].map((channel) => channel.toString(16).padStart(2, "0")).join("")}`;
  }
  return "";
}
