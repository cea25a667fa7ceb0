import { THRESHOLD_ID } from "./toneSteps";

/** White from the threshold on, black below: as steep a line as there is between two levels of 255. */
export function ThresholdFilter({ threshold }: { threshold: number }) {
  const slope = 2 * 255;
  const intercept = -2 * (threshold - 0.5);
  return (
    <svg className="absolute size-0" aria-hidden>
      <filter id={THRESHOLD_ID} colorInterpolationFilters="sRGB" x="0" y="0" width="1" height="1">
        <feComponentTransfer>
          <feFuncR type="linear" slope={slope} intercept={intercept} />
          <feFuncG type="linear" slope={slope} intercept={intercept} />
          <feFuncB type="linear" slope={slope} intercept={intercept} />
        </feComponentTransfer>
      </filter>
    </svg>
  );
}
