import { useBench, useCut } from "../benchContext";
import { shownFrame } from "../cut/frameSteps";
import { outputSize } from "../files/outputSize";
import { type Ruler, rulerWords, useRulers } from "./rulers";

/** The rulers that stand on the page. */
export function RulerLayer({ zoom }: { zoom: number }) {
  const { inHand } = useBench();
  const width_px = useCut((state) => shownFrame(state).width_px);
  const height_px = useCut((state) => shownFrame(state).height_px);
  const { standing, drawn } = useRulers();
  const scale = inHand ? outputSize({ width_px, height_px }, inHand).scale : null;
  return [...standing, ...(drawn ? [drawn] : [])].map((ruler, index) => <RulerLine key={index} ruler={ruler} zoom={zoom} words={rulerWords(ruler, scale)} />);
}

function RulerLine({ ruler: { from, to }, zoom, words }: { ruler: Ruler; zoom: number; words: string }) {
  const [x1, y1, x2, y2] = [from.x_px * zoom, from.y_px * zoom, to.x_px * zoom, to.y_px * zoom];
  const across = (Math.atan2(y2 - y1, x2 - x1) * 180) / Math.PI;
  return (
    <div className="pointer-events-none absolute inset-0" data-ruler={words}>
      <svg className="absolute inset-0 size-full overflow-visible" aria-hidden>
        <g className="stroke-accent" strokeWidth={2}>
          <line x1={x1} y1={y1} x2={x2} y2={y2} />
          {[[x1, y1] as const, [x2, y2] as const].map(([x, y]) => (
            <line key={`${x} ${y}`} x1={x} y1={y - 7} x2={x} y2={y + 7} transform={`rotate(${across} ${x} ${y})`} />
          ))}
        </g>
      </svg>
      <span role="status" className="figure absolute -translate-x-1/2 translate-y-2 bg-neutral px-1.5 text-xs leading-5 whitespace-nowrap text-neutral-content" style={{ left: (x1 + x2) / 2, top: (y1 + y2) / 2 }}>
        {words}
      </span>
    </div>
  );
}
