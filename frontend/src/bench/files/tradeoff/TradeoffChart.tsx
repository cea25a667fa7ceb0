import type { Choice, Output } from "../../../api/types";
import { formatBytes } from "../../../parts/figures";
import { chartScale } from "./chart";

const WIDTH = 300;
const HEIGHT = 130;
const FOOT = 22;
/** Room beside the points for the figures of fidelity. */
const LEFT = 24;

/** Told apart by dashes as well as by colour. */
const HALVED_DASH = "1 2";
const LINES: Record<Choice["format"], { colour: string; dash: string }> = {
  jpeg: { colour: "var(--color-primary)", dash: "" },
  png: { colour: "var(--color-secondary)", dash: "2 3" },
  webp: { colour: "var(--color-accent)", dash: "7 3" },
  avif: { colour: "var(--color-info)", dash: "9 3 2 3" },
  gif: { colour: "var(--color-warning)", dash: "3 3" },
};

function lineOf(choice: Choice): { colour: string; dash: string } {
  const line = LINES[choice.format];
  return choice.subsampled ? { ...line, dash: HALVED_DASH } : line;
}

interface Props {
  output: Output;
  onChoose: (choice: Choice) => void;
}

/** Bytes against fidelity for each way to encode, as expected from a sample of the cut; a point is a choice. */
export function TradeoffChart({ output, onChoose }: Props) {
  const { tradeoffs } = output;
  const limit_bytes = output.limit_bytes ?? null;
  if (tradeoffs.length === 0) return null;
  const { x: along, y, floor } = chartScale(tradeoffs, limit_bytes, WIDTH - LEFT, HEIGHT);
  const x = (bytes: number) => LEFT + along(bytes);
  const limitAt = limit_bytes === null ? null : x(limit_bytes);
  return (
    <figure className="mt-3" data-tradeoffs>
      <figcaption className="mb-1 flex flex-wrap justify-between gap-x-3 text-sm">
        <span>Fidelity by bytes</span>
        <span className="text-info">Choose a point to make that file</span>
      </figcaption>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT + FOOT}`} className="w-full overflow-visible border-b border-l border-base-300" role="group" aria-label="Bytes against fidelity">
        {limitAt !== null && <line x1={limitAt} x2={limitAt} y1={0} y2={HEIGHT} stroke="var(--color-error)" strokeWidth={1} />}
        <text x={3} y={9} className="figure fill-base-content text-[10px]">
          100
        </text>
        <text x={3} y={HEIGHT - 4} className="figure fill-base-content text-[10px]">
          {floor}
        </text>
        {limitAt !== null && limit_bytes !== null && (
          <text x={limitAt} y={HEIGHT + 18} textAnchor={limitAt > WIDTH / 2 ? "end" : "start"} className="figure fill-base-content text-[10px]">
            limit {formatBytes(limit_bytes)}
          </text>
        )}
        {tradeoffs.map(({ recipe, points }) => {
          const first = points[0];
          const last = points.at(-1);
          if (!first || !last) return null;
          const { colour, dash } = lineOf(first.choice);
          return (
            <g key={recipe}>
              <polyline points={points.map((point) => `${x(point.bytes)},${y(point.fidelity)}`).join(" ")} fill="none" stroke={colour} strokeWidth={1.5} strokeDasharray={dash} />
              {points.map((point) => {
                const words = `${recipe} ${point.choice.quality ?? point.choice.colours ?? ""}: about ${formatBytes(point.bytes)}, fidelity ${point.fidelity.toFixed(0)}`;
                return (
                  <circle
                    key={point.bytes}
                    cx={x(point.bytes)}
                    cy={y(point.fidelity)}
                    r={4}
                    fill={colour}
                    role="button"
                    tabIndex={0}
                    aria-label={words}
                    className="cursor-pointer hover:stroke-base-content"
                    onClick={() => onChoose(point.choice)}
                    onKeyDown={(event) => {
                      if (event.key === "Enter" || event.key === " ") onChoose(point.choice);
                    }}
                  >
                    <title>{words}</title>
                  </circle>
                );
              })}
            </g>
          );
        })}
        {output.fidelity != null && output.bytes > 0 && (
          <circle cx={x(Math.max(output.bytes, 1))} cy={y(output.fidelity)} r={7} fill="none" stroke="var(--color-base-content)" strokeWidth={2} data-made-point />
        )}
      </svg>
      <ul className="mt-1 flex flex-wrap gap-x-4 text-xs">
        {tradeoffs.map(({ recipe, points }) => {
          const choice = points[0]?.choice;
          if (!choice) return null;
          const { colour, dash } = lineOf(choice);
          return (
            <li key={recipe} className="flex items-center gap-1.5">
              <svg width={22} height={6} aria-hidden>
                <line x1={0} x2={22} y1={3} y2={3} stroke={colour} strokeWidth={2} strokeDasharray={dash} />
              </svg>
              {recipe}
            </li>
          );
        })}
        <li>○ this file</li>
      </ul>
    </figure>
  );
}
