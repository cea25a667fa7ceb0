import { useCut } from "../benchContext";
import { shownFrame } from "../cut/frameSteps";
import type { Handle } from "./geometry/boxes";

const CORNERS: readonly Handle[] = [
  { x: -1, y: -1 },
  { x: 1, y: -1 },
  { x: -1, y: 1 },
  { x: 1, y: 1 },
];
const EDGES: readonly Handle[] = [
  { x: 0, y: -1 },
  { x: 0, y: 1 },
  { x: -1, y: 0 },
  { x: 1, y: 0 },
];
const SIDE = { "-1": "0%", "0": "50%", "1": "100%" } as const;

/** The frame, with the page around it in the shade. */
export function FrameLayer({ zoom }: { zoom: number }) {
  const frame = useCut(shownFrame);
  const box = {
    left: frame.x_px * zoom,
    top: frame.y_px * zoom,
    width: frame.width_px * zoom,
    height: frame.height_px * zoom,
  };
  const shade = "absolute bg-neutral/45";
  return (
    <div className="pointer-events-none absolute inset-0">
      <div className={`${shade} inset-x-0 top-0`} style={{ height: box.top }} />
      <div className={`${shade} inset-x-0 bottom-0`} style={{ top: box.top + box.height }} />
      <div className={`${shade} left-0`} style={{ top: box.top, height: box.height, width: box.left }} />
      <div className={`${shade} right-0`} style={{ top: box.top, height: box.height, left: box.left + box.width }} />
      <div data-frame className="absolute outline-2 outline-accent" style={box}>
        {[...EDGES, ...CORNERS].map(({ x, y }) => (
          <div
            key={`${x},${y}`}
            data-handle={`${x},${y}`}
            className={`absolute -mt-[5px] -ml-[5px] h-2.5 w-2.5 ${x !== 0 && y !== 0 ? "border border-neutral bg-accent" : ""}`}
            style={{ left: SIDE[`${x}`], top: SIDE[`${y}`] }}
          />
        ))}
      </div>
    </div>
  );
}
