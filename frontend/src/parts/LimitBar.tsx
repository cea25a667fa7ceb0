import { formatBytes } from "./figures";

/**
 * Bytes against a limit: a thin line with a notch at the limit, moss below it, brick beyond, and
 * marigold for a file that keeps to the limit but does not look acceptable.
 * The line ends a quarter beyond the limit, so that an overshoot has room to show.
 */
export function LimitBar({ bytes, limit_bytes, met }: { bytes: number; limit_bytes: number; met: boolean }) {
  const notch = 80;
  const filled = Math.min(100, (bytes / limit_bytes) * notch);
  const over = bytes > limit_bytes;
  return (
    <div
      className="relative h-2"
      role="meter"
      aria-label="Bytes against the limit"
      aria-valuemin={0}
      aria-valuemax={limit_bytes}
      aria-valuenow={Math.min(bytes, limit_bytes)}
      aria-valuetext={`${formatBytes(bytes)} of ${formatBytes(limit_bytes)}`}
    >
      <div className="absolute inset-x-0 top-[3px] h-[2px] bg-base-300" />
      <div
        className={`absolute left-0 top-[2px] h-1 ${over ? "bg-error" : met ? "bg-success" : "bg-accent"}`}
        style={{ width: `${filled}%` }}
      />
      <div className="absolute top-0 h-2 w-[2px] bg-base-content" style={{ left: `${notch}%` }} />
    </div>
  );
}
